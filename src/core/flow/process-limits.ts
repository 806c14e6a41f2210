import { fsum } from 'd3-array';

/** A point of a series that says the process changed. */
export interface Signal {
	index: number;
	rule: 'outside' | 'run' | 'near-limit';
}

/** Natural process limits of a series, and what in it is not noise. */
export interface ProcessLimits {
	mean: number;
	/** Mean of the moving ranges |xᵢ − xᵢ₋₁|. */
	averageRange: number;
	upper: number;
	lower: number;
	/** A moving range above this is a signal of its own. */
	rangeLimit: number;
	signals: Signal[];
}

const ENOUGH = 6;
const RUN = 8;

/**
 * Natural process limits (an XmR chart) of a series of counts: mean ± 2.66 × the average moving range, the lower one
 * not below 0. Null for fewer than six points.
 * Source: Shewhart's charts for individual values; 2.66 = 3 ÷ 1.128, 3.267 = the range limit's factor for pairs.
 */
export function processLimits(series: readonly number[]): ProcessLimits | null {
	if (series.length < ENOUGH) return null;
	const mean = fsum(series) / series.length;
	let ranges = 0;
	for (let i = 1; i < series.length; i++) ranges += Math.abs(series[i]! - series[i - 1]!);
	const averageRange = ranges / (series.length - 1);
	const reach = 2.66 * averageRange;
	return {
		mean,
		averageRange,
		upper: mean + reach,
		lower: Math.max(0, mean - reach),
		rangeLimit: 3.267 * averageRange,
		signals: signalsOf(series, mean, reach),
	};
}

function signalsOf(series: readonly number[], mean: number, reach: number): Signal[] {
	const signals: Signal[] = [];
	const sideOf = (x: number) => Math.sign(x - mean);
	const nearer = (x: number) => Math.abs(x - mean) > reach / 2;
	const floor = Math.max(0, mean - reach);
	let side = 0;
	let length = 0;
	series.forEach((x, index) => {
		if (x > mean + reach || x < floor) signals.push({ index, rule: 'outside' });
		length = sideOf(x) !== 0 && sideOf(x) === side ? length + 1 : 1;
		side = sideOf(x);
		if (side !== 0 && length >= RUN) signals.push({ index, rule: 'run' });
		if (index >= 3 && side !== 0 && nearer(x)) {
			const four = series.slice(index - 3, index + 1);
			if (four.filter((y) => nearer(y) && sideOf(y) === side).length >= 3)
				signals.push({ index, rule: 'near-limit' });
		}
	});
	return signals;
}
