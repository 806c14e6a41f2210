import type { Instant } from '../calendar/zone.ts';
import type { BoardSprint } from './board.ts';
import type { HistoryEvent } from '../flow/history.ts';
import { Lifetimes, type ClockStep } from '../flow/lifetime.ts';
import type { Layout } from '../flow/layout.ts';
import { Shelf, type Places } from '../shelf.ts';
import type { Book, Notes, Sums } from './book.ts';
import { edgesOf, sameEdge, type Edge } from './edges.ts';
import type { CardWork, Ledger, SprintBoard, Stint } from './ledger.ts';
import { Stints } from './stints.ts';
import { noWork, type KeptWork, type Work } from './work.ts';

/** What is kept of a sprint's book. Of a sprint that is over the sums are told, and what was noted can be packed. */
export interface KeptBook {
	number: number;
	sums: Sums | null;
	notes: Notes | (() => Notes);
}

/** What is kept of a board's sprints beside their books and the work of cards, to go on from there later. */
export interface KeptAccounts {
	past: number;
	/** What has started and closed. */
	turned: Pick<Edge, 'at' | 'order' | 'kind'>[];
	of: number[];
	/** null: nothing has */
	turnedAt: Instant | null;
	running: number[];
	/** Cards, in the order in which they are known. */
	waiting: string[];
	lists: [sprint: number, cards: string[]][];
}

/** The ledgers of a board's sprints, and what each card is left with. */
export interface Accounts {
	/** Of the sprints started so far, by number. */
	ledgers: Ledger[];
	cards: Pick<Shelf<CardWork>, 'get' | 'values'>;
	/** Cards on the list of a sprint, or in it. */
	onList(sprint: number): Iterable<CardWork>;
	/** Cards that stand in the backlog and are not archived. */
	waiting: Iterable<CardWork>;
}

/**
 * The ledgers of all sprints, followed event by event, in time order.
 * At one instant first the events are taken in, then what closes, then what starts.
 */
export class SprintAccounts implements Accounts {
	readonly cards = new Shelf<Work>();
	readonly waiting = new Set<Work>();
	readonly #stints: Stints;
	#edges: Edge[];
	/** How many of the edges have happened, and the instant of the last. */
	#turned = 0;
	#turnedAt: Instant = -Infinity;

	constructor(board: Pick<SprintBoard, 'unit' | 'sprints'>) {
		this.#stints = new Stints(board.unit);
		this.#edges = edgesOf(board.sprints);
	}

	/** Goes up whenever something changes that closed sprints and done cards say. */
	get past(): number {
		return this.#stints.past;
	}

	/** The work of a card, as it is now: to be written down at once. */
	keptWork(card: string): KeptWork {
		const work = this.cards.get(card)!;
		const place = (stint: Stint | null) =>
			stint ? this.#stints.books.get(work.last!)!.stints.lastIndexOf(stint) : -1;
		return { ...work, stint: place(work.stint), unnamed: place(work.unnamed) };
	}

	/**
	 * Whether a card is at rest: done or archived, on no sprint's list, and not among those that were carried and can still
	 * be seen on the board.
	 */
	atRest(card: string): boolean {
		const work = this.cards.get(card)!;
		if (!work.done && !work.archived) return false;
		return !work.stint && !work.unnamed && work.sprint === null && !this.#stints.seen(work);
	}

	/** Takes in the work of a bundle of cards at rest. */
	rest(places: Places, bundle: number, count: number, works: () => readonly KeptWork[]): void {
		this.cards.rest(places, bundle, count, () =>
			works().map((kept) => {
				const work: Work = Object.assign(kept, { stint: null, unnamed: null });
				if (work.carried) this.#stints.everCarried.add(work);
				return work;
			}),
		);
	}

