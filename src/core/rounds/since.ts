import type { Instant } from '../calendar/zone.ts';
import { NEW_CLOCK, step, type CardClock } from '../flow/clock.ts';
import type { HistoryEvent } from '../flow/history.ts';
import type { Layout } from '../flow/layout.ts';

/** What has lasted, and since when, as the history of a board tells it. */
export interface Lasting {
	/** Of each column: since when it has had free slots while nothing before it could be pulled; null: it has not. */
	starved: (Instant | null)[];
	/** People, as the events name them: since when no running card has been theirs. Those with one, or never heard of, are not in it. */
	idle: Map<string, Instant>;
}

/**
 * Reads what has lasted up to an instant.
 * @param limits of each column; null for none
 * @param events in time order
 */
export function lasting(
	layout: Layout,
	limits: readonly (number | null)[],
	events: readonly HistoryEvent[],
	asOf: Instant,
): Lasting {
	const clocks = new Map<string, CardClock>();
	const blocked = new Set<string>();
	const owners = new Map<string, Set<string>>();
	const standing = layout.columns.map(() => 0);
	const ready = layout.columns.map(() => 0);
	const inHand = new Map<string, number>();
	const starved: (Instant | null)[] = layout.columns.map(() => null);
	const idle = new Map<string, Instant>();

	const count = (card: string, clock: CardClock, by: 1 | -1) => {
		if (clock.column !== null && !clock.archived && clock.state !== 'done') {
			standing[clock.column]! += by;
			if (!blocked.has(card)) ready[clock.column]! += by;
		}
		if (clock.state === 'running')
			for (const owner of owners.get(card) ?? []) inHand.set(owner, (inHand.get(owner) ?? 0) + by);
	};
	for (const event of events) {
		if (event.at > asOf) break;
		const { card } = event;
		const before = clocks.get(card) ?? NEW_CLOCK;
		const own = owners.get(card) ?? new Set();
		owners.set(card, own);
		count(card, before, -1);
		const after = step(layout, before, event);
		clocks.set(card, after);
		if (event.event === 'blocked') blocked.add(card);
		if (event.event === 'unblocked') blocked.delete(card);
		const was = new Set(own);
		if (event.event === 'owner') own.add(event.value);
		if (event.event === 'unowner') own.delete(event.value);
		count(card, after, 1);
		for (const name of new Set([...was, ...own])) {
			if ((inHand.get(name) ?? 0) > 0) idle.delete(name);
			else if (!idle.has(name)) idle.set(name, event.at);
		}
		for (const [i, column] of layout.columns.entries()) {
			const limit = limits[i] ?? null;
			const holds =
				column.kind === 'work' &&
				i > 0 &&
				layout.columns[i - 1]!.kind === 'queue' &&
				limit !== null &&
				standing[i]! < limit &&
				ready[i - 1] === 0;
			starved[i] = holds ? (starved[i] ?? event.at) : null;
		}
	}
	return { starved, idle };
}
