import type { Instant } from '../calendar/zone.ts';
import { clockOf, NEW_CLOCK, step, type CardClock } from './clock.ts';
import type { HistoryEvent } from './history.ts';
import { Shelf } from '../shelf.ts';
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
	readonly byCard = new Shelf<Lifetime>();
	readonly #layout: Layout;
	/** What is answered: one thing, said anew each time. */
	readonly #step: ClockStep = { before: NEW_CLOCK, after: NEW_CLOCK };

	constructor(layout: Layout) {
		this.#layout = layout;
	}

	/** Takes in what happened next; gives what it did to the card's clock, until the next is taken in. */
	take(event: HistoryEvent): ClockStep {
		const life = this.#life(event.card);
		const after = step(this.#layout, life, event);
		this.#step.before = this.#step.after = after;
		if (after !== life) {
			this.#step.before = clockOf(life);
			goOn(life, after, event.at);
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
		return this.#step;
	}

	/** Puts another history of one card in the place of its own; gives its lifetime, if it has one still. */
	replace(card: string, events: readonly HistoryEvent[]): Lifetime | null {
		this.byCard.delete(card);
		for (const event of events) this.take(event);
		return this.byCard.get(card) ?? null;
	}

	#life(card: string): Lifetime {
		const known = this.byCard.get(card);
		if (known) return known;
		const made: Lifetime = {
			state: 'none',
			column: null,
			entered: null,
			started: null,
			finished: null,
			archived: false,
			before: 'none',
			card,
			title: '',
			created: null,
			stays: [],
			blockages: [],
			archivings: null,
		};
		this.byCard.set(card, made);
		return made;
	}
}

/** Takes a clock over into a lifetime, with the stay and the archiving that end or begin with it. */
function goOn(life: Lifetime, clock: CardClock, at: Instant): void {
	if (clock.column !== life.column) {
		const last = life.stays.at(-1);
		if (last && last.until === null) last.until = at;
		if (clock.column !== null) life.stays.push({ column: clock.column, from: at, until: null });
	}
	if (clock.archived && !life.archived) (life.archivings ??= []).push({ from: at, until: null });
	if (life.archived && !clock.archived) life.archivings!.at(-1)!.until = at;
	life.state = clock.state;
	life.column = clock.column;
	life.entered = clock.entered;
	life.started = clock.started;
	life.finished = clock.finished;
	life.archived = clock.archived;
	life.before = clock.before;
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
