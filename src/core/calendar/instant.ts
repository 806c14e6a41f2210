import type { Instant } from '../calendar/zone.ts';

const HOUR = '(?:[01]\\d|2[0-3])';
const FORM = new RegExp(
	`^\\d{4}-(?:0[1-9]|1[0-2])-(?:0[1-9]|[12]\\d|3[01])T${HOUR}:[0-5]\\d(?::[0-5]\\d(?:[.,]\\d+)?)?(?:Z|[+-]${HOUR}:[0-5]\\d)$`,
);

/**
 * Reads an ISO 8601 instant: date, hours and minutes, seconds if given, and `Z` or an offset. Digits past the
 * millisecond are cut. Null when it is not one.
 */
export function parseInstant(text: string): Instant | null {
	if (!FORM.test(text)) return null;
	const day = +text.slice(8, 10);
	// Days past the end of a month would be read as days of the next.
	if (day > 28 && day > daysInMonth(+text.slice(0, 4), +text.slice(5, 7))) return null;
	return Date.parse(text.replace(',', '.'));
}

function daysInMonth(year: number, month: number): number {
	if (month === 2) return year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0) ? 29 : 28;
	return [4, 6, 9, 11].includes(month) ? 30 : 31;
}

/** An instant as ISO 8601 UTC with milliseconds. */
export function instantText(at: Instant): string {
	return new Date(at).toISOString();
}
