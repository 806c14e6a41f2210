import { fsum } from 'd3-array';
import type { Instant } from '../calendar/zone.ts';
import { NEW_CLOCK, step, type CardClock } from '../flow/clock.ts';
import { CLOCK_EVENTS, type HistoryEvent } from '../flow/history.ts';
import type { Layout } from '../flow/layout.ts';
import type { CardView, ServiceClass, Unit } from '../pages/board.ts';
import { sized, splitOff, type Sizing } from '../sprint/left.ts';

/** Something that happened to a card and was not taken back. */
export interface PastEvent {
	kind: string;
	at: Instant;
	value: string;
	before: Record<string, unknown> | null;
	after: Record<string, unknown> | null;
}

/** What is known of a board that a card's past is told by. */
export interface StoodOn {
	/** All columns of the board, those that were taken away too, and their ids in the same order. */
	layout: Layout;
	columns: readonly string[];
	unit: Unit;
	/** When its sprints started and closed. */
	sprints: readonly { number: number; startedAt: Instant | null; closedAt: Instant | null }[];
	/** People and initiatives: ids by names, and names by ids. */
	people: ReadonlyMap<string, string>;
	initiatives: ReadonlyMap<string, string>;
}

/**
 * A card as it stood at a moment, from its history: what its figures are made of is followed up to then, all else is
 * taken back from how it is now. Null where there was none yet, or it was put away.
 * @param now the card as it is
 * @param events all that happened to it, oldest first, without what was taken back
 */
export function asItStood(
	now: CardView,
	events: readonly PastEvent[],
	at: Instant,
	on: StoodOn,
): CardView | null {
	const until = events.findIndex((event) => event.at > at);
	const [before, after] = until < 0 ? [events, []] : [events.slice(0, until), events.slice(until)];
	if (!before.length) return null;
	const followed = follow(before, on);
	if (followed.clock.archived) return null;
	const then: CardView = {
		...now,
		labels: [...now.labels],
		owners: [...now.owners],
		fields: { ...now.fields },
	};
	if (then.checks) then.checks = { ...then.checks };
	for (const event of after.toReversed()) takeBack(then, event, on);
	const { clock, sizing, sprint, unplanned, blocked, letThrough } = followed;
	const text = (instant: Instant | null) => (instant === null ? null : new Date(instant).toISOString());
	return {
		...then,
		...sizing,
		sprint,
		unplanned,
		blocked,
		letThrough,
		column: clock.column === null ? null : (on.columns[clock.column] ?? null),
		clock: clock.state,
		entered: text(clock.entered),
		started: text(clock.started),
		finished: text(clock.finished),
		archived: null,
		// How what it is made of, or waits for, stood then is not asked.
		parts: null,
		waits: [],
	};
}

interface Followed {
	clock: CardClock;
	sizing: Sizing;
	sprint: number | null;
	unplanned: boolean;
	blocked: CardView['blocked'];
	letThrough: string | null;
}

/** What the figures of a card are made of, followed event by event as they are. */
function follow(events: readonly PastEvent[], { layout, unit, sprints }: StoodOn): Followed {
	const runs = (number: number | null, at: Instant) =>
		sprints.some(
			({ number: known, startedAt, closedAt }) =>
				known === number && startedAt !== null && startedAt <= at && (closedAt === null || closedAt > at),
		);
	const so: Followed = {
		clock: NEW_CLOCK,
		sizing: { size: null, left: 0 },
		sprint: null,
		unplanned: false,
		blocked: null,
		letThrough: null,
	};
	for (const { kind, at, value, after } of events) {
		const was = so.clock;
		if ((CLOCK_EVENTS as readonly string[]).includes(kind))
			so.clock = step(layout, was, { card: '', at, event: kind as HistoryEvent['event'], value });
		switch (kind) {
			case 'column':
				if (so.clock.state === 'done' && was.state !== 'done') so.sizing.left = 0;
				// What goes back to the backlog leaves the sprint that runs; the list of a later one it stays on.
				if (so.clock.column === null && runs(so.sprint, at)) [so.sprint, so.unplanned] = [null, false];
				so.letThrough = after?.letThrough ? String(after.letThrough) : null;
				break;
			case 'archived':
				if (so.clock.state === 'dropped') [so.sprint, so.unplanned] = [null, false];
				break;
			case 'sized':
				so.sizing = sized(so.sizing, Number(value), was.state === 'done');
				break;
			case 'left':
				if (was.state !== 'done') so.sizing.left = Number(value);
				break;
			case 'worked':
				if (unit === 'hours') so.sizing.left = Math.max(0, so.sizing.left - Number(value));
				break;
			case 'split': {
				const { size, left } = splitOff(so.sizing, Number(value));
				so.sizing = { size, left };
				break;
			}
			case 'sprint':
				so.sprint = value ? Number(value) : null;
				// Into one that runs it comes as unplanned, unless that is said next.
				so.unplanned = runs(so.sprint, at);
				break;
			case 'planned':
				so.unplanned = value !== 'yes';
				break;
			case 'blocked':
				so.blocked = { since: new Date(at).toISOString(), reason: value, waitingFor: null };
				break;
			case 'waits-for':
				if (so.blocked) so.blocked = { ...so.blocked, waitingFor: value || null };
				break;
			case 'unblocked':
				so.blocked = null;
		}
	}
	return so;
}

