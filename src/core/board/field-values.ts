import { dayText, mondayOf, parseDay, weekday } from '../calendar/days.ts';
import { DAY_MS, type Day } from '../calendar/zone.ts';
import type { CardView } from '../pages/board.ts';
import type { Change, Field } from './field.ts';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const shortDay = (day: Day) => {
	const date = new Date(day * DAY_MS);
	return `${date.getUTCDate()} ${MONTHS[date.getUTCMonth()]}`;
};

/** Whatever holds a day: put together by weeks, dragged to a week on the same weekday, or on its Friday. */
export function days(
	today: Day,
	of: (card: CardView) => string | null,
	put?: (card: CardView, day: string | null) => Change | null,
): Pick<Field, 'text' | 'order' | 'values' | 'day'> {
	const day = (card: CardView) => {
		const text = of(card);
		return text ? parseDay(text) : null;
	};
	const week = (key: string) => {
		const monday = parseDay(key)!;
		const by = (monday - mondayOf(today)) / 7;
		return by === 0 ? 'this week' : by === 1 ? 'next week' : `week of ${shortDay(monday)}`;
	};
	return {
		day: put ?? (() => null),
		text: (card) => of(card) ?? '',
		order: day,
		values: {
			of: (card) => {
				const on = day(card);
				return [on === null ? '' : dayText(mondayOf(on))];
			},
			known: [
				{ key: dayText(mondayOf(today)), name: 'this week' },
				{ key: dayText(mondayOf(today) + 7), name: 'next week' },
				{ key: '', name: 'no date' },
			],
			name: (key) => (key ? week(key) : 'no date'),
			put:
				put &&
				((card, to) => {
					if (!to) return put(card, null);
					const on = day(card);
					return put(card, dayText(parseDay(to)! + (on === null ? 4 : weekday(on))));
				}),
			does: 'gives a card another date',
		},
	};
}

/** Values that are names of the board's, with one for none. */
export const names = (all: readonly string[], none: string) => ({
	known: [...all.map((name) => ({ key: name, name })), { key: '', name: none }],
	name: (key: string) => key || none,
});

/** Whether a card is still to be finished. */
export const isOpen = ({ clock }: CardView): boolean => clock !== 'done';

/** Values of what is so or not. */
export const YES_NO = (yes: string, no: string) => ({
	known: [
		{ key: 'yes', name: yes },
		{ key: '', name: no },
	],
	name: (key: string) => (key ? yes : no),
});
