import type { Day, Instant, Zone } from '../calendar/zone.ts';
import type { CardClock } from './clock.ts';
import type { HistoryEvent } from './history.ts';
import type { Layout } from './layout.ts';
import { inCardOrder, Lifetimes, type ClockStep, type Lifetime } from './lifetime.ts';
import { DayCounts, type KeptDays } from './standing.ts';

/** What is kept of the flow of a board beside its cards' lifetimes, to go on from there later. */
export interface KeptFlow {
	first: Instant | null;
	days: KeptDays;
	/** Cards whose clock runs, in the order in which they are known. */
	running: string[];
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
		return { first: this.first, days: this.days.kept(), running };
	}

	/** Goes on from what was kept, the lifetimes being those of then; between two of them others may have their turn. */
	*resume({ first, days, running }: KeptFlow): Generator<void> {
		this.first = first;
		this.days.resume(days);
		for (const card of running) this.running.add(this.lives.byCard.get(card)!);
		for (const life of this.lives.byCard.values()) {
			this.#count(life, life, 1);
			yield;
		}
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
		for (const [day, cards] of this.#finished) if (day >= from && day <= to) found.push(...cards);
		return inCardOrder(found);
	}

	/** How many cards were finished on each day on which any was, the days in no order. */
	*finishedByDay(): Generator<[Day, number]> {
		for (const [day, cards] of this.#finished) if (cards.size) yield [day, cards.size];
	}

	#count(life: Lifetime, clock: CardClock, by: 1 | -1): void {
		if (clock.state === 'running') {
			if (by > 0) this.running.add(life);
			else this.running.delete(life);
		}
		if ((clock.state === 'running' || clock.state === 'done') && clock.started !== null) {
			const day = this.#zone.day(clock.started);
			this.started.set(day, (this.started.get(day) ?? 0) + by);
		}
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
