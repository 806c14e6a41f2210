import { dayText, parseDay } from '../calendar/days.ts';
import { dueAfter, lengthOf, ORDINARY } from '../calendar/workdays.ts';
import { zoneOf, type Day } from '../calendar/zone.ts';
import type { CardView } from '../pages/board.ts';
import { count } from '../words.ts';
import type { Change, Field, Looking } from './field.ts';
import { days, isOpen } from './field-values.ts';
import { uses } from './used.ts';

/** When a card is to be worked on, and how long. */
export function fieldsOfDates({ board, today, works = ORDINARY }: Looking): (Field | false)[] {
	const zone = zoneOf(board.timeZone);
	return [
		uses(board, 'dates') && {
			id: 'start',
			name: 'Start',
			also: ['starts', 'start date'],
			...days(
				today,
				({ start }) => start,
				(card, day) => startOn(card, day, works),
			),
		},
		uses(board, 'dates') && {
			id: 'due',
			name: 'Due',
			also: ['due date', 'deadline', 'by'],
			...days(
				today,
				({ due }) => due,
				(_, day) => ({ do: 'due', due: day }),
			),
			said: [
				{
					key: '~late',
					words: 'late',
					is: (card) =>
						card.due !== null &&
						(card.finished ? zone.day(Date.parse(card.finished)) : isOpen(card) ? today : -Infinity) >
							parseDay(card.due)!,
				},
				{ key: '~today', words: 'due today', is: ({ due }) => due === dayText(today) },
				{
					key: '~soon',
					words: 'due in the next seven days',
					is: (card) =>
						card.due !== null &&
						isOpen(card) &&
						parseDay(card.due)! >= today &&
						parseDay(card.due)! < today + 7,
				},
			],
		},
		uses(board, 'dates') && {
			id: 'length',
			name: 'Length',
			text: (card) => {
				const days = lengthIn(card, works);
				return days === null ? '' : count(days, 'working day');
			},
			order: (card) => lengthIn(card, works),
		},
	];
}

/**
 * A card that starts on another day. One that has a start and a due day keeps its length: the due day moves along. Source:
 * measures, dates and dependencies.
 */
function startOn({ start, due }: CardView, day: string | null, works: (day: Day) => boolean): Change {
	if (!start || !due || !day) return { do: 'start', start: day };
	const length = lengthOf(works, parseDay(start)!, parseDay(due)!);
	const end = dueAfter(works, parseDay(day)!, length);
	return { do: 'start', start: day, due: end === null ? due : dayText(end) };
}

/** How many working days a card takes from its start to its due day, both counted; one where it has one of them; null without. */
function lengthIn({ start, due }: CardView, works: (day: Day) => boolean): number | null {
	if (!start && !due) return null;
	return start && due ? lengthOf(works, parseDay(start)!, parseDay(due)!) : 1;
}
