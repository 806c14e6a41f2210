/** How long the fixed work below takes on an idle machine of the kind on which the limits of the timing tests were set. */
const IDLE_MS = 20;

function fixedWork(): number {
	const began = performance.now();
	const sums = new Map<number, number>();
	for (let i = 0, x = 1; i < 400_000; i++) {
		x = (x * 48_271) % 2_147_483_647;
		sums.set(x % 5000, i);
	}
	return performance.now() - began;
}

/**
 * How many times slower than an idle one this machine is at the moment, at least 1. A machine that others use too stands
 * still now and then: a limit in milliseconds is meant for the share of it that is ours.
 */
export function slowness(): number {
	for (let i = 0; i < 3; i++) fixedWork();
	const times = Array.from({ length: 15 }, fixedWork);
	return Math.max(1, times.reduce((sum, ms) => sum + ms, 0) / times.length / IDLE_MS);
}
