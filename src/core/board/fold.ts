import type { Instant } from '../calendar/zone.ts';
import type { BoardFile } from '../sprint/board.ts';
import { FlowFold, type KeptFlow } from '../flow/fold.ts';
import type { HistoryEvent } from '../flow/history.ts';
import type { Lifetime } from '../flow/lifetime.ts';
import { atOnce } from '../steps.ts';
import { Since, type KeptOwners, type KeptSince } from '../rounds/since.ts';
import { SprintAccounts, type KeptAccounts, type KeptBook, type KeptWork } from '../sprint/accounts.ts';

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
			this.accounts.replace(this.#board, card, is, Math.max(now, this.#last));
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
	 * All that it knows, line by line: to be kept, and gone on from later. Whoever takes a rest between two lines looks
	 * whether it still is as it was at the first one.
	 */
	*kept(): Generator<string> {
		for (const lives of inParts(this.flow.lives.byCard.values()))
			yield line({ lives: columnsOf(lives.map(({ stays, ...life }) => ({ ...life, stays: flat(stays) }))) });
		for (const works of inParts(this.accounts.keptWork())) yield line({ works: columnsOf(works) });
		for (const { number, stints, moves } of this.accounts.keptBooks())
			yield line({ book: number, stints: columnsOf(stints), moves: columnsOf(moves) });
		if (!this.#stale)
			for (const owned of inParts(this.#since.keptOwners())) yield line({ owners: columnsOf(owned) });
		const last = Number.isFinite(this.#last) ? this.#last : null;
		const since = this.#stale ? null : this.#since.kept();
		yield line({ end: { last, since, flow: this.flow.kept(), accounts: this.accounts.kept() } });
	}

	/**
	 * A board folded as it was when it was kept.
	 * @param board as it is now, with the columns of then
	 * @param lines as `kept` gave them
	 * @param inTurns does what can be done in steps, and lets others have their turn between them
	 * @returns null when they are not whole, or a sprint of then is gone: then the history is read
	 */
	static async from(
		board: BoardFile,
		lines: AsyncIterable<string> | Iterable<string>,
		inTurns: <T>(steps: Generator<void, T>) => Promise<T> | T = atOnce,
	): Promise<BoardFold | null> {
		const fold = new BoardFold(board);
		const works: KeptWork[] = [];
		const books: KeptBook[] = [];
		let end: Line['end'];
		for await (const text of lines) {
			const part = JSON.parse(text) as Line;
			for (const life of rowsOf(part.lives))
				fold.flow.lives.byCard.set(life.card, Object.assign(life, { stays: unflat(life.stays) }));
			for (const work of rowsOf(part.works)) works.push(work);
			for (const owned of rowsOf(part.owners)) fold.#since.own(owned);
			if (part.book)
				books.push({ number: part.book, stints: rowsOf(part.stints), moves: rowsOf(part.moves) });
			end = part.end;
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

/** A lifetime as it is written: its stays one after the other, as three numbers each. */
type KeptLife = Omit<Lifetime, 'stays'> & { stays: (number | null)[] };

/** A line of what is kept of a board: cards, their work, their owners, a sprint's book, or the rest. */
interface Line {
	lives?: Columns<KeptLife>;
	works?: Columns<KeptWork>;
	owners?: Columns<KeptOwners>;
	book?: number;
	stints?: Columns<KeptBook['stints'][number]>;
	moves?: Columns<KeptBook['moves'][number]>;
	end?: { last: Instant | null; since: KeptSince | null; flow: KeptFlow; accounts: KeptAccounts };
}

/** Things of one kind, written as columns: what they are called stands there once. */
type Columns<T> = { [K in keyof T]?: T[K][] };

function columnsOf<T extends object>(rows: readonly T[]): Columns<T> {
	const columns: Columns<T> = {};
	for (const key of Object.keys(rows[0] ?? {}) as (keyof T)[]) columns[key] = rows.map((row) => row[key]);
	return columns;
}

function rowsOf<T>(columns: Columns<T> = {}): T[] {
	const known = Object.entries(columns) as [keyof T, T[keyof T][]][];
	return Array.from({ length: known[0]?.[1].length ?? 0 }, (_, i) => {
		const row = {} as T;
		for (const [key, values] of known) row[key] = values[i]!;
		return row;
	});
}

const line = (part: Line): string => JSON.stringify(part);

/** So many cards stand in one line. */
const PART = 500;

function* inParts<T>(all: Iterable<T>): Generator<T[]> {
	const part: T[] = [];
	for (const one of all) if (part.push(one) === PART) yield part.splice(0);
	if (part.length) yield part;
}

const flat = (stays: Lifetime['stays']) => stays.flatMap(({ column, from, until }) => [column, from, until]);

const unflat = (numbers: readonly (number | null)[]): Lifetime['stays'] =>
	Array.from({ length: numbers.length / 3 }, (_, i) => ({
		column: numbers[i * 3]!,
		from: numbers[i * 3 + 1]!,
		until: numbers[i * 3 + 2]!,
	}));
