import type { Instant } from '../calendar/zone.ts';
import { NEW_CLOCK, step, type CardClock } from './clock.ts';
import type { HistoryEvent } from './history.ts';
import type { Layout } from './layout.ts';

/** A span of time, from included, until excluded; until null means it has not ended. */
export interface Spell {
	from: Instant;
	until: Instant | null;
}

/** A stay in one column. */
export interface Stay extends Spell {
	column: number;
}

/** A blocked spell and what was said of it. */
export interface Blockage extends Spell {
	reason: string;
}

/** Everything that a card's history says of its flow. */
export interface Lifetime extends CardClock {
	card: string;
	title: string;
	created: Instant | null;
	stays: Stay[];
	blockages: Blockage[];
}

/**
 * The lifetimes of all cards of a history, in code-unit order of their keys.
 * @param events in time order; those after asOf are ignored
 */
export function lifetimes(layout: Layout, events: readonly HistoryEvent[], asOf: Instant): Lifetime[] {
	const found = new Map<string, Lifetime>();
	for (const event of events) {
		if (event.at > asOf) continue;
		let life = found.get(event.card);
		if (!life) {
			life = { ...NEW_CLOCK, card: event.card, title: '', created: null, stays: [], blockages: [] };
			found.set(event.card, life);
		}
		note(layout, life, event);
	}
	return [...found.values()].sort((a, b) => (a.card < b.card ? -1 : a.card > b.card ? 1 : 0));
}

function note(layout: Layout, life: Lifetime, event: HistoryEvent): void {
	const stood = life.column;
	Object.assign(life, step(layout, life, event));
	if (life.column !== stood) {
		const last = life.stays.at(-1);
		if (last && last.until === null) last.until = event.at;
		if (life.column !== null) life.stays.push({ column: life.column, from: event.at, until: null });
	}
	if (event.event === 'created' && life.created === null) {
		life.created = event.at;
		life.title = event.value;
	}
	const blockage = life.blockages.at(-1);
	const blocked = blockage !== undefined && blockage.until === null;
	if (event.event === 'blocked' && !blocked)
		life.blockages.push({ from: event.at, until: null, reason: event.value });
	if (event.event === 'unblocked' && blocked) blockage.until = event.at;
}
