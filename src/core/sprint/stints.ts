import type { Instant } from '../calendar/zone.ts';
import type { CardClock } from '../flow/clock.ts';
import type { HistoryEvent } from '../flow/history.ts';
import type { BoardSprint } from './board.ts';
import { Book, type Notes, type Sums } from './book.ts';
import { sized, splitOff } from './left.ts';
import type { Move, Outcome, SprintBoard, Stint } from './ledger.ts';
import type { Work } from './work.ts';

/**
 * What events do to cards in sprints, noted in the books of these.
 * A stint opens when the sprint starts, or when a card is put into a running one; while it is open every change of
 * what is left is burned, resized or split off; it is frozen when the card leaves or the sprint closes.
 */
export class Stints {
	readonly books = new Map<number, Book>();
	readonly running = new Map<number, BoardSprint>();
	/** Cards on the list of a sprint, or in it. */
	readonly lists = new Map<number, Set<Work>>();
	/** Cards that were carried at some time. */
	readonly everCarried = new Set<Work>();
	/** Goes up whenever something changes that closed sprints and done cards say. */
	past = 0;
	/** The highest number of a sprint that has started. */
	#latest = 0;

	constructor(readonly unit: SprintBoard['unit']) {}

	/** What is said of a sprint's stints changes: its account is made up anew. */
	touch(number: number | null): void {
		const book = number === null ? undefined : this.books.get(number);
		if (!book) return;
		book.touch();
		if (!this.running.has(number!)) this.past++;
	}

	/** Puts a card on the list of a sprint; null: on none. */
	list(work: Work, number: number | null): void {
		if (work.sprint !== null) this.lists.get(work.sprint)?.delete(work);
		work.sprint = number;
		if (number === null) return;
		const list = this.lists.get(number) ?? new Set();
		this.lists.set(number, list.add(work));
	}

	#openStint(work: Work, number: number, kind: Stint['kind'], opened: Instant): void {
		const entry = work.left;
		const zero = { resized: 0, burned: 0, worked: 0, splitOff: 0, exit: entry, outcome: null, ended: null };
		work.stint = { card: work.card, kind, planned: kind === 'committed', entry, ...zero, opened };
		work.unnamed = null;
		work.last = number;
		const book = this.books.get(number)!;
		book.stints.push(work.stint);
		if (kind === 'added') book.moves.push({ at: opened, card: work.card, kind, amount: entry });
		this.touch(number);
	}

	#closeStint(work: Work, outcome: Outcome, at: Instant): void {
		if (!work.stint) return;
		work.stint.exit = work.left;
		work.stint.outcome = outcome;
		work.stint.ended = at;
		work.stint = null;
		if (outcome === 'carried') this.#carry(work);
		if (outcome === 'done') work.counted = true;
		this.touch(work.last);
	}

	#carry(work: Work): void {
		work.carried++;
		this.everCarried.add(work);
	}

	/** Whether the sprint that the card is in closes at this very instant: then leaving it is a decision about it. */
	#closing(work: Work, at: Instant): boolean {
		return work.sprint !== null && this.running.get(work.sprint)?.closedAt === at;
	}

	#moved(work: Work, at: Instant, kind: Move['kind'], amount: number): void {
		if (!work.stint || work.sprint === null || this.#closing(work, at)) return;
		this.books.get(work.sprint)?.moves.push({ at, card: work.card, kind, amount });
	}

	#leave(work: Work, at: Instant, atTheClose: Outcome): void {
		this.#moved(work, at, 'removed', work.left);
		this.#closeStint(work, this.#closing(work, at) ? atTheClose : 'removed', at);
		this.list(work, null);
	}

	#burn(work: Work, at: Instant, amount: number): void {
		if (work.stint && amount) {
			work.stint.burned += amount;
			this.#moved(work, at, 'burned', amount);
			this.touch(work.sprint);
		}
		work.burned += amount;
		work.left -= amount;
	}

	#resize(work: Work, at: Instant, left: number): void {
		if (work.stint && left !== work.left) {
			work.stint.resized += left - work.left;
			this.#moved(work, at, 'resized', left - work.left);
			this.touch(work.sprint);
		}
		work.left = left;
	}

	#name(work: Work, outcome: Outcome): void {
		if (!work.unnamed) return;
		work.unnamed.outcome = outcome;
		work.unnamed = null;
		if (outcome === 'carried') this.#carry(work);
		this.touch(work.last);
	}

	/** Takes in what happened to a card, and what that did to its clock. */
	heed(work: Work, event: HistoryEvent, before: CardClock, after: CardClock): void {
		const isDone = before.state === 'done';
		switch (event.event) {
			case 'sprint': {
				if (before.archived) return;
				const number = event.value ? Number(event.value) : null;
				if (number === work.sprint && !work.unnamed) return;
				this.#name(work, number === null ? 'returned' : 'carried');
				if (work.stint)
					this.#leave(work, event.at, isDone ? 'done' : number === null ? 'returned' : 'carried');
				this.list(work, number);
				if (number !== null && this.running.has(number)) this.#openStint(work, number, 'added', event.at);
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
				this.list(work, null);
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
					this.touch(work.sprint);
				}
				if (this.unit !== 'hours') return;
				this.#burn(work, event.at, Math.min(work.left, hours));
				return;
			}
			case 'split': {
				if (isDone) return;
				const { part, size, left } = splitOff(work, Number(event.value));
				if (work.stint) work.stint.splitOff += part;
				this.#moved(work, event.at, 'splitOff', part);
				this.touch(work.sprint);
				Object.assign(work, { size, left });
				return;
			}
			case 'planned':
				if (!work.stint) return;
				work.stint.planned = event.value === 'yes';
				this.touch(work.sprint);
		}
	}

	/** Opens the book of a sprint; of one that was kept, with its sums. */
	open(sprint: BoardSprint, notes: Notes | (() => Notes), sums: Sums | null): void {
		this.books.set(sprint.number, new Book(sprint, notes, sums));
		this.#latest = Math.max(this.#latest, sprint.number);
	}

	/** What is on its list is committed. */
	start(sprint: BoardSprint): void {
		this.open(sprint, { stints: [], moves: [] }, null);
		this.running.set(sprint.number, sprint);
		for (const work of this.lists.get(sprint.number) ?? [])
			this.#openStint(work, sprint.number, 'committed', sprint.startedAt!);
	}

	/** What is done ends so; the rest is frozen until somebody decides about it. */
	close(sprint: BoardSprint): void {
		for (const work of [...(this.lists.get(sprint.number) ?? [])]) {
			if (!work.stint) continue;
			const { stint } = work;
			if (work.done) this.#closeStint(work, 'done', sprint.closedAt!);
			else {
				stint.exit = work.left;
				stint.ended = sprint.closedAt;
				work.unnamed = stint;
				work.stint = null;
			}
			this.list(work, null);
		}
		this.running.delete(sprint.number);
		this.touch(sprint.number);
	}
	/** Cards that were carried and can still be seen on the board: those that are open, or were in one of the last two sprints. */
	*carried(): Generator<Work> {
		for (const work of this.everCarried) if (this.seen(work)) yield work;
	}

	/** Whether a card that was carried can still be seen on the board. */
	seen(work: Work): boolean {
		if (!work.carried || work.archived) return false;
		return !work.done || (work.last ?? 0) >= this.#latest - 1;
	}
}