	/** The books of its sprints, as they are now: to be written down at once. */
	*books(): Generator<{ number: number; book: Book; over: boolean }> {
		for (const [number, book] of this.#stints.books) {
			const over = book.rests || (!this.#stints.running.has(number) && book.stints.every(named));
			yield { number, book, over };
		}
	}

	/** What it knows beside that. */
	kept(): KeptAccounts {
		const cards = (works: Iterable<Work>) => Array.from(works, ({ card }) => card);
		const turned = this.#edges.slice(0, this.#turned);
		return {
			past: this.past,
			turned: turned.map(({ at, order, kind }) => ({ at, order, kind })),
			of: turned.map(({ sprint }) => sprint.number),
			turnedAt: turned.length ? this.#turnedAt : null,
			running: [...this.#stints.running.keys()],
			waiting: cards(this.waiting),
			lists: Array.from(this.#stints.lists, ([number, works]) => [number, cards(works)]),
		};
	}

	/**
	 * Goes on from what was kept.
	 * @param sprints those of the board
	 * @returns false when one of then is not among them any more
	 */
	*resume(
		kept: KeptAccounts,
		books: readonly KeptBook[],
		works: readonly KeptWork[],
		sprints: readonly BoardSprint[],
	): Generator<void, boolean> {
		const known = new Map(sprints.map((sprint) => [sprint.number, sprint]));
		if (
			![...kept.of, ...kept.running, ...books.map(({ number }) => number)].every((number) =>
				known.has(number),
			)
		)
			return false;
		for (const { number, sums, notes } of books) this.#stints.open(known.get(number)!, notes, sums);
		for (const kept of works) {
			const stint = (place: number) =>
				place < 0 ? null : this.#stints.books.get(kept.last!)!.stints[place]!;
			const [open, unnamed] = [stint(kept.stint), stint(kept.unnamed)];
			const work: Work = Object.assign(kept, { stint: open, unnamed });
			this.cards.set(work.card, work);
			if (work.carried) this.#stints.everCarried.add(work);
			yield;
		}
		const of = (cards: readonly string[]) => cards.map((card) => this.cards.get(card)!);
		for (const work of of(kept.waiting)) this.waiting.add(work);
		for (const [number, cards] of kept.lists) this.#stints.lists.set(number, new Set(of(cards)));
		for (const number of kept.running) this.#stints.running.set(number, known.get(number)!);
		this.#edges = kept.turned.map((edge, i) => ({ ...edge, sprint: known.get(kept.of[i]!)! }));
		this.#turned = kept.turned.length;
		this.#turnedAt = kept.turnedAt ?? -Infinity;
		this.#stints.past = kept.past;
		if (!this.sprints(sprints)) return false;
		for (const _ of this.#makingUp()) yield;
		return true;
	}

	/** Takes in sprints that have started or closed since; false where what has happened already would be otherwise. */
	sprints(sprints: readonly BoardSprint[]): boolean {
		const edges = edgesOf(sprints);
		for (let i = 0; i < this.#turned; i++) if (!sameEdge(edges[i], this.#edges[i]!)) return false;
		const next = edges[this.#turned];
		if (next && next.at < this.#turnedAt) return false;
		this.#edges = edges;
		for (const sprint of sprints) {
			const book = this.#stints.books.get(sprint.number);
			if (book) book.sprint = sprint;
			if (this.#stints.running.has(sprint.number)) this.#stints.running.set(sprint.number, sprint);
		}
		return true;
	}

	/** Whether an event of this instant can still be taken in: no sprint has started or closed at it or since. */
	open(at: Instant): boolean {
		return at > this.#turnedAt;
	}

	/** Takes in what happened next to a card, and what that did to its clock. */
	take(event: HistoryEvent, { before, after }: ClockStep): void {
		this.#turn(event.at, false);
		const work = this.#work(event.card);
		this.#stints.heed(work, event, before, after);
		work.done = after.state === 'done';
		work.archived = after.archived;
		const waits = after.column === null && !after.archived;
		if (waits !== work.waits) {
			work.waits = waits;
			if (waits) this.waiting.add(work);
			else this.waiting.delete(work);
		}
	}

	/** Lets sprints start and close that do so up to and with an instant. */
	until(asOf: Instant): void {
		this.#turn(asOf, true);
	}

	/** Makes up the accounts of closed sprints, so that nobody has to wait for all of them at once later. */
	makeUp(): void {
		for (const _ of this.#makingUp());
	}

	*#makingUp(): Generator<void> {
		for (const [number, book] of this.#stints.books) {
			if (!this.#stints.running.has(number)) void book.ledger;
			yield;
		}
	}

	onList(sprint: number): Iterable<CardWork> {
		return this.#stints.lists.get(sprint) ?? [];
	}

	/** Cards that were carried and can still be seen on the board. */
	carried(): Iterable<CardWork> {
		return this.#stints.carried();
	}

	/** Unpacks what was noted of all sprints, for whoever must not keep others waiting. */
	*reach(): Generator<void> {
		for (const book of this.#stints.books.values()) {
			void book.stints;
			yield;
		}
	}

	get ledgers(): Ledger[] {
		return Array.from(this.#stints.books.values(), (book) => book.ledger).sort((a, b) => a.number - b.number);
	}

	/**
	 * Puts another history of one card in the place of the one that was taken in.
	 * @param was what was taken in of it, and what is so now, up to now; both in time order
	 */
	replace(
		layout: Layout,
		card: string,
		was: readonly HistoryEvent[],
		is: readonly HistoryEvent[],
		now: Instant,
	): void {
		this.#forget(card, this.#alone(layout, was, now));
		const alone = this.#alone(layout, is, now);
		this.#stints.past++;
		for (const [number, { stints, moves }] of alone.#stints.books) {
			const book = this.#stints.books.get(number);
			if (!book || (!stints.length && !moves.length)) continue;
			book.stints.push(...stints);
			// Those of other cards keep their order.
			book.moves = [...book.moves, ...moves].sort((a, b) => a.at - b.at);
			this.#stints.touch(number);
		}
		const work = alone.cards.get(card);
		if (!work) return;
		this.cards.set(card, work);
		if (work.waits) this.waiting.add(work);
		if (work.carried) this.#stints.everCarried.add(work);
		const list = work.sprint;
		work.sprint = null;
		this.#stints.list(work, list);
	}

	/** The same sprints, with one card alone. */
	#alone(layout: Layout, events: readonly HistoryEvent[], now: Instant): SprintAccounts {
		const alone = new SprintAccounts({ unit: this.#stints.unit, sprints: [] });
		alone.#edges = this.#edges;
		const lives = new Lifetimes(layout);
		for (const event of events) alone.take(event, lives.take(event));
		alone.until(now);
		return alone;
	}

	/** @param alone the card alone, as it was: in the books in which it was not then, it is not now */
	#forget(card: string, alone: SprintAccounts): void {
		const work = this.cards.get(card);
		if (!work) return;
		this.#stints.list(work, null);
		this.cards.delete(card);
		this.waiting.delete(work);
		this.#stints.everCarried.delete(work);
		for (const [number, book] of this.#stints.books) {
			if (!alone.#stints.books.get(number)?.stints.length) continue;
			book.stints = book.stints.filter((stint) => stint.card !== card);
			book.moves = book.moves.filter((move) => move.card !== card);
			this.#stints.touch(number);
		}
	}

	#work(card: string): Work {
		const known = this.cards.get(card);
		if (known) return known;
		const made = noWork(card);
		this.cards.set(card, made);
		this.waiting.add(made);
		return made;
	}

	#turn(at: Instant, inclusive: boolean): void {
		for (let edge = this.#edges[this.#turned]; edge; edge = this.#edges[this.#turned]) {
			if (inclusive ? edge.at > at : edge.at >= at) return;
			this.#turned++;
			this.#turnedAt = edge.at;
			if (edge.kind === 'start') this.#stints.start(edge.sprint);
			else this.#stints.close(edge.sprint);
			this.#stints.past++;
		}
	}
}

/**
 * The ledgers of all sprints started by an instant, by number. Beside them what each card is left with.
 * @param events in time order; those after asOf are ignored
 */
export function sprintAccounts(
	board: SprintBoard,
	events: readonly HistoryEvent[],
	asOf: Instant,
): SprintAccounts {
	const lives = new Lifetimes(board);
	const accounts = new SprintAccounts(board);
	for (const event of events) {
		if (event.at > asOf) break;
		accounts.take(event, lives.take(event));
	}
	accounts.until(asOf);
	return accounts;
}

const named = ({ outcome }: Stint) => outcome !== null;
