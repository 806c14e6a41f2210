import { dayText } from '../calendar/days.ts';
import { zoneOf } from '../calendar/zone.ts';
import type { CardView } from '../pages/board.ts';
import { count } from '../words.ts';
import type { Field, Looking } from './field.ts';
import { days } from './field-values.ts';

/** How long a card has been in hand, how often it was left over, and when it was finished. */
export function fieldsOfFlow({ board, today, carried = {}, expectation }: Looking): Field[] {
	const zone = zoneOf(board.timeZone);
	const dayOf = (instant: string) => zone.day(Date.parse(instant));
	const age = (card: CardView) =>
		card.clock === 'running' && card.started ? Math.max(1, today - dayOf(card.started) + 1) : null;
	return [
		{
			id: 'age',
			name: 'Days in hand',
			text: (card) => {
				const days = age(card);
				return days === null ? '' : count(days, 'day');
			},
			order: (card) => age(card),
			said: expectation
				? [
						{
							key: '~old',
							words: `older than ${expectation.percentile}% of past cards`,
							is: (card) => (age(card) ?? 0) > expectation.days,
						},
					]
				: [],
		},
		{
			id: 'carried',
			name: 'Carried',
			text: ({ number }) => (carried[number] ? `×${carried[number]}` : ''),
			order: ({ number }) => carried[number] ?? null,
			said: [
				{ key: '~yes', words: 'carried over', is: ({ number }) => (carried[number] ?? 0) > 0 },
				{ key: '~twice', words: 'carried twice or more', is: ({ number }) => (carried[number] ?? 0) > 1 },
			],
		},
		{
			id: 'finished',
			name: 'Finished',
			...days(today, ({ finished }) => (finished === null ? null : dayText(dayOf(finished)))),
		},
	];
}
