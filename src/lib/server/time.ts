/** When this process began: a clock that is set goes on from there. */
const began = Date.now();

/** How far the database's clock is ahead of this machine's, in milliseconds, as last heard. */
let ahead = 0;

/**
 * The present: the database's clock, as several processes share it, or the instant that HARROW_NOW sets for tests and
 * pictures. There it stands still, unless a + at its end lets it go on from when the process began.
 * @throws Error when HARROW_NOW is not an instant
 */
export const now = (): Date => setTime() ?? new Date(Date.now() + ahead);

/** The instant that HARROW_NOW sets; null where the clocks go as they go. */
export function setTime(): Date | null {
	const set = process.env.HARROW_NOW;
	if (!set) return null;
	const at = Date.parse(set.replace(/\+$/, ''));
	if (Number.isNaN(at)) throw new Error(`HARROW_NOW "${set}" is not an instant.`);
	return new Date(set.endsWith('+') ? at + Date.now() - began : at);
}

/** Hears what the database's clock says; differences that a question's way explains are none. */
export function hearClock(database: Date): void {
	const difference = database.getTime() - Date.now();
	ahead = Math.abs(difference) < 250 ? 0 : difference;
}
