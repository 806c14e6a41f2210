import { isUUID } from 'class-validator';
import { parseDay } from '../../core/calendar/days.ts';
import type { Day } from '../../core/calendar/zone.ts';
import { Problem } from './problem.ts';

const FIRST = parseDay('1900-01-01')!;
const LAST = parseDay('2200-01-01')!;

/** Whether a text from outside can be the id of anything. */
export const isId = (text: string): boolean => isUUID(text);

/** A day that a calendar of ours knows; null for any other text. */
export function dayWithin(text: string): Day | null {
	const day = parseDay(text);
	return day !== null && day >= FIRST && day <= LAST ? day : null;
}

/**
 * A day that an address asks for; null where it asks for none.
 * @throws Problem 422 when the text is not a day
 */
export function dayAsked(text: string | null, field: string): Day | null {
	if (!text) return null;
	const day = dayWithin(text);
	if (day === null)
		throw new Problem(
			422,
			`invalid.${field}`,
			`“${text.slice(0, 40)}” is not a day such as 2026-11-23.`,
			field,
		);
	return day;
}

/** A range of days, both included, as an address asks for one. */
export function rangeWithin(from: Day, to: Day): [Day, Day] {
	if (to < from) throw new Problem(422, 'range.backwards', 'The range ends before it begins.', 'to');
	if (to - from > 3700)
		throw new Problem(422, 'range.too_long', 'The range may be at most ten years long.', 'from');
	return [from, to];
}
