import type { BoardHead, Segment } from '../../../core/board/view.ts';
import { ribbonOfSprints, ribbonOfWeeks } from '../../../core/board/ribbon.ts';
import { now } from '../time.ts';
import { boardAccounts, boardFile, boardHistory } from './history.ts';
import { boardPast } from './past.ts';
import { dayHoursOf, promiseOf, rawOf } from './promise.ts';
import { rotaOf } from './rota.ts';

export interface Ribbon {
	segments: Segment[];
	carried: Record<number, number>;
}

const drawn = new Map<string, { seq: number; day: number; ribbon: Ribbon }>();

/** The ribbon of a board, and how often each card was carried. */
export async function ribbon(head: BoardHead): Promise<Ribbon> {
	const at = now().getTime();
	const board = boardFile(head);
	const day = board.zone.day(at);
	const known = drawn.get(head.id);
	if (known && known.seq === head.seq && known.day === day) return known.ribbon;
	const events = await boardHistory(head);
	const carried: Record<number, number> = {};
	let segments: Segment[];
	if (head.sprintDays === null) segments = ribbonOfWeeks(board, events, at);
	else {
		const { ledgers, cards } = await boardAccounts(head);
		const [{ learned }, rota] = await Promise.all([boardPast(head), rotaOf(head.teamId)]);
		const promise = (number: number) => {
			const raw = rawOf(head, rota, number, day);
			return raw === null ? null : promiseOf(head, number, learned, raw);
		};
		const hours = (number: number) => dayHoursOf(head, rota, number);
		segments = ribbonOfSprints(board, head.sprints, ledgers, cards, at, promise, hours, learned.delivered);
		for (const { stints } of ledgers)
			for (const { card, outcome } of stints) {
				const number = Number(card.slice(head.key.length + 1));
				if (outcome === 'carried') carried[number] = (carried[number] ?? 0) + 1;
			}
	}
	const ribbon = { segments, carried };
	drawn.set(head.id, { seq: head.seq, day, ribbon });
	return ribbon;
}
