import type { BoardHead } from '../../../core/board/view.ts';
import type { Past } from '../../../core/capacity/odds.ts';
import { closedSprints, pastOf } from '../../../core/capacity/past.ts';
import { learn, type ClosedSprint, type Learned } from '../../../core/capacity/promise.ts';
import { now } from '../time.ts';
import { boardAccounts, boardFile, boardHistory } from './history.ts';

export interface BoardPast {
	closed: ClosedSprint[];
	learned: Learned;
	past: Past;
}

const read = new Map<string, { seq: number; past: BoardPast }>();
const BOARDS_KEPT = 30;

/** What the closed sprints of a board taught it: focus, keep-back, velocity, and how cards turn out. */
export async function boardPast(head: BoardHead): Promise<BoardPast> {
	const known = read.get(head.id);
	if (known?.seq === head.seq) return known.past;
	const file = boardFile(head);
	const at = now().getTime();
	const events = await boardHistory(head);
	const { ledgers } = await boardAccounts(head);
	const raw = new Map(head.sprints.map((sprint) => [sprint.number, sprint.raw ?? 0]));
	const closed = closedSprints(file, ledgers, raw, at);
	const past = { closed, learned: learn(closed), past: pastOf(closed, ledgers, events) };
	read.delete(head.id);
	read.set(head.id, { seq: head.seq, past });
	for (const oldest of read.keys()) if (read.size > BOARDS_KEPT) read.delete(oldest);
	return past;
}
