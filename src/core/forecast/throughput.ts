import { fsum } from 'd3-array';
import type { Day } from '../calendar/zone.ts';

/** So many days before today are what tomorrow is judged by. */
export const WINDOW_DAYS = 60;
/** With fewer cards finished in them nothing is said about what comes. */
export const LEAST_FINISHED = 10;
/** Further off than so many days no date is given. */
const FARTHEST_DAYS = 1000;
/** What adding chances up may be wrong by. */
const NEARLY = 1e-12;

/** The days from which a forecast is made, both counted, and how many cards were finished on each of them. */
export interface Window {
	from: Day;
	to: Day;
	counts: number[];
}

/**
 * The days before a day with how many cards were finished on each; null where too few were for a forecast.
 * @param finished how many cards were finished on a day, as that stands now
 * @param first the day of the first event: days before it say nothing
 */
export function windowBefore(
	finished: ReadonlyMap<Day, number>,
	first: Day,
	today: Day,
	days = WINDOW_DAYS,
): Window | null {
	const [from, to] = [Math.max(first, today - days), today - 1];
	const counts = Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => finished.get(from + i) ?? 0);
	return fsum(counts) < LEAST_FINISHED ? null : { from, to, counts };
}

/** The chance that on one day just so many cards are finished, at the place of that number. */
function chancesOf(counts: readonly number[]): number[] {
	const chances = Array.from({ length: Math.max(0, ...counts) + 1 }, () => 0);
	for (const n of counts) chances[n]! += 1 / counts.length;
	return chances;
}

/** The chances of the sum of what both say, up to so many; what is more is left out. */
function together(some: readonly number[], day: readonly number[], most: number): number[] {
	const sum = Array.from({ length: Math.min(most, some.length + day.length - 2) + 1 }, () => 0);
	for (const [i, p] of some.entries())
		if (p > 0) for (let k = 0; k < day.length && i + k < sum.length; k++) sum[i + k]! += p * day[k]!;
	return sum;
}

/**
 * How many cards will be finished at least within so many days, at each confidence. Days are taken as independent draws
 * from the window, and the chances are found exactly, by convolution. Source: measures, forecast.
 * @param confidences from 0 to 1
 */
export function howMany(counts: readonly number[], days: number, confidences: readonly number[]): number[] {
	const day = chancesOf(counts);
	let chances = [1];
	for (let t = 0; t < days; t++) chances = together(chances, day, Infinity);
	return confidences.map((p) => {
		let atLeast = 0;
		for (let k = chances.length - 1; k > 0; k--) {
			atLeast += chances[k]!;
			if (atLeast >= p - NEARLY) return k;
		}
		return 0;
	});
}

/**
 * In how many days so many cards will be finished, at each confidence; null beyond a thousand days. The same draws as
 * with `howMany`. Source: measures, forecast.
 * @param confidences from 0 to 1
 */
export function when(
	counts: readonly number[],
	items: number,
	confidences: readonly number[],
): (number | null)[] {
	const found = confidences.map((): number | null => (items <= 0 ? 0 : null));
	if (items <= 0 || !counts.some((n) => n > 0)) return found;
	const day = chancesOf(counts);
	let fewer = [1];
	for (let t = 1; t <= FARTHEST_DAYS && found.includes(null); t++) {
		fewer = together(fewer, day, items - 1);
		const reached = 1 - fsum(fewer);
		for (const [i, p] of confidences.entries()) if (reached >= p - NEARLY) found[i] ??= t;
	}
	return found;
}
