import type { Day } from '../calendar/zone.ts';
import type { Finding, FindingKind, Remedy } from './state.ts';

/** A finding of a kind about a subject: a card by its number, a person or column by its id, a sprint by its number. */
export function finding(
	kind: FindingKind,
	subject: string | number,
	severity: 1 | 2 | 3,
	figure: number,
	sentence: string,
	more: Partial<Pick<Finding, 'cards' | 'person' | 'column'>> & { remedies: Remedy[] },
): Finding {
	return {
		key: `${kind}:${subject}`,
		kind,
		severity,
		figure,
		sentence,
		person: null,
		column: null,
		...more,
		// A card is named once, however often it is part of what is found.
		cards: [...new Set(more.cards)],
	};
}

/** Working days after a day, up to and with another. */
export function workingDaysAfter(works: (day: Day) => boolean, from: Day, to: Day): number {
	let days = 0;
	for (let day = from + 1; day <= to; day++) if (works(day)) days++;
	return days;
}

/** So many working days from now, in words. */
export function inWorkingDays(n: number): string {
	if (n === 0) return 'before the next working day';
	return n === 1 ? 'in one working day' : `in ${n} working days`;
}

/** Days from a day to today, both counted. */
export const since = (from: Day, today: Day) => today - from + 1;
