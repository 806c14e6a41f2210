import type { Instant } from '../calendar/zone.ts';

const FORM =
	/^(\d{4})-(\d{2})-(\d{2})T(\d{2}):(\d{2})(?::(\d{2})(?:[.,](\d+))?)?(?:Z|([+-])(\d{2}):(\d{2}))$/;

/**
 * Reads an ISO 8601 instant: date, hours and minutes, seconds if given, and `Z` or an offset. Digits past the
 * millisecond are cut. Null when it is not one.
 */
export function parseInstant(text: string): Instant | null {
	const parts = FORM.exec(text);
	if (!parts) return null;
	const [year, month, day, hour, minute] = [+parts[1]!, +parts[2]!, +parts[3]!, +parts[4]!, +parts[5]!];
	const second = +(parts[6] ?? 0);
	const [offsetHour, offsetMinute] = [+(parts[9] ?? 0), +(parts[10] ?? 0)];
	if (month < 1 || month > 12 || day < 1 || day > daysInMonth(year, month)) return null;
	if (hour > 23 || minute > 59 || second > 59 || offsetHour > 23 || offsetMinute > 59) return null;
	const millis = +(parts[7] ?? '0').slice(0, 3).padEnd(3, '0');
	const local =
		new Date(0).setUTCFullYear(year, month - 1, day) + ((hour * 60 + minute) * 60 + second) * 1000 + millis;
	return local - (parts[8] === '-' ? -1 : 1) * (offsetHour * 60 + offsetMinute) * 60_000;
}

function daysInMonth(year: number, month: number): number {
	if (month === 2) return year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0) ? 29 : 28;
	return [4, 6, 9, 11].includes(month) ? 30 : 31;
}

/** An instant as ISO 8601 UTC with milliseconds. */
export function instantText(at: Instant): string {
	return new Date(at).toISOString();
}
