/**
 * The present: the machine's clock, or the instant that HARROW_NOW fixes for tests and pictures.
 * @throws Error when HARROW_NOW is not an instant
 */
export function now(): Date {
	const fixed = process.env.HARROW_NOW;
	if (!fixed) return new Date();
	const at = new Date(fixed);
	if (Number.isNaN(at.getTime())) throw new Error(`HARROW_NOW "${fixed}" is not an instant.`);
	return at;
}
