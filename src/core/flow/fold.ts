import type { Day, Instant, Zone } from '../calendar/zone.ts';
import type { Places } from '../shelf.ts';
import { atOnce } from '../steps.ts';
import type { CardClock } from './clock.ts';
import type { HistoryEvent } from './history.ts';
import type { Layout } from './layout.ts';
import { inCardOrder, Lifetimes, type ClockStep, type Lifetime } from './lifetime.ts';
import { DayCounts, type KeptDays } from './standing.ts';

/** What is kept of the flow of a board beside its cards' lifetimes, to go on from there later. */
export interface KeptFlow {
	first: Instant | null;
	days: KeptDays;
	started: [Day, number][];
	/** Cards whose clock runs, in the order in which they are known. */
	running: string[];
}

/** Done or archived cards that were put to rest together: their lifetimes are packed until they are asked for. */
export interface Resting {
	/** How many were finished on which day. */
	finished: [Day, number][];
	/** Since this instant all of them have stood where they stand. */
	since: Instant;
}

/** All that the flow of a board is read from, followed event by event, in time order. */
export class FlowFold {
	readonly lives: Lifetimes;
	readonly days: DayCounts;
	/** Cards whose clock runs. */
	readonly running = new Set<Lifetime>();
	/** Started cards that are not dropped, by the day of their start. */
	readonly started = new Map<Day, number>();
	/** The instant of the first event; null before it. */
	first: Instant | null = null;
	readonly #finished = new Map<Day, Set<Lifetime>>();
	readonly #resting = new Map<number, Resting>();
	readonly #board: Layout & { zone: Zone };
	readonly #zone: Zone;

	constructor(board: Layout & { zone: Zone }) {
		this.#board = board;
		this.#zone = board.zone;
		this.lives = new Lifetimes(board);
		this.days = new DayCounts(board, board.zone);
	}

	/** What it says beside the lifetimes, as it is now: to be written down at once. */
	kept(): KeptFlow {
		const running = Array.from(this.running, (life) => life.card);
		return { first: this.first, days: this.days.kept(), started: [...this.started], running };
	}

	/** Goes on from what was kept, the lifetimes being those of then; between two of them others may have their turn. */
	*resume({ first, days, started, running }: KeptFlow): Generator<void> {
		this.first = first;
		this.days.resume(days);
		for (const card of running) this.running.add(this.lives.byCard.get(card)!);
		for (const [day, cards] of started) this.started.set(day, cards);
		for (const life of this.lives.byCard.out()) {
			this.#finish(life, life, 1);
			yield;
		}
	}

	/** Takes in a bundle of cards at rest, of then. */
	rest(
		places: Places,
		bundle: number,
		count: number,
		resting: Resting,
		lives: () => Iterable<Lifetime>,
	): void {
		this.#resting.set(bundle, resting);
		this.lives.byCard.rest(places, bundle, count, () => this.#unpacked(bundle, lives()));
	}

	*#unpacked(bundle: number, lives: Iterable<Lifetime>): Generator<Lifetime> {
		this.#resting.delete(bundle);
		for (const life of lives) {
			this.#finish(life, life, 1);
			yield life;
		}
	}

	/** Done cards that are not packed, by the day on which they were finished, the first of them first. */
	*doneCards(): Generator<Lifetime> {
		const days = [...this.#finished].sort(([a], [b]) => a - b);
		for (const [, cards] of days) yield* cards;
	}

	/** Unpacks the cards that were finished from…to, for whoever must not keep others waiting. */
	*reach(from: Day, to: Day): Generator<void> {
		for (const [bundle, { finished }] of this.#resting) {
			if (!finished.some(([day]) => day >= from && day <= to)) continue;
			this.lives.byCard.unpack(bundle);
			yield;
		}
	}

	/** All cards but those that came to rest by an instant: done or archived, they stand where they stood. */
	movedAfter(at: Instant): Iterable<Lifetime> {
		for (const [bundle, { since }] of this.#resting) if (since > at) this.lives.byCard.unpack(bundle);
		return this.lives.byCard.out();
	}

	/** Takes in what happened next; gives what it did to the card's clock. */
	take(event: HistoryEvent): ClockStep {
		this.first ??= event.at;
		const step = this.lives.take(event);
		if (step.before === step.after) return step;
		this.days.take(event.at, step);
		const life = this.lives.byCard.get(event.card)!;
		this.#count(life, step.before, -1);
		this.#count(life, step.after, 1);
		return step;
	}

	/**
	 * Puts another history of one card in the place of the one that was taken in.
	 * @param was what was taken in of it, and what is so now; both in time order
	 */
	replace(card: string, was: readonly HistoryEvent[], is: readonly HistoryEvent[]): void {
		const old = this.lives.byCard.get(card);
		if (old) this.#count(old, old, -1);
		for (const [at, step] of this.#steps(was)) this.days.mend(at, step, -1);
		for (const [at, step] of this.#steps(is)) this.days.mend(at, step, 1);
		const life = this.lives.replace(card, is);
		if (life) this.#count(life, life, 1);
		const first = is[0]?.at;
		if (first !== undefined && (this.first === null || first < this.first)) this.first = first;
	}

	*#steps(events: readonly HistoryEvent[]): Generator<[Instant, ClockStep]> {
		const alone = new Lifetimes(this.#board);
		for (const event of events) yield [event.at, alone.take(event)];
	}

	/** Done cards that were finished from…to, in code-unit order of their keys. */
	finishedIn(from: Day, to: Day): Lifetime[] {
		const found: Lifetime[] = [];
		atOnce(this.reach(from, to));
		for (const [day, cards] of this.#finished) if (day >= from && day <= to) found.push(...cards);
		return inCardOrder(found);
	}

	/** How many cards were finished on each day on which any was, the days in no order. */
	*finishedByDay(): Generator<[Day, number]> {
		const counts = new Map<Day, number>();
		const count = (day: Day, cards: number) => counts.set(day, (counts.get(day) ?? 0) + cards);
		for (const [day, cards] of this.#finished) if (cards.size) count(day, cards.size);
		for (const { finished } of this.#resting.values()) for (const [day, cards] of finished) count(day, cards);
		yield* counts;
	}

	#count(life: Lifetime, clock: CardClock, by: 1 | -1): void {
		this.#finish(life, clock, by);
		if (clock.state === 'running') {
			if (by > 0) this.running.add(life);
			else this.running.delete(life);
		}
		if ((clock.state === 'running' || clock.state === 'done') && clock.started !== null) {
			const day = this.#zone.day(clock.started);
			this.started.set(day, (this.started.get(day) ?? 0) + by);
		}
	}

	#finish(life: Lifetime, clock: CardClock, by: 1 | -1): void {
		if (clock.state !== 'done' || clock.finished === null) return;
		const day = this.#zone.day(clock.finished);
		const cards = this.#finished.get(day) ?? new Set();
		this.#finished.set(day, cards);
		if (by > 0) cards.add(life);
		else cards.delete(life);
	}
}

/**
 * The flow of a history up to an instant.
 * @param events in time order; those after asOf are ignored
 */
export function flowOf(
	board: Layout & { zone: Zone },
	events: readonly HistoryEvent[],
	asOf: Instant,
): FlowFold {
	const fold = new FlowFold(board);
	for (const event of events) {
		if (event.at > asOf) break;
		fold.take(event);
	}
	return fold;
}
