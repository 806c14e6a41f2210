import type { Instant } from '../calendar/zone.ts';
import type { BoardSprint } from './board.ts';
import type { CardClock } from '../flow/clock.ts';
import type { HistoryEvent } from '../flow/history.ts';
import { Lifetimes, type ClockStep } from '../flow/lifetime.ts';
import type { Layout } from '../flow/layout.ts';
import { Shelf, type Places } from '../shelf.ts';
import { Book, type Notes, type Sums } from './book.ts';
import { edgesOf, sameEdge, type Edge } from './edges.ts';
import { sized, splitOff } from './left.ts';
import type { CardWork, Ledger, Move, Outcome, SprintBoard, Stint } from './ledger.ts';

interface Work extends CardWork {
	archived: boolean;
	stint: Stint | null;
	/** A stint frozen at the close whose outcome has no name yet. */
	unnamed: Stint | null;
	/** A stint of it ended done: what is worked on it tells of the past. */
	counted: boolean;
}

/** What is kept of a card's work, to go on from there later: its stint by its place in its sprint's book. */
export interface KeptWork extends Omit<Work, 'stint' | 'unnamed'> {
	stint: number;
	unnamed: number;
}

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
 * A stint opens when the sprint starts, or when a card is put into a running one; while it is open every change of
 * what is left is burned, resized or split off; it is frozen when the card leaves or the sprint closes.
 * At one instant first the events are taken in, then what closes, then what starts.
 */
export class SprintAccounts implements Accounts {
	readonly cards = new Shelf<Work>();
	readonly waiting = new Set<Work>();
	/** Goes up whenever something changes that closed sprints and done cards say. */
	past = 0;
	readonly #unit: SprintBoard['unit'];
	readonly #books = new Map<number, Book>();
	/** The highest number of a sprint that has started. */
	#latest = 0;
	readonly #running = new Map<number, BoardSprint>();
	readonly #lists = new Map<number, Set<Work>>();
	readonly #carried = new Set<Work>();
	#edges: Edge[];
	/** How many of the edges have happened, and the instant of the last. */
	#turned = 0;
	#turnedAt: Instant = -Infinity;

	constructor(board: Pick<SprintBoard, 'unit' | 'sprints'>) {
		this.#unit = board.unit;
		this.#edges = edgesOf(board.sprints);
	}

	/** The work of a card, as it is now: to be written down at once. */
	keptWork(card: string): KeptWork {
		const work = this.cards.get(card)!;
		const place = (stint: Stint | null) =>
			stint ? this.#books.get(work.last!)!.stints.lastIndexOf(stint) : -1;
		return { ...work, stint: place(work.stint), unnamed: place(work.unnamed) };
	}

	/**
	 * Whether a card is at rest: done or archived, on no sprint's list, and not among those that were carried and can still
	 * be seen on the board.
	 */
	atRest(card: string): boolean {
		const work = this.cards.get(card)!;
		if (!work.done && !work.archived) return false;
		return !work.stint && !work.unnamed && work.sprint === null && !this.#seen(work);
	}

	/** Takes in the work of a bundle of cards at rest. */
	rest(places: Places, bundle: number, count: number, works: () => readonly KeptWork[]): void {
		this.cards.rest(places, bundle, count, () =>
			works().map((kept) => {
				const work: Work = Object.assign(kept, { stint: null, unnamed: null });
				if (work.carried) this.#carried.add(work);
				return work;
			}),
		);
	}

