import type { Instant } from '../calendar/zone.ts';
import type { BoardFile } from '../sprint/board.ts';
import { rollup } from 'd3-array';
import { FlowFold } from '../flow/fold.ts';
import type { HistoryEvent } from '../flow/history.ts';
import type { Lifetime } from '../flow/lifetime.ts';
import { atOnce, inParts } from '../steps.ts';
import { Since } from '../rounds/since.ts';
import { columnsOf, Places, rowsOf, type Packed } from '../shelf.ts';
import { SprintAccounts, type KeptBook } from '../sprint/accounts.ts';
import type { KeptWork } from '../sprint/work.ts';
import {
	keptLives,
	keptNotes,
	line,
	livesOf,
	notesOf,
	packed,
	rowsIn,
	type BundleHead,
	type Line,
} from './fold-lines.ts';

/** Another history of a card in the place of the one that was taken in. */
export interface Replaced {
	card: string;
	was: readonly HistoryEvent[];
	is: readonly HistoryEvent[];
}

/**
 * All that a board's figures are read from, folded out of its history event by event, in time order: the flow of its cards,
 * the ledgers of its sprints, and what has lasted. Folded step by step it says the same as read at once.
 */
export class BoardFold {
	readonly flow: FlowFold;
	readonly accounts: SprintAccounts;
	#since: Since;
	/** What has lasted is no longer known: a history was replaced, and when it began to last hangs on all of them. */
	#stale = false;
	readonly #board: BoardFile;
	#last: Instant = -Infinity;
	#changes = 0;
	/** Cards that were at rest when it was kept, and what was noted of sprints that were over, as it was kept. */
	readonly #places = new Places();
	readonly #bundles: { head: BundleHead; texts: Packed[] }[] = [];
	readonly #notes = new Map<number, Packed>();

