const fixed = process.env.HARROW_NOW ? new Date(process.env.HARROW_NOW) : null;
if (fixed && Number.isNaN(fixed.getTime()))
	throw new Error(`HARROW_NOW "${process.env.HARROW_NOW}" is not an instant.`);

/** The present: the machine's clock, or the instant that HARROW_NOW fixes for tests and pictures. */
export function now(): Date {
	return fixed ? new Date(fixed) : new Date();
}
