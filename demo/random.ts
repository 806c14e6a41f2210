import { mulberry32 } from '../src/core/capacity/chance.ts';

/** A seeded source of chance (mulberry32), so that the demo is the same every time. */
export interface Chance {
	/** From 0 to below 1. */
	next(): number;
	/** A whole number from low to high, both included. */
	whole(low: number, high: number): number;
	pick<T>(list: readonly T[]): T;
	/** Whether something of this probability happens. */
	happens(probability: number): boolean;
	/** A factor around 1, skewed to the right as work is: median 1, spread by sigma. */
	factor(sigma: number): number;
}

export function chance(seed: number): Chance {
	const next = mulberry32(seed);
	const normal = () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
	return {
		next,
		whole: (low, high) => low + Math.floor(next() * (high - low + 1)),
		pick: (list) => list[Math.floor(next() * list.length)]!,
		happens: (probability) => next() < probability,
		factor: (sigma) => Math.exp(sigma * normal()),
	};
}
