import { LRUCache } from 'lru-cache';
import type { BoardHead, Segment } from '../../../core/pages/board.ts';
import { ribbonOfSprints, ribbonOfWeeks } from '../../../core/board/ribbon.ts';
import { teamWorks } from '../../../core/calendar/team-days.ts';
import { workdaysOf, type Workdays } from '../../../core/calendar/workdays.ts';
import { now } from '../time.ts';
import { boardFold } from './fold.ts';
import { boardFile } from './history.ts';
import { boardPast } from './past.ts';
import { dayHoursOf, promiseOf, rawOf } from './promise.ts';
import { rotaOf } from './rota.ts';

export interface Ribbon {
	segments: Segment[];
	carried: Record<number, number>;
	/** On which days the team works, from a year ago to two years ahead. */
	workdays: Workdays;
}

/** Ribbons drawn already: they stand until something happens on the board, or the day is over. */
const drawn = new LRUCache<string, { seq: number; day: number; ribbon: Ribbon }>({ max: 200 });

/** The ribbon of a board, and how often each card that is open or was in its last sprints was carried. */
export async function ribbon(head: BoardHead): Promise<Ribbon> {
	const at = now().getTime();
	const board = boardFile(head);
	const day = board.zone.day(at);
	const known = drawn.get(head.id);
	if (known && known.seq === head.seq && known.day === day) return known.ribbon;
	const carried: Record<number, number> = {};
	const rota = await rotaOf(head.teamId);
	let segments: Segment[];
	if (head.sprintDays === null) segments = ribbonOfWeeks(board, (await boardFold(head)).flow, at);
	else {
		const { learned } = await boardPast(head);
		const { accounts } = await boardFold(head);
		const promise = (number: number) => {
			const raw = rawOf(head, rota, number, day);
			return raw === null ? null : promiseOf(head, number, learned, raw);
		};
		const hours = (number: number) => dayHoursOf(head, rota, number);
		segments = ribbonOfSprints(board, head.sprints, accounts, at, promise, hours, learned.delivered);
		for (const { card, carried: times } of accounts.carried())
			carried[Number(card.slice(head.key.length + 1))] = times;
	}
	const works = (on: number) => teamWorks(rota, on);
	// Days before anybody's first are told by the weekdays too.
	let from = day - 370;
	while (from < day && !works(from)) from++;
	const workdays = workdaysOf(works, from, day + 740);
	const ribbon = { segments, carried, workdays };
	drawn.set(head.id, { seq: head.seq, day, ribbon });
	return ribbon;
}