	/** The books of its sprints, as they are now: to be written down at once. */
	*books(): Generator<{ number: number; book: Book; over: boolean }> {
		for (const [number, book] of this.#books) {
			const over = book.rests || (!this.#running.has(number) && book.stints.every(named));
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
			running: [...this.#running.keys()],
			waiting: cards(this.waiting),
			lists: Array.from(this.#lists, ([number, works]) => [number, cards(works)]),
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
		for (const { number, sums, notes } of books) this.#open(known.get(number)!, notes, sums);
		for (const kept of works) {
			const stint = (place: number) => (place < 0 ? null : this.#books.get(kept.last!)!.stints[place]!);
			const [open, unnamed] = [stint(kept.stint), stint(kept.unnamed)];
			const work: Work = Object.assign(kept, { stint: open, unnamed });
			this.cards.set(work.card, work);
			if (work.carried) this.#carried.add(work);
			yield;
		}
		const of = (cards: readonly string[]) => cards.map((card) => this.cards.get(card)!);
		for (const work of of(kept.waiting)) this.waiting.add(work);
		for (const [number, cards] of kept.lists) this.#lists.set(number, new Set(of(cards)));
		for (const number of kept.running) this.#running.set(number, known.get(number)!);
		this.#edges = kept.turned.map((edge, i) => ({ ...edge, sprint: known.get(kept.of[i]!)! }));
		this.#turned = kept.turned.length;
		this.#turnedAt = kept.turnedAt ?? -Infinity;
		this.past = kept.past;
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
			const book = this.#books.get(sprint.number);
			if (book) book.sprint = sprint;
			if (this.#running.has(sprint.number)) this.#running.set(sprint.number, sprint);
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
		this.#heed(work, event, before, after);
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
		for (const [number, book] of this.#books) {
			if (!this.#running.has(number)) void book.ledger;
			yield;
		}
	}

	onList(sprint: number): Iterable<CardWork> {
		return this.#lists.get(sprint) ?? [];
	}

	/** Cards that were carried and can still be seen on the board: those that are open, or were in one of the last two sprints. */
	*carried(): Generator<CardWork> {
		for (const work of this.#carried) if (this.#seen(work)) yield work;
	}

	#seen(work: Work): boolean {
		if (!work.carried || work.archived) return false;
		return !work.done || (work.last ?? 0) >= this.#latest - 1;
	}

	/** Unpacks what was noted of all sprints, for whoever must not keep others waiting. */
	*reach(): Generator<void> {
		for (const book of this.#books.values()) {
			void book.stints;
			yield;
		}
	}

	get ledgers(): Ledger[] {
		return Array.from(this.#books.values(), (book) => book.ledger).sort((a, b) => a.number - b.number);
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
		this.past++;
		for (const [number, { stints, moves }] of alone.#books) {
			const book = this.#books.get(number);
			if (!book || (!stints.length && !moves.length)) continue;
			book.stints.push(...stints);
			// Those of other cards keep their order.
			book.moves = [...book.moves, ...moves].sort((a, b) => a.at - b.at);
			this.#touch(number);
		}
		const work = alone.cards.get(card);
		if (!work) return;
		this.cards.set(card, work);
		if (work.waits) this.waiting.add(work);
		if (work.carried) this.#carried.add(work);
		const list = work.sprint;
		work.sprint = null;
		this.#list(work, list);
	}

	/** The same sprints, with one card alone. */
	#alone(layout: Layout, events: readonly HistoryEvent[], now: Instant): SprintAccounts {
		const alone = new SprintAccounts({ unit: this.#unit, sprints: [] });
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
		this.#list(work, null);
		this.cards.delete(card);
		this.waiting.delete(work);
		this.#carried.delete(work);
		for (const [number, book] of this.#books) {
			if (!alone.#books.get(number)?.stints.length) continue;
			book.stints = book.stints.filter((stint) => stint.card !== card);
			book.moves = book.moves.filter((move) => move.card !== card);
			this.#touch(number);
		}
	}

	#work(card: string): Work {
		const known = this.cards.get(card);
		if (known) return known;
		const empty = {
			size: null,
			left: 0,
			sprint: null,
			first: null,
			worked: 0,
			burned: 0,
			carried: 0,
			last: null,
		};
		const flags = { waits: true, done: false, archived: false, counted: false };
		const made: Work = { card, ...empty, ...flags, stint: null, unnamed: null };
		this.cards.set(card, made);
		this.waiting.add(made);
		return made;
	}

	/** What is said of a sprint's stints changes: its account is made up anew. */
	#touch(number: number | null): void {
		const book = number === null ? undefined : this.#books.get(number);
		if (!book) return;
		book.touch();
		if (!this.#running.has(number!)) this.past++;
	}

	#list(work: Work, number: number | null): void {
		if (work.sprint !== null) this.#lists.get(work.sprint)?.delete(work);
		work.sprint = number;
		if (number === null) return;
		const list = this.#lists.get(number) ?? new Set();
		this.#lists.set(number, list.add(work));
	}

	#openStint(work: Work, number: number, kind: Stint['kind'], opened: Instant): void {
		const entry = work.left;
		const zero = { resized: 0, burned: 0, worked: 0, splitOff: 0, exit: entry, outcome: null, ended: null };
		work.stint = { card: work.card, kind, planned: kind === 'committed', entry, ...zero, opened };
		work.unnamed = null;
		work.last = number;
		const book = this.#books.get(number)!;
		book.stints.push(work.stint);
		if (kind === 'added') book.moves.push({ at: opened, card: work.card, kind, amount: entry });
		this.#touch(number);
	}

	#closeStint(work: Work, outcome: Outcome, at: Instant): void {
		if (!work.stint) return;
		work.stint.exit = work.left;
		work.stint.outcome = outcome;
		work.stint.ended = at;
		work.stint = null;
		if (outcome === 'carried') this.#carry(work);
		if (outcome === 'done') work.counted = true;
		this.#touch(work.last);
	}

	#carry(work: Work): void {
		work.carried++;
		this.#carried.add(work);
	}

	/** Whether the sprint that the card is in closes at this very instant: then leaving it is a decision about it. */
	#closing(work: Work, at: Instant): boolean {
		return work.sprint !== null && this.#running.get(work.sprint)?.closedAt === at;
	}

	#moved(work: Work, at: Instant, kind: Move['kind'], amount: number): void {
		if (!work.stint || work.sprint === null || this.#closing(work, at)) return;
		this.#books.get(work.sprint)?.moves.push({ at, card: work.card, kind, amount });
	}

	#leave(work: Work, at: Instant, atTheClose: Outcome): void {
		this.#moved(work, at, 'removed', work.left);
		this.#closeStint(work, this.#closing(work, at) ? atTheClose : 'removed', at);
		this.#list(work, null);
	}

	#burn(work: Work, at: Instant, amount: number): void {
		if (work.stint && amount) {
			work.stint.burned += amount;
			this.#moved(work, at, 'burned', amount);
			this.#touch(work.sprint);
		}
		work.burned += amount;
		work.left -= amount;
	}

	#resize(work: Work, at: Instant, left: number): void {
		if (work.stint && left !== work.left) {
			work.stint.resized += left - work.left;
			this.#moved(work, at, 'resized', left - work.left);
			this.#touch(work.sprint);
		}
		work.left = left;
	}

	#name(work: Work, outcome: Outcome): void {
		if (!work.unnamed) return;
		work.unnamed.outcome = outcome;
		work.unnamed = null;
		if (outcome === 'carried') this.#carry(work);
		this.#touch(work.last);
	}

