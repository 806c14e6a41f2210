import { tidy } from '../sums.ts';

/** Hours that were worked: summed over everything that nobody asks apart. What is not asked apart is left out. */
export interface Worked {
	/** In the range that was asked for, or in the equal span before it. */
	span: 'now' | 'before';
	/** Who, on which board, for which initiative: by their ids, as two may have one name; null: for none. */
	person: string;
	board?: string;
	initiative?: string | null;
	/** `2026-11` */
	month?: string;
	/** The sprint of its board in whose stint it was worked, by its number; null for none. */
	sprint?: number | null;
	type?: string;
	labels?: readonly string[];
	hours: number;
	billable: number;
	/** What it cost: null where cost is not shown; hours without a rate cost nothing and are counted apart. */
	cost: number | null;
	unrated: number;
}

export const GROUPINGS = [
	'person',
	'board',
	'initiative',
	'label',
	'type',
	'sprint',
	'month',
	'quarter',
] as const;
export type Grouping = (typeof GROUPINGS)[number];

/** One line of an account. */
export interface AccountLine {
	/** What it is about, as the facts tell it apart; empty: nothing of that kind. */
	about: string;
	hours: number;
	billable: number;
	/** Null: not shown, or no hour of it had a rate. */
	cost: number | null;
	/** Hours of it that had no rate. */
	unrated: number;
	/** Hours in the equal span before. */
	before: number;
}

/** Hours worked on a card, or placed with it. */
export interface CardHours {
	/** Its key. */
	card: string;
	hours: number;
}

export interface Account {
	lines: AccountLine[];
	/** Everything once: with labels it is less than the sum of the lines. */
	total: AccountLine;
}

/** `2026-Q4` of `2026-11` */
const quarterOf = (month: string) => `${month.slice(0, 4)}-Q${Math.ceil(Number(month.slice(5)) / 3)}`;

/** What a fact is counted under; with labels it may be several. */
function under(fact: Worked, by: Grouping): string[] {
	switch (by) {
		case 'label':
			return fact.labels?.length ? [...new Set(fact.labels)] : [''];
		case 'sprint':
			return [fact.sprint ? `${fact.board} ${fact.sprint}` : ''];
		case 'quarter':
			return [quarterOf(fact.month!)];
		default:
			return [fact[by] ?? ''];
	}
}

/**
 * Worked hours and what they cost, in lines of one kind. They come from logged time alone: neither carrying, splitting
 * nor re-sizing a card changes them.
 */
export function account(facts: readonly Worked[], by: Grouping): Account {
	const lines = new Map<string, AccountLine>();
	const line = (about: string) => {
		const known = lines.get(about) ?? emptyLine(about);
		lines.set(about, known);
		return known;
	};
	const total = emptyLine('all');
	for (const fact of facts)
		for (const one of [total, ...under(fact, by).map(line)]) {
			if (fact.span === 'before') {
				one.before += fact.hours;
				continue;
			}
			one.hours += fact.hours;
			one.billable += fact.billable;
			one.unrated += fact.unrated;
			if (fact.cost !== null && fact.hours > fact.unrated) one.cost = (one.cost ?? 0) + fact.cost;
		}
	return {
		lines: [...lines.values()]
			.map(finish)
			.sort((a, b) => b.hours - a.hours || b.before - a.before || (a.about < b.about ? -1 : 1)),
		total: finish(total),
	};
}

function emptyLine(about: string): AccountLine {
	return { about, hours: 0, billable: 0, cost: null, unrated: 0, before: 0 };
}

function finish(line: AccountLine): AccountLine {
	return {
		...line,
		hours: tidy(line.hours),
		billable: tidy(line.billable),
		unrated: tidy(line.unrated),
		before: tidy(line.before),
		cost: line.cost === null ? null : Math.round(line.cost * 100) / 100,
	};
}

/**
 * The cards behind a line of an account, the most hours first: their hours add up to the hours of the line.
 * @param about of the line; null: all cards, each once
 */
export function cardsBehind(
	facts: readonly (Worked & { card: string })[],
	by: Grouping,
	about: string | null,
): CardHours[] {
	const hours = new Map<string, number>();
	for (const fact of facts)
		if (fact.span === 'now' && (about === null || under(fact, by).includes(about)))
			hours.set(fact.card, (hours.get(fact.card) ?? 0) + fact.hours);
	return [...hours]
		.map(([card, sum]) => ({ card, hours: tidy(sum) }))
		.sort((a, b) => b.hours - a.hours || (a.card < b.card ? -1 : 1));
}

/** A share of hours, or null where there are none. */
export const useOf = (hours: number, available: number): number | null =>
	available > 0 ? hours / available : null;

/** A sprint that has not been closed, with the cards placed on each person and their part of what is left of them. */
export interface PlacedSprint {
	from: number;
	to: number;
	placed: ReadonlyMap<string, readonly CardHours[]>;
}

/**
 * Cards placed on people within a range of days, with their hours: of sprints that reach beyond it, as many parts as working days lie in it.
 * @param works whether the team works on a day
 */
export function placedWithin(
	sprints: readonly PlacedSprint[],
	works: (day: number) => boolean,
	from: number,
	to: number,
): Map<string, CardHours[]> {
	const placed = new Map<string, CardHours[]>();
	const workdays = (a: number, b: number) => {
		let n = 0;
		for (let day = a; day <= b; day++) if (works(day)) n++;
		return n;
	};
	for (const sprint of sprints) {
		const all = workdays(sprint.from, sprint.to);
		const inside = workdays(Math.max(from, sprint.from), Math.min(to, sprint.to));
		if (!all || !inside) continue;
		for (const [person, cards] of sprint.placed) {
			const within = cards.map(({ card, hours }) => ({ card, hours: tidy((hours * inside) / all) }));
			placed.set(person, [...(placed.get(person) ?? []), ...within]);
		}
	}
	return placed;
}
