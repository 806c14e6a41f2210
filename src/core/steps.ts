/** Does work that is written in steps without a rest between them. */
export function atOnce<T>(steps: Generator<void, T>): T {
	for (;;) {
		const { done, value } = steps.next();
		if (done) return value;
	}
}
