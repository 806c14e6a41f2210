import type { Day } from '../../../core/calendar/zone.ts';
import { dayWithin } from '../asked.ts';
import { Problem } from '../problem.ts';

/**
 * Reads a day that a command names.
 * @param what as it begins a sentence: `The due date`
 */
export function dayField(text: string, field: string, what: string): Day {
	const day = dayWithin(text);
	if (day === null)
		throw new Problem(422, `invalid.${field}`, `${what} must be a day such as 2026-12-04.`, field);
	return day;
}
