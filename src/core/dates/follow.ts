import { dueAfter, lengthOf } from '../calendar/workdays.ts';
import type { Day } from '../calendar/zone.ts';

/** A card as its dates have it. */
export interface DatedCard {
	id: string;
	start: Day | null;
	due: Day | null;
	/** Only a card that waits is moved by others. What is done, or put away, holds nobody up. */
	state: 'waits' | 'begun' | 'over';
	/** Whoever asks may move it. */
	mine: boolean;
	/** On which days its team works. */
	works: (day: Day) => boolean;
}

/** That one card blocks another: the second starts after the end of the first. */
export interface Blocks {
	from: string;
	to: string;
}

export interface Dates {
	start: Day | null;
	due: Day | null;
}

/** A card that moves along, and the one that pushes it. */
export interface Moved extends Dates {
	card: string;
	after: string;
}

/** Why a card does not start after the end of what it waits for, and stays: it has begun, is not one's own, or nobody works then. */
export type Stays = 'begun' | 'over' | 'not-yours' | 'no-days' | 'by-hand';

export interface Conflict {
	card: string;
	after: string;
	why: Stays;
}

/** What follows from moving cards. */
export interface Following {
	moved: Moved[];
	conflicts: Conflict[];
}

interface Span {
	start: Day;
	end: Day;
}

/** The days that a card takes: with one date that day, with none none. */
export function spanOf({ start, due }: Dates): Span | null {
	const first = start ?? due;
	const last = due ?? start;
	return first === null || last === null ? null : { start: first, end: last };
}

/** Nobody works for so long: then nothing is moved there. */
const FAR_DAYS = 3660;

/** The first day after one on which a team works; null where it never does. */
export function nextWorkday(works: (day: Day) => boolean, after: Day): Day | null {
	for (let day = after + 1; day <= after + FAR_DAYS; day++) if (works(day)) return day;
	return null;
}

/** The dates of a card that starts on another day and is as long as before; null where its team does not work so long. */
export function keptLength(card: DatedCard, start: Day): Dates | null {
	if (card.start === null) return { start: null, due: start };
	if (card.due === null) return { start, due: null };
	const due = dueAfter(card.works, start, lengthOf(card.works, card.start, card.due));
	return due === null ? null : { start, due };
}

/**
 * What moves along when cards get other dates. A card that a moved one blocks moves only where it would start before that
 * one’s end: to the first day on which its team works after the latest end of all that it still waits for, as long as
 * before, and so on down. Nothing is pulled earlier. What has begun, is done, or may not be moved stays, and is listed.
 * Cards without dates are untouched, and so is what hangs on them. Source: measures, dates and dependencies.
 * @param cards those that are moved, all that hang on them, and all that these wait for, by id
 * @param links which of them blocks which, without loops
 * @param changed the dates that are given to cards, by id
 */
export function follow(
	cards: ReadonlyMap<string, DatedCard>,
	links: readonly Blocks[],
	changed: ReadonlyMap<string, Dates>,
): Following {
	const [next, before] = [byEnd(links, 'from', 'to'), byEnd(links, 'to', 'from')];
	const dates = new Map<string, Dates>(changed);
	const endOf = (id: string) => spanOf(dates.get(id) ?? cards.get(id)!)?.end ?? null;
	/** Cards whose end is another one now: only these push others. */
	const pushes = (id: string) => dates.has(id) && endOf(id) !== spanOf(cards.get(id)!)?.end;
	/** The latest of what a card still waits for. */
	const latestBefore = (id: string): { card: string; end: Day } | null => {
		let latest: { card: string; end: Day } | null = null;
		for (const one of before.get(id) ?? []) {
			const end = cards.get(one)?.state === 'over' || !cards.has(one) ? null : endOf(one);
			if (end !== null && (!latest || end > latest.end)) latest = { card: one, end };
		}
		return latest;
	};
	const moved: Moved[] = [];
	const conflicts: Conflict[] = [];
	for (const id of inOrder([...changed.keys()], next)) {
		const card = cards.get(id);
		const span = card && spanOf(dates.get(id) ?? card);
		const latest = latestBefore(id);
		if (!card || !span || !latest || span.start > latest.end) continue;
		const stays = (why: Stays) => conflicts.push({ card: id, after: latest.card, why });
		if (changed.has(id)) {
			stays('by-hand');
			continue;
		}
		const pushed = (before.get(id) ?? []).some((one) => {
			const end = cards.has(one) && cards.get(one)!.state !== 'over' && pushes(one) ? endOf(one) : null;
			return end !== null && end >= span.start;
		});
		if (!pushed) continue;
		if (card.state !== 'waits') {
			stays(card.state);
			continue;
		}
		if (!card.mine) {
			stays('not-yours');
			continue;
		}
		const start = nextWorkday(card.works, latest.end);
		const to = start === null ? null : keptLength(card, start);
		if (!to) {
			stays('no-days');
			continue;
		}
		dates.set(id, to);
		moved.push({ card: id, after: latest.card, ...to });
	}
	return { moved, conflicts };
}

function byEnd(links: readonly Blocks[], from: keyof Blocks, to: keyof Blocks): Map<string, string[]> {
	const by = new Map<string, string[]>();
	for (const link of links) {
		const known = by.get(link[from]);
		if (known) known.push(link[to]);
		else by.set(link[from], [link[to]]);
	}
	return by;
}

/** All that can be reached from some cards, these too: each after everything of it that leads to it. */
function inOrder(from: readonly string[], next: ReadonlyMap<string, readonly string[]>): string[] {
	const order: string[] = [];
	const seen = new Set<string>();
	// Each card is put in its place once all that it leads to have theirs; no chain is too long for that.
	const open: { id: string; left: number }[] = [];
	for (const first of from) {
		if (seen.has(first)) continue;
		seen.add(first);
		open.push({ id: first, left: 0 });
		while (open.length) {
			const top = open.at(-1)!;
			const to = next.get(top.id)?.[top.left++];
			if (to === undefined) {
				order.push(top.id);
				open.pop();
			} else if (!seen.has(to)) {
				seen.add(to);
				open.push({ id: to, left: 0 });
			}
		}
	}
	return order.reverse();
}

/**
 * The working day that lies so many of a team’s days after another, or before it: what does not lie on one is taken for the
 * next one. Null where the team never works.
 */
export function shiftedBy(works: (day: Day) => boolean, day: Day, days: number): Day | null {
	let at = works(day) ? day : nextWorkday(works, day);
	const step = days < 0 ? -1 : 1;
	for (let left = Math.abs(days), looked = 0; at !== null && left > 0; looked++) {
		if (looked > FAR_DAYS) return null;
		at += step;
		if (works(at)) left--;
	}
	return at;
}

/**
 * New dates for all of some cards that begin on a day or after it, so many working days of their own teams on, or back;
 * each as long as before. What has begun, is done or is not one's own stays, and so does what nobody could work on then.
 */
export function shifted(cards: readonly DatedCard[], from: Day, days: number): Map<string, Dates> {
	return new Map(
		cards.flatMap((card): [string, Dates][] => {
			const span = spanOf(card);
			if (!span || span.start < from || card.state !== 'waits' || !card.mine) return [];
			const start = shiftedBy(card.works, span.start, days);
			const to = start === null ? null : keptLength(card, start);
			return to ? [[card.id, to]] : [];
		}),
	);
}
