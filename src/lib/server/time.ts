/** When this process began: a clock that is set goes on from there. */
const began = Date.now();

/**
 * The present: the machine's clock, or the instant that HARROW_NOW sets for tests and pictures. There it stands still,
 * unless a + at its end lets it go on from when the process began.
 * @throws Error when HARROW_NOW is not an instant
 */
export function now(): Date {
	const set = process.env.HARROW_NOW;
	if (!set) return new Date();
	const at = Date.parse(set.replace(/\+$/, ''));
	if (Number.isNaN(at)) throw new Error(`HARROW_NOW "${set}" is not an instant.`);
	return new Date(set.endsWith('+') ? at + Date.now() - began : at);
}
