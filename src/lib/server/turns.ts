import { setImmediate as rest } from 'node:timers/promises';

/** So long others wait at most for work that is done in steps. */
export const TURN_MS = 10;

/** Does work in steps; whenever it has taken a while, others have their turn. */
export async function inTurns<T>(steps: Generator<void, T>): Promise<T> {
	for (let began = performance.now(); ;) {
		const { done, value } = steps.next();
		if (done) return value;
		if (performance.now() - began < TURN_MS) continue;
		await turn();
		began = performance.now();
	}
}

let last: Promise<void> = Promise.resolve();

/** Lets others have their turn; of several that wait for theirs, each goes on in one of its own. */
export function turn(): Promise<void> {
	return (last = last.then(() => rest()));
}