/** A card with the sums of those that are part of it, as they stood too. */
export function withPartsThen(card: CardView, all: readonly CardView[]): CardView {
	const parts = all.filter(({ parent }) => parent === card.id);
	if (!parts.length) return card;
	const sum = (of: (part: CardView) => number) => fsum(parts, of);
	return {
		...card,
		parts: {
			cards: parts.length,
			done: parts.filter(({ clock }) => clock === 'done').length,
			size: sum(({ size }) => size ?? 0),
			left: sum(({ left }) => left),
		},
	};
}

/** Kinds of events by which a card's past is told. */
export const TOLD_BY = [
	...CLOCK_EVENTS,
	...[
		'created',
		'sized',
		'left',
		'worked',
		'split',
		'sprint',
		'planned',
		'blocked',
		'waits-for',
		'unblocked',
	],
	...['renamed', 'type', 'class', 'lane', 'start', 'due', 'initiative', 'part-of', 'ready', 'percent'],
	...['reviewer', 'review-by', 'label', 'unlabelled', 'owner', 'unowner', 'attached', 'detached', 'field'],
	...['line-added', 'line-removed', 'line-done', 'line-undone'],
];

/** Takes one thing back that happened to a card: it is as before it. */
function takeBack(card: CardView, { kind, value, before, after }: PastEvent, on: StoodOn): void {
	const said = (key: string) => (before?.[key] ?? null) as string | null;
	const person = () => (after?.person as string | undefined) ?? on.people.get(value);
	switch (kind) {
		case 'renamed':
			card.title = said('title') ?? card.title;
			return;
		case 'type':
			card.type = said('type') ?? '';
			return;
		case 'class':
			card.class = (said('class') as ServiceClass | null) ?? 'standard';
			return;
		case 'lane':
			card.lane = said('lane');
			return;
		case 'start':
			card.start = said('start');
			return;
		case 'due':
			card.due = said('due');
			return;
		case 'initiative':
			card.initiative = on.initiatives.get(said('initiative') ?? '') ?? null;
			return;
		case 'part-of':
			card.parent = said('parent');
			return;
		case 'ready':
			card.ready = value !== 'yes';
			return;
		case 'percent':
			card.percent = (before?.percent as number | null | undefined) ?? null;
			return;
		case 'reviewer': {
			const by = said('reviewer');
			card.review = by ? { by, due: card.review?.due ?? null } : null;
			return;
		}
		case 'review-by':
			if (card.review) card.review = { ...card.review, due: said('due') };
			return;
		case 'label':
			card.labels = card.labels.filter((label) => label !== value);
			return;
		case 'unlabelled':
			card.labels = [...new Set([...card.labels, value])].sort();
			return;
		case 'owner':
			card.owners = card.owners.filter((owner) => owner !== person());
			return;
		case 'unowner': {
			const who = person();
			if (who && !card.owners.includes(who)) card.owners = [...card.owners, who];
			return;
		}
		case 'attached':
			card.files = Math.max(0, card.files - 1);
			return;
		case 'detached':
			card.files++;
			return;
		case 'field': {
			const { [String(after?.field)]: _now, ...rest } = card.fields;
			const held = before?.held as CardView['fields'][string] | null | undefined;
			card.fields = held === null || held === undefined ? rest : { ...rest, [String(after?.field)]: held };
			return;
		}
		case 'line-added':
			return countLines(card, -1, 0);
		case 'line-removed':
			return countLines(card, 1, 0);
		case 'line-done':
			return countLines(card, 0, -1);
		case 'line-undone':
			return countLines(card, 0, 1);
	}
}

function countLines(card: CardView, lines: number, done: number): void {
	const { checks } = card;
	const all = Math.max(0, (checks?.lines ?? 0) + lines);
	card.checks = all ? { lines: all, done: Math.max(0, Math.min(all, (checks?.done ?? 0) + done)) } : null;
}
