import { fsum } from 'd3-array';

/**
 * Percentile by nearest rank: the ceil(p/100 × n)-th smallest.
 * @param sorted figures in rising order
 * @param p above 0, at most 100
 * @returns null for an empty list
 */
export function percentile(sorted: readonly number[], p: number): number | null {
	// p × n is taken first, so that no rounding of p/100 moves a whole rank.
	return sorted[Math.ceil((p * sorted.length) / 100) - 1] ?? null;
}

/** Mean of a list; null when it is empty. */
export function mean(values: readonly number[]): number | null {
	return values.length ? fsum(values) / values.length : null;
}

export interface Summary {
	n: number;
	p50: number;
	p70: number;
	p85: number;
	p95: number;
	mean: number;
}

/** Count, percentiles and mean of a list of figures; null when it is empty. */
export function summary(values: readonly number[]): Summary | null {
	if (!values.length) return null;
	const sorted = [...values].sort((a, b) => a - b);
	const at = (p: number) => percentile(sorted, p)!;
	return { n: sorted.length, p50: at(50), p70: at(70), p85: at(85), p95: at(95), mean: mean(sorted)! };
}
