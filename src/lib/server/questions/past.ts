import { LRUCache } from 'lru-cache';
import type { BoardFold } from '../../../core/board/fold.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import type { Past } from '../../../core/capacity/odds.ts';
import { closedSprints, pastOf } from '../../../core/capacity/past.ts';
import { learn, type ClosedSprint, type Learned } from '../../../core/capacity/promise.ts';
import { now } from '../time.ts';
import { boardFold } from './fold.ts';
import { boardFile } from './history.ts';

export interface BoardPast {
	closed: ClosedSprint[];
	learned: Learned;
	past: Past;
}

/** What was learned, by board: it stands until a sprint starts or closes, or a done card's hours or size change. */
const learnt = new LRUCache<string, { past: number; fold: BoardFold; raw: string; answer: BoardPast }>({
	max: 30,
});

/** What the closed sprints of a board taught it: focus, keep-back, velocity, and how cards turn out. */
export async function boardPast(head: BoardHead): Promise<BoardPast> {
	const fold = await boardFold(head);
	const raw = new Map(head.sprints.map((sprint) => [sprint.number, sprint.raw ?? 0]));
	const frozen = JSON.stringify([...raw]);
	const known = learnt.get(head.id);
	if (known?.fold === fold && known.past === fold.accounts.past && known.raw === frozen) return known.answer;
	const { ledgers, cards } = fold.accounts;
	const closed = closedSprints(boardFile(head), ledgers, raw, now().getTime());
	const answer = { closed, learned: learn(closed), past: pastOf(closed, ledgers, cards) };
	learnt.set(head.id, { past: fold.accounts.past, fold, raw: frozen, answer });
	return answer;
}