	#heed(work: Work, event: HistoryEvent, before: CardClock, after: CardClock): void {
		const isDone = before.state === 'done';
		switch (event.event) {
			case 'sprint': {
				if (before.archived) return;
				const number = event.value ? Number(event.value) : null;
				if (number === work.sprint && !work.unnamed) return;
				this.#name(work, number === null ? 'returned' : 'carried');
				if (work.stint)
					this.#leave(work, event.at, isDone ? 'done' : number === null ? 'returned' : 'carried');
				this.#list(work, number);
				if (number !== null && this.#running.has(number)) this.#openStint(work, number, 'added', event.at);
				return;
			}
			case 'column': {
				if (after === before) return;
				if (after.column === null) {
					this.#name(work, 'returned');
					if (work.stint) this.#leave(work, event.at, 'returned');
				} else if (after.state === 'done' && !isDone) {
					this.#name(work, 'returned');
					this.#burn(work, event.at, work.left);
				}
				return;
			}
			case 'archived': {
				if (before.archived || isDone) return;
				this.#name(work, 'dropped');
				this.#moved(work, event.at, 'dropped', work.left);
				this.#closeStint(work, 'dropped', event.at);
				this.#list(work, null);
				return;
			}
			case 'sized': {
				const { size, left } = sized(work, Number(event.value), isDone);
				this.#resize(work, event.at, left);
				work.size = size;
				if (work.first === null) work.first = Number(event.value);
				if (work.counted) this.past++;
				return;
			}
			case 'left':
				if (!isDone) this.#resize(work, event.at, Number(event.value));
				return;
			case 'worked': {
				const hours = Number(event.value);
				work.worked += hours;
				if (work.counted) this.past++;
				if (work.stint) {
					work.stint.worked += hours;
					this.#touch(work.sprint);
				}
				if (this.#unit !== 'hours') return;
				this.#burn(work, event.at, Math.min(work.left, hours));
				return;
			}
			case 'split': {
				if (isDone) return;
				const { part, size, left } = splitOff(work, Number(event.value));
				if (work.stint) work.stint.splitOff += part;
				this.#moved(work, event.at, 'splitOff', part);
				this.#touch(work.sprint);
				Object.assign(work, { size, left });
				return;
			}
			case 'planned':
				if (!work.stint) return;
				work.stint.planned = event.value === 'yes';
				this.#touch(work.sprint);
		}
	}

	#turn(at: Instant, inclusive: boolean): void {
		for (let edge = this.#edges[this.#turned]; edge; edge = this.#edges[this.#turned]) {
			if (inclusive ? edge.at > at : edge.at >= at) return;
			this.#turned++;
			this.#turnedAt = edge.at;
			if (edge.kind === 'start') this.#start(edge.sprint);
			else this.#close(edge.sprint);
			this.past++;
		}
	}

	#open(sprint: BoardSprint, notes: KeptBook['notes'], sums: Sums | null): void {
		this.#books.set(sprint.number, new Book(sprint, notes, sums));
		this.#latest = Math.max(this.#latest, sprint.number);
	}

	#start(sprint: BoardSprint): void {
		this.#open(sprint, { stints: [], moves: [] }, null);
		this.#running.set(sprint.number, sprint);
		for (const work of this.#lists.get(sprint.number) ?? [])
			this.#openStint(work, sprint.number, 'committed', sprint.startedAt!);
	}

	#close(sprint: BoardSprint): void {
		for (const work of [...(this.#lists.get(sprint.number) ?? [])]) {
			if (!work.stint) continue;
			const { stint } = work;
			if (work.done) this.#closeStint(work, 'done', sprint.closedAt!);
			else {
				stint.exit = work.left;
				stint.ended = sprint.closedAt;
				work.unnamed = stint;
				work.stint = null;
			}
			this.#list(work, null);
		}
		this.#running.delete(sprint.number);
		this.#touch(sprint.number);
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
