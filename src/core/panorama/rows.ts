import { fsum } from 'd3-array';
import { parseDay } from '../calendar/days.ts';
import type { Day } from '../calendar/zone.ts';
import type { Dates } from '../dates/follow.ts';
import { spanOf } from '../dates/follow.ts';
import type { InitiativeFigures, PanoramaBoard, PanoramaPage, TimelineCard } from '../pages/panorama.ts';
import type { Asked } from './asked.ts';

export interface Span {
	start: Day;
	end: Day;
}

/** A row that names what is below it. An initiative has a bar of its own. */
export interface GroupRow {
	kind: 'group';
	id: string;
	name: string;
	folded: boolean;
	/** Places of its cards among those of the page. */
	cards: number[];
	initiative: InitiativeFigures | null;
}

export interface CardRow {
	kind: 'card';
	/** The group that it stands in, and its place among the cards of the page. */
	group: string;
	at: number;
}
export type Row = GroupRow | CardRow;

const day = (text: string | null): Day | null => (text === null ? null : parseDay(text));
/** The dates of a card as days. */
export const datesOf = ({ start, due }: Pick<TimelineCard, 'start' | 'due'>): Dates => ({
	start: day(start),
	due: day(due),
});
/** The key of a card. */
export const keyOf = (page: PanoramaPage, { board, number }: TimelineCard): string =>
	`${page.boards.find(({ id }) => id === board)?.key ?? ''}-${number}`;
/** Whether it is due and not done. */
export const isLate = (card: TimelineCard, today: Day): boolean =>
	card.clock !== 'done' && (spanOf(datesOf(card))?.end ?? today) < today;

/** How many days after its target an initiative will be done, as its cards have gone; null where nothing says. */
export function daysLate({ target, doneBy }: Pick<InitiativeFigures, 'target' | 'doneBy'>): number | null {
	return target === null || doneBy === null ? null : parseDay(doneBy)! - parseDay(target)!;
}

/** Blockers that end on the day on which what waits for them starts, or after it; both of them are open. */
export function broken(page: PanoramaPage): [from: number, to: number][] {
	return page.links.filter(([from, to]) => {
		const [a, b] = [page.cards[from]!, page.cards[to]!];
		if (a.clock === 'done' || b.clock === 'done') return false;
		return spanOf(datesOf(b))!.start <= spanOf(datesOf(a))!.end;
	});
}

/** The places of the cards that are meant; the page itself has only those with the words and fields that are asked for. */
export function meantCards(page: PanoramaPage, asked: Asked): number[] {
	const today = parseDay(page.today)!;
	const boards = boardsMeant(page, asked);
	const crossed = asked.late ? new Set(broken(page).map(([, to]) => to)) : null;
	return page.cards.flatMap((card, at) => {
		if (!boards.has(card.board)) return [];
		if (asked.who && !card.owners.includes(asked.who)) return [];
		if (crossed && !isLate(card, today) && !crossed.has(at)) return [];
		return [at];
	});
}

/** Ids of the boards that are meant. */
export const boardsMeant = (page: PanoramaPage, { boards }: Asked): Set<string> =>
	new Set(page.boards.filter(({ slug }) => !boards.length || boards.includes(slug)).map(({ id }) => id));

/** The initiatives that are meant: those with cards on the boards that are, and those that belong there. */
export function meantInitiatives(page: PanoramaPage, asked: Asked): InitiativeFigures[] {
	const boards = boardsMeant(page, asked);
	const words = asked.q.toLowerCase();
	const narrow = asked.who || asked.late;
	const shown = narrow ? meantCards(page, asked).map((at) => page.cards[at]!.initiative) : [];
	const with_ = new Set(narrow ? shown : (page.narrowed?.initiatives ?? []));
	return page.initiatives.filter((one) => {
		if (!boards.has(one.board) && !one.parts.some(({ board }) => boards.has(board))) return false;
		if (with_.has(one.id)) return true;
		if (asked.where.length) return false;
		if (asked.late && !((daysLate(one) ?? 0) > 0)) return false;
		if (asked.who && one.lead !== asked.who) return false;
		return !words || one.name.toLowerCase().includes(words);
	});
}

const NONE = { initiatives: 'No initiative', boards: '', people: 'Nobody', classes: '' };
export const CLASSES = {
	expedite: 'Expedite',
	fixed: 'Fixed date',
	standard: 'Standard',
	background: 'Background',
} as const;

/**
 * The rows of the timeline, in their order: what cards are put together by, and below each its cards, the earliest first.
 * A card that two people own stands in both of their rows.
 * @param folded ids of groups whose cards are not shown
 */
export function rowsOf(page: PanoramaPage, asked: Asked, folded: ReadonlySet<string>): Row[] {
	const cards = meantCards(page, asked);
	const by = new Map<string, number[]>();
	const put = (group: string, at: number) => {
		const known = by.get(group);
		if (known) known.push(at);
		else by.set(group, [at]);
	};
	for (const at of cards) for (const group of groupsOf(page.cards[at]!, asked.of)) put(group, at);
	const groups = namesOf(page, asked)
		.map(({ id, name, initiative }): GroupRow => {
			const own = by.get(id) ?? [];
			return { kind: 'group', id, name, initiative, cards: own, folded: folded.has(id) };
		})
		.filter((group) => group.initiative !== null || group.cards.length > 0);
	return groups.flatMap((group): Row[] => [
		group,
		...(group.folded ? [] : group.cards.map((at): CardRow => ({ kind: 'card', group: group.id, at }))),
	]);
}

