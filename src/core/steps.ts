/** Of what is done card by card, so many are a step. */
export const STEP = 500;

/** Does work that is written in steps without a rest between them. */
export function atOnce<T>(steps: Generator<void, T>): T {
	for (;;) {
		const { done, value } = steps.next();
		if (done) return value;
	}
}

/** @param part so many of them stand together, the last ones with fewer */
export function* inParts<T>(all: Iterable<T>, part: number): Generator<T[]> {
	const some: T[] = [];
	for (const one of all) if (some.push(one) === part) yield some.splice(0);
	if (some.length) yield some;
}
