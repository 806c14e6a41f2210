import type { Instant } from '../calendar/zone.ts';
import type { CardClock } from '../flow/clock.ts';
import type { HistoryEvent } from '../flow/history.ts';
import type { Layout } from '../flow/layout.ts';
import { Shelf } from '../shelf.ts';
import { Lifetimes, type ClockStep } from '../flow/lifetime.ts';

/** What has lasted, and since when, as the history of a board tells it. */
export interface Lasting {
	/** Of each column: since when it has had free slots while nothing before it could be pulled; null: it has not. */
	starved: (Instant | null)[];
	/** People, as the events name them: since when no running card has been theirs. Those with one, or never heard of, are not in it. */
	idle: Map<string, Instant>;
}

/** Who owns a card. */
export interface Owners {
	card: string;
	people: string[];
}

/** What is kept of what has lasted beside the owners of cards, to go on from there later. */
export interface KeptSince {
	idle: [string, Instant][];
	starved: (Instant | null)[];
	blocked: string[];
	standing: number[];
	ready: number[];
	inHand: [string, number][];
}

/** What has lasted, followed event by event, in time order. */
export class Since implements Lasting {
	readonly idle = new Map<string, Instant>();
	starved: (Instant | null)[];
	readonly #layout: Layout;
	readonly #limits: readonly (number | null)[];
	readonly #blocked = new Set<string>();
	/** Who owns each card; nothing is known of those that never had an owner. */
	readonly owners = new Shelf<Owners>();
	/** Open cards by column, and those of them that are not blocked. */
	#standing: number[];
	#ready: number[];
	/** Of each column the one before it that still stands; -1 for none. */
	readonly #before: number[];
	readonly #inHand = new Map<string, number>();

	/** @param limits of each column; null for none */
	constructor(layout: Layout, limits: readonly (number | null)[]) {
		this.#layout = layout;
		this.#limits = limits;
		this.#before = layout.columns.map((_, i) =>
			layout.columns.findLastIndex((column, at) => at < i && !column.retired),
		);
		this.#standing = layout.columns.map(() => 0);
		this.#ready = layout.columns.map(() => 0);
		this.starved = layout.columns.map(() => null);
	}

	/** What it knows beside the owners of cards. */
	kept(): KeptSince {
		return {
			idle: [...this.idle],
			starved: this.starved,
			blocked: [...this.#blocked],
			standing: this.#standing,
			ready: this.#ready,
			inHand: [...this.#inHand],
		};
	}

	/** Goes on from what was kept, the owners of cards being those of then. */
	resume({ idle, starved, blocked, standing, ready, inHand }: KeptSince): void {
		for (const [name, at] of idle) this.idle.set(name, at);
		for (const card of blocked) this.#blocked.add(card);
		for (const [name, cards] of inHand) this.#inHand.set(name, cards);
		this.starved = starved;
		this.#standing = standing;
		this.#ready = ready;
	}

	/** Takes in what happened next to a card, and what that did to its clock. */
	take({ card, at, event, value }: HistoryEvent, { before, after }: ClockStep): void {
		let own = this.owners.get(card);
		if (event === 'owner' || event === 'unowner') {
			if (!own) this.owners.set(card, (own = { card, people: [] }));
		} else if (before === after && event !== 'blocked' && event !== 'unblocked') {
			this.#look(own?.people ?? [], at);
			return;
		}
		this.#count(card, before, own, -1);
		if (event === 'blocked') this.#blocked.add(card);
		if (event === 'unblocked') this.#blocked.delete(card);
		const gone = event === 'unowner' && own!.people.includes(value) ? [value] : [];
		if (gone.length) own!.people = own!.people.filter((one) => one !== value);
		if (event === 'owner' && !own!.people.includes(value)) own!.people.push(value);
		this.#count(card, after, own, 1);
		this.#look([...gone, ...(own?.people ?? [])], at);
	}

	#count(card: string, clock: CardClock, own: Owners | undefined, by: 1 | -1): void {
		if (clock.column !== null && !clock.archived && clock.state !== 'done') {
			this.#standing[clock.column]! += by;
			if (!this.#blocked.has(card)) this.#ready[clock.column]! += by;
		}
		if (clock.state === 'running')
			for (const owner of own?.people ?? []) this.#inHand.set(owner, (this.#inHand.get(owner) ?? 0) + by);
	}

	#look(people: Iterable<string>, at: Instant): void {
		for (const name of people) {
			if ((this.#inHand.get(name) ?? 0) > 0) this.idle.delete(name);
			else if (!this.idle.has(name)) this.idle.set(name, at);
		}
		for (const [i, column] of this.#layout.columns.entries()) {
			const before = this.#before[i]!;
			if (before < 0 || column.retired) continue;
			const limit = this.#limits[i] ?? null;
			const holds =
				column.kind === 'work' &&
				limit !== null &&
				this.#layout.columns[before]!.kind === 'queue' &&
				this.#standing[i]! < limit &&
				this.#ready[before] === 0;
			this.starved[i] = holds ? (this.starved[i] ?? at) : null;
		}
	}
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
	const lives = new Lifetimes(layout);
	const since = new Since(layout, limits);
	for (const event of events) {
		if (event.at > asOf) break;
		since.take(event, lives.take(event));
	}
	return since;
}
