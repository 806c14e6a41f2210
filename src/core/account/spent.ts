import { fsum, group, rollup } from 'd3-array';
import { tidy } from '../sums.ts';

/** Hours that somebody worked on a card of an initiative within a week, and what of it fell into one month and one sprint. */
export interface Spent {
	person: string;
	/** The key of the card. */
	card: string;
	/** `2026-11-23`, a Monday; `2026-11`. */
	week: string;
	month: string;
	/** The sprint as it is called on its board; null for none. */
	sprint: string | null;
	hours: number;
	/** What it cost; null where that is not shown or has no rate. */
	cost: number | null;
}

/** Work up to the end of a week: all that was spent by then, and the cards of that week. */
export interface SpentPoint {
	week: string;
	spent: number;
	cards: { card: string; amount: number }[];
}

/**
 * How an initiative used its budget, week by week, beginning with the first one that had any work.
 * @param of hours or cost: what has no cost adds none
 */
export function spentOver(facts: readonly Spent[], of: 'hours' | 'cost'): SpentPoint[] {
	let spent = 0;
	const byCard = (list: readonly Spent[]) =>
		[
			...rollup(
				list,
				(some) => fsum(some, (one) => one[of] ?? 0),
				({ card }) => card,
			),
		]
			.map(([card, amount]) => ({ card, amount: tidy(amount) }))
			.sort((a, b) => b.amount - a.amount || (a.card < b.card ? -1 : 1));
	return [...group(facts, ({ week }) => week)]
		.sort(([a], [b]) => (a < b ? -1 : 1))
		.map(([week, list]) => {
			spent += fsum(list, (one) => one[of] ?? 0);
			return { week, spent: tidy(spent), cards: byCard(list) };
		});
}

/** The week in which a budget was passed; null while it is kept. */
export const passedIn = (points: readonly SpentPoint[], budget: number): string | null =>
	points.find(({ spent }) => spent > budget)?.week ?? null;

export const PERIODS = ['month', 'quarter', 'sprint'] as const;
export type Period = (typeof PERIODS)[number];

/** One person’s work for an initiative, or everyone’s, by periods. */
export interface SpentLine {
	/** The id of the person; empty for everyone together. */
	person: string;
	hours: number;
	cells: { period: string; hours: number; cards: { card: string; amount: number }[] }[];
}

const periodOf = ({ month, sprint }: Spent, by: Period): string =>
	by === 'month'
		? month
		: by === 'quarter'
			? `${month.slice(0, 4)}-Q${Math.ceil(Number(month.slice(5)) / 3)}`
			: (sprint ?? '');

/**
 * Who worked how much for an initiative in which month, quarter or sprint: everyone together first, then who worked most.
 * @returns the periods in their order, those of no sprint last, and a cell of each line for every period
 */
export function spentBy(facts: readonly Spent[], by: Period): { periods: string[]; lines: SpentLine[] } {
	const first = rollup(
		facts,
		(list) => list.reduce((a, b) => (b.week < a ? b.week : a), '9'),
		(one) => periodOf(one, by),
	);
	const periods = [...first]
		.sort(
			([a, one], [b, two]) =>
				Number(a === '') - Number(b === '') || (one < two ? -1 : one > two ? 1 : a < b ? -1 : 1),
		)
		.map(([period]) => period);
	const line = (person: string, own: readonly Spent[]): SpentLine => ({
		person,
		hours: tidy(fsum(own, ({ hours }) => hours)),
		cells: periods.map((period) => {
			const some = own.filter((one) => periodOf(one, by) === period);
			const cards = rollup(
				some,
				(list) => tidy(fsum(list, ({ hours }) => hours)),
				({ card }) => card,
			);
			return {
				period,
				hours: tidy(fsum(some, ({ hours }) => hours)),
				cards: [...cards].map(([card, amount]) => ({ card, amount })).sort((a, b) => b.amount - a.amount),
			};
		}),
	});
	const people = [...group(facts, ({ person }) => person)].map(([person, own]) => line(person, own));
	return { periods, lines: [line('', facts), ...people.sort((a, b) => b.hours - a.hours)] };
}
