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
	/** When it was put away; null for never. */
	archivings: Spell[] | null;
}

/** A card's clock right before an event and right after it: the same one where the event says nothing to it. */
export interface ClockStep {
	before: CardClock;
	after: CardClock;
}

/** The lifetimes of a history's cards, followed event by event. What comes in is in time order. */
export class Lifetimes {
	readonly byCard = new Map<string, Lifetime>();
	readonly #clocks = new Map<string, CardClock>();
	readonly #layout: Layout;

	constructor(layout: Layout) {
		this.#layout = layout;
	}

	/** Takes in what happened next; gives what it did to the card's clock. */
	take(event: HistoryEvent): ClockStep {
		const before = this.#clocks.get(event.card) ?? NEW_CLOCK;
		const after = step(this.#layout, before, event);
		let life = this.byCard.get(event.card);
		if (!life) {
			life = {
				...NEW_CLOCK,
				card: event.card,
				title: '',
				created: null,
				stays: [],
				blockages: [],
				archivings: null,
			};
			this.byCard.set(event.card, life);
		}
		if (after !== before) {
			this.#clocks.set(event.card, after);
			Object.assign(life, after);
			if (after.column !== before.column) {
				const last = life.stays.at(-1);
				if (last && last.until === null) last.until = event.at;
				if (after.column !== null) life.stays.push({ column: after.column, from: event.at, until: null });
			}
			if (after.archived && !before.archived) (life.archivings ??= []).push({ from: event.at, until: null });
			if (before.archived && !after.archived) life.archivings!.at(-1)!.until = event.at;
		}
		switch (event.event) {
			case 'created':
				if (life.created !== null) break;
				life.created = event.at;
				life.title = event.value;
				break;
			case 'blocked':
				if (life.blockages.at(-1)?.until !== null)
					life.blockages.push({ from: event.at, until: null, reason: event.value });
				break;
			case 'unblocked': {
				const blockage = life.blockages.at(-1);
				if (blockage?.until === null) blockage.until = event.at;
			}
		}
		return { before, after };
	}
}

/**
 * The lifetimes of all cards of a history, in code-unit order of their keys.
 * @param events in time order; those after asOf are ignored
 */
export function lifetimes(layout: Layout, events: readonly HistoryEvent[], asOf: Instant): Lifetime[] {
	const lives = new Lifetimes(layout);
	for (const event of events) if (event.at <= asOf) lives.take(event);
	return inCardOrder(lives.byCard.values());
}

/** In code-unit order of the cards' keys. */
export function inCardOrder<T extends { card: string }>(cards: Iterable<T>): T[] {
	return [...cards].sort((a, b) => (a.card < b.card ? -1 : a.card > b.card ? 1 : 0));
}
