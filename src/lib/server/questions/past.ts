import { LRUCache } from 'lru-cache';
import type { BoardFold } from '../../../core/board/fold.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import type { Past } from '../../../core/capacity/odds.ts';
import { closedSprints, pastInSteps } from '../../../core/capacity/past.ts';
import { learn, type ClosedSprint, type Learned } from '../../../core/capacity/promise.ts';
import { now } from '../time.ts';
import { inTurns } from '../turns.ts';
import { boardFold } from './fold.ts';
import { boardFile } from './history.ts';

export interface BoardPast {
	closed: ClosedSprint[];
	learned: Learned;
}

/**
 * A question of a board's closed sprints, whose answer is remembered: it stands until a sprint starts or closes, or a
 * done card's hours or size change.
 * @param make finds the answer; what it waits for comes after the fold was read
 */
export function ofThePast<T>(
	make: (head: BoardHead, fold: BoardFold) => T | Promise<T>,
): (head: BoardHead) => Promise<T> {
	const known = new LRUCache<
		string,
		{ fold: WeakRef<BoardFold>; past: number; frozen: string; answer: Promise<T> }
	>({ max: 30 });
	return async (head) => {
		const fold = await boardFold(head);
		const { past } = fold.accounts;
		const frozen = JSON.stringify(
			head.sprints.map(({ number, raw, focus, keepBack, startedAt, closedAt }) => [
				number,
				raw,
				focus,
				keepBack,
				startedAt,
				closedAt,
			]),
		);
		const before = known.get(head.id);
		if (before?.fold.deref() === fold && before.past === past && before.frozen === frozen)
			return before.answer;
		const answer = Promise.resolve(make(head, fold));
		known.set(head.id, { fold: new WeakRef(fold), past, frozen, answer });
		answer.catch(() => known.get(head.id)?.answer === answer && known.delete(head.id));
		return answer;
	};
}

/** What the closed sprints of a board taught it: focus, keep-back and velocity. */
export const boardPast = ofThePast((head, { accounts: { ledgers } }): BoardPast => {
	const raw = new Map(head.sprints.map((sprint) => [sprint.number, sprint.raw ?? 0]));
	const closed = closedSprints(boardFile(head), ledgers, raw, now().getTime());
	return { closed, learned: learn(closed) };
});

/** How cards and sprints of its last closed sprints turned out. */
export const turnedOut = ofThePast(async (head, { accounts }): Promise<Past> => {
	const { closed } = await boardPast(head);
	return inTurns(pastInSteps(closed, accounts.ledgers, accounts.cards));
});
