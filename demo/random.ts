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
	let state = seed >>> 0;
	const next = () => {
		state = (state + 0x6d2b79f5) >>> 0;
		let t = state;
		t = Math.imul(t ^ (t >>> 15), t | 1);
		t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
		return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
	};
	const normal = () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
	return {
		next,
		whole: (low, high) => low + Math.floor(next() * (high - low + 1)),
		pick: (list) => list[Math.floor(next() * list.length)]!,
		happens: (probability) => next() < probability,
		factor: (sigma) => Math.exp(sigma * normal()),
	};
}