/** A dependency between two rows, as it is drawn. */
export interface Line {
	/** The places of the two cards on the page. */
	link: [from: number, to: number];
	/** The places of the rows. */
	rows: [from: number, to: number];
	/** What waits begins before what it waits for has ended. */
	crossed: boolean;
}

/** The dependencies between cards that stand in rows: to each row of what waits from the nearest row of what it waits for. */
export function linesOf(page: PanoramaPage, rows: readonly Row[]): Line[] {
	const rowsAt = new Map<number, number[]>();
	for (const [i, row] of rows.entries())
		if (row.kind === 'card') rowsAt.set(row.at, [...(rowsAt.get(row.at) ?? []), i]);
	const crossed = new Set(broken(page).map((link) => link.join(' ')));
	const nearest = (among: readonly number[], row: number) =>
		among.reduce((best, one) => (Math.abs(one - row) < Math.abs(best - row) ? one : best));
	return page.links.flatMap((link) => {
		const [ends, begins] = link.map((at) => rowsAt.get(at));
		if (!ends || !begins) return [];
		return begins.map((row): Line => ({
			link,
			rows: [nearest(ends, row), row],
			crossed: crossed.has(link.join(' ')),
		}));
	});
}

function groupsOf(card: TimelineCard, of: Asked['of']): readonly string[] {
	if (of === 'initiatives') return [card.initiative ?? ''];
	if (of === 'boards') return [card.board];
	if (of === 'classes') return [card.class];
	return card.owners.length ? card.owners : [''];
}

function namesOf(
	page: PanoramaPage,
	asked: Asked,
): { id: string; name: string; initiative: InitiativeFigures | null }[] {
	const none = { id: '', name: NONE[asked.of], initiative: null };
	switch (asked.of) {
		case 'initiatives':
			return [
				...meantInitiatives(page, asked).map((one) => ({ id: one.id, name: one.name, initiative: one })),
				none,
			];
		case 'boards':
			return page.boards.map(({ id, name }) => ({ id, name, initiative: null }));
		case 'classes':
			return Object.entries(CLASSES).map(([id, name]) => ({ id, name, initiative: null }));
		case 'people':
			return [...page.people.map(({ id, name }) => ({ id, name, initiative: null })), none];
	}
}

/** The first and last day of all that is on the picture, with a little room; today is always on it. */
export function stretchOf(page: PanoramaPage, rows: readonly Row[]): Span {
	const today = parseDay(page.today)!;
	let [start, end] = [today - 14, today + 42];
	const take = (from: Day | null, to: Day | null) => {
		if (from !== null) start = Math.min(start, from);
		if (to !== null) end = Math.max(end, to);
	};
	for (const row of rows)
		if (row.kind === 'card') {
			const span = spanOf(datesOf(page.cards[row.at]!));
			take(span?.start ?? null, span?.end ?? null);
		} else if (row.initiative) {
			const bar = barOf(row.initiative, today);
			take(bar.start, Math.max(bar.end, day(row.initiative.doneBy) ?? bar.end));
		}
	for (const { day: on } of page.milestones) take(null, parseDay(on));
	// What lies years back or ahead by a slip of the pen does not stretch the picture for ever.
	return { start: Math.max(start, today - 400) - 4, end: Math.min(end, today + 1100) + 24 };
}

/** From where to where the bar of an initiative goes: from its start, or that of its first card, to its target, or its end as forecast. */
export function barOf(one: InitiativeFigures, today: Day): Span {
	const start = day(one.start) ?? day(one.begun) ?? today;
	const end = day(one.target) ?? day(one.doneBy) ?? Math.max(today, start) + 14;
	return { start: Math.min(start, end), end };
}

/** Boards, and what they are sized in. */
export interface Units {
	boards: readonly Pick<PanoramaBoard, 'id' | 'unit'>[];
}

/** How much of an initiative is done: burned ÷ (burned + left), by the boards whose unit is that of its own board; null where nothing is sized. */
export function progressOf(page: Units, one: InitiativeFigures): number | null {
	const unit = page.boards.find(({ id }) => id === one.board)?.unit;
	const counted = one.parts.filter((part) => page.boards.find(({ id }) => id === part.board)?.unit === unit);
	const burned = fsum(counted, (part) => part.burned);
	const all = burned + fsum(counted, (part) => part.left);
	if (one.cards.all > 0 && one.cards.done === one.cards.all) return 1;
	return all > 0 ? burned / all : null;
}

/** By how many hours an initiative passes its budget, with what is left of it; 0 where it keeps it, or has none. */
export function overBudget(page: Units, one: InitiativeFigures): number {
	if (one.hours === null) return 0;
	const left = fsum(
		one.parts.filter((part) => page.boards.find(({ id }) => id === part.board)?.unit === 'hours'),
		(part) => part.left,
	);
	return Math.max(0, one.worked + left - one.hours);
}
