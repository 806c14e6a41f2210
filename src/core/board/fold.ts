import type { Instant } from '../calendar/zone.ts';
import type { BoardFile } from '../sprint/board.ts';
import { FlowFold } from '../flow/fold.ts';
import type { HistoryEvent } from '../flow/history.ts';
import { Since } from '../rounds/since.ts';
import { SprintAccounts } from '../sprint/ledger.ts';

/**
 * All that a board's figures are read from, folded out of its history event by event, in time order: the flow of its cards,
 * the ledgers of its sprints, and what has lasted. Folded step by step it says the same as read at once.
 */
export class BoardFold {
	readonly flow: FlowFold;
	readonly accounts: SprintAccounts;
	readonly since: Since;
	#last: Instant = -Infinity;

	constructor(board: BoardFile) {
		this.flow = new FlowFold(board);
		this.accounts = new SprintAccounts(board);
		this.since = new Since(
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
			this.since.take(event, step);
		}
		this.accounts.makeUp();
		this.#last = events.at(-1)?.at ?? this.#last;
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
