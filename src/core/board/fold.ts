import type { Instant } from '../calendar/zone.ts';
import type { BoardFile } from '../sprint/board.ts';
import { FlowFold } from '../flow/fold.ts';
import type { HistoryEvent } from '../flow/history.ts';
import { Since } from '../rounds/since.ts';
import { SprintAccounts } from '../sprint/accounts.ts';

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
		for (const event of events) {
			const step = this.flow.take(event);
			this.accounts.take(event, step);
			if (!this.#stale) this.#since.take(event, step);
		}
		this.accounts.makeUp();
		this.#last = events.at(-1)?.at ?? this.#last;
		return true;
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
}