	constructor(board: BoardFile) {
		this.flow = new FlowFold(board);
		this.accounts = new SprintAccounts(board);
		this.#board = board;
		this.#since = new Since(
			board,
			board.columns.map((column) => column.limit),
		);
	}

	/**
	 * Takes in what happened since, in time order.
	 * @returns false when that cannot be added to what was folded, as it happened before its end: then it is folded anew
	 */
	take(events: readonly HistoryEvent[]): boolean {
		const first = events[0];
		if (first && (first.at < this.#last || !this.accounts.open(first.at))) return false;
		this.#changes++;
		for (const event of events) {
			const step = this.flow.take(event);
			this.accounts.take(event, step);
			if (!this.#stale) this.#since.take(event, step);
		}
		this.accounts.makeUp();
		this.#last = events.at(-1)?.at ?? this.#last;
		return true;
	}

	/** Unpacks what is known of some cards, step by step: then what happens to them is taken in at once. */
	*reach(cards: Iterable<string>): Generator<void> {
		const all = [...cards];
		yield* this.flow.lives.byCard.reach(all);
		yield* this.accounts.cards.reach(all);
		yield* this.#since.owners.reach(all);
	}

	/** Unpacks all of what is partly unpacked, step by step: it is kept anew then, which asks for all of it. */
	*tidy(): Generator<void> {
		for (const bundle of this.#bundles.keys()) {
			this.#rests(bundle);
			yield;
		}
	}

	/** Rises whenever something is taken in: whoever reads it in steps looks whether it still is as it was. */
	get changes(): number {
		return this.#changes;
	}

	/** What has lasted; null where that is to be folded anew, as a history has been replaced. */
	get since(): Since | null {
		return this.#stale ? null : this.#since;
	}

	/**
	 * Puts other histories of some cards in the place of what was taken in of them: something was taken back, or corrected.
	 * @param cards with what was taken in of each, and what is so now; both in time order
	 * @returns false when the board's very first event is among what is gone: then it is folded anew
	 */
	replace(cards: readonly Replaced[], now: Instant): boolean {
		const begins = cards.some(({ was, is }) => was[0]?.at === this.flow.first && is[0]?.at !== was[0]?.at);
		if (begins) return false;
		this.#changes++;
		for (const { card, was, is } of cards) {
			this.flow.replace(card, was, is);
			this.accounts.replace(this.#board, card, was, is, Math.max(now, this.#last));
			this.#last = Math.max(this.#last, is.at(-1)?.at ?? 0);
		}
		this.accounts.makeUp();
		this.#stale ||= cards.length > 0;
		return true;
	}

	/**
	 * Goes on to the present: the sprints as they are now, what happened since, and what starts and closes by now.
	 * @returns false as with `take`
	 */
	goOn(sprints: BoardFile['sprints'], events: readonly HistoryEvent[], now: Instant): boolean {
		if (!this.accounts.sprints(sprints) || !this.take(events)) return false;
		// What has happened is past, also where this machine's clock is a little behind.
		this.accounts.until(Math.max(now, this.#last));
		return true;
	}

	/**
	 * All that it knows, text by text: to be kept, and gone on from later. Whoever takes a rest between two of them looks
	 * whether it still is as it was at the first one. What is packed is given as it is.
	 * @param part so many cards stand in one text
	 */
	*kept(part = PART): Generator<Packed> {
		const since = this.#stale ? null : this.#since;
		const whole = this.#bundles.filter((_, i) => this.#rests(i));
		const owners = [...(since?.owners.out() ?? [])];
		for (const { head, texts } of whole) yield* [line({ bundle: head }), ...texts];
		const put = new Set<string>();
		for (const some of inParts(this.#resting(this.#out(new Set())), part)) {
			if (some.length < part) break;
			const cards = some.map(({ card }) => card);
			yield line({ bundle: this.#headOf(some) });
			yield packed(cards);
			yield packed(keptLives(some));
			yield packed(columnsOf(cards.map((card) => this.accounts.keptWork(card))));
			yield packed(columnsOf(cards.flatMap((card) => since?.owners.get(card) ?? [])));
			for (const card of cards) put.add(card);
		}
		for (const some of inParts(this.#out(put), part)) {
			yield line({ lives: keptLives(some) });
			yield line({ works: columnsOf(some.map(({ card }) => this.accounts.keptWork(card))) });
		}
		const owned = owners.filter(({ card }) => !put.has(card));
		for (const some of inParts(owned, part)) yield line({ owners: columnsOf(some) });
		for (const { number, book, over } of this.accounts.books()) {
			if (!over) yield line({ book: number, notes: keptNotes(book) });
			else {
				yield line({ book: number, sums: book.sums });
				yield book.rests ? this.#notes.get(number)! : packed(keptNotes(book));
			}
		}
		const last = Number.isFinite(this.#last) ? this.#last : null;
		const [flow, accounts] = [this.flow.kept(), this.accounts.kept()];
		yield line({ end: { last, since: since?.kept() ?? null, flow, accounts } });
	}

	/** Whether a bundle is all as it was put in; where something of it was asked for, all of it is unpacked. */
	#rests(bundle: number): boolean {
		const { byCard } = this.flow.lives;
		const { cards } = this.accounts;
		if (byCard.rests(bundle) && cards.rests(bundle) && (this.#stale || this.#since.owners.rests(bundle)))
			return true;
		byCard.unpack(bundle);
		cards.unpack(bundle);
		this.#since.owners.unpack(bundle);
		return false;
	}

	/** Cards that are not packed but for some: those that are done by the day on which they were finished, then all others. */
	*#out(but: ReadonlySet<string>): Generator<Lifetime> {
		for (const life of this.flow.doneCards()) if (!but.has(life.card)) yield life;
		for (const life of this.flow.lives.byCard.out())
			if (life.state !== 'done' && !but.has(life.card)) yield life;
	}

	/** Those of some cards that are at rest: all that is known of them can be packed. */
	*#resting(lives: Iterable<Lifetime>): Generator<Lifetime> {
		for (const life of lives)
			if ((life.state === 'done' || life.archived) && this.accounts.atRest(life.card)) yield life;
	}

	#headOf(lives: readonly Lifetime[]): BundleHead {
		const done = lives.filter(({ state, finished }) => state === 'done' && finished !== null);
		const finished = [
			...rollup(
				done,
				(some) => some.length,
				(life) => this.#board.zone.day(life.finished!),
			),
		];
		const moved = (life: Lifetime) =>
			Math.max(...[life.stays.at(-1), life.archivings?.at(-1)].map((spell) => spell?.from ?? 0));
		return { count: lives.length, finished, since: Math.max(...lives.map(moved)) };
	}

	#rest(head: BundleHead, texts: [cards: Packed, lives: Packed, works: Packed, owners: Packed]): void {
		const [cards, lives, works, owners] = texts;
		const bundle = this.#places.add(cards);
		this.#bundles.push({ head, texts });
		this.flow.rest(this.#places, bundle, head.count, head, () => livesOf(rowsIn(lives)));
		this.accounts.rest(this.#places, bundle, head.count, () => rowsIn(works));
		this.#since.owners.rest(this.#places, bundle, head.count, () => rowsIn(owners));
	}

	/**
	 * A board folded as it was when it was kept. What is said of cards at rest and of sprints that are over stays packed
	 * until it is asked for.
	 * @param board as it is now, with the columns of then
	 * @param texts as `kept` gave them
	 * @param inTurns does what can be done in steps, and lets others have their turn between them
	 * @returns null when they are not whole, or a sprint of then is gone: then the history is read
	 */
	static async from(
		board: BoardFile,
		texts: AsyncIterable<Packed> | Iterable<Packed>,
		inTurns: <T>(steps: Generator<void, T>) => Promise<T> | T = atOnce,
	): Promise<BoardFold | null> {
		const fold = new BoardFold(board);
		const works: KeptWork[] = [];
		const books: KeptBook[] = [];
		let end: Line['end'];
		/** What stays packed of the line that was read last. */
		let following: Packed[] = [];
		let line: Line = {};
		const left = () => ((line.bundle && 4) ?? (line.sums && 1) ?? 0) - following.length;
		for await (const text of texts) {
			if (left()) following.push(text);
			else [line, following] = [JSON.parse(text.text) as Line, []];
			if (left()) continue;
			if (line.bundle) fold.#rest(line.bundle, following as [Packed, Packed, Packed, Packed]);
			for (const life of livesOf(rowsOf(line.lives))) fold.flow.lives.byCard.set(life.card, life);
			for (const work of rowsOf(line.works)) works.push(work);
			for (const owned of rowsOf(line.owners)) fold.#since.owners.set(owned.card, owned);
			if (line.book !== undefined) {
				const { book: number, sums = null, notes } = line;
				const [kept] = following;
				if (kept) fold.#notes.set(number, kept);
				books.push({ number, sums, notes: kept ? () => notesOf(JSON.parse(kept.text)) : notesOf(notes!) });
			}
			end = line.end;
		}
		if (!end || !(await inTurns(fold.accounts.resume(end.accounts, books, works, board.sprints))))
			return null;
		await inTurns(fold.flow.resume(end.flow));
		fold.#last = end.last ?? -Infinity;
		if (end.since) fold.#since.resume(end.since);
		else fold.#stale = true;
		return fold;
	}
}

/** So many cards stand in one text. */
const PART = 500;
