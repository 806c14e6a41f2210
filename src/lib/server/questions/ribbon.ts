import { setTimeout as passed } from 'node:timers/promises';
import { LRUCache } from 'lru-cache';
import type { BoardHead, Segment } from '../../../core/pages/board.ts';
import { ribbonOfSprints, ribbonOfWeeks } from '../../../core/board/ribbon.ts';
import { teamWorks } from '../../../core/calendar/team-days.ts';
import { workdaysOf, type Workdays } from '../../../core/calendar/workdays.ts';
import type { Day, Instant } from '../../../core/calendar/zone.ts';
import type { Rota } from '../../../core/capacity/hours.ts';
import { now } from '../time.ts';
import { boardFold } from './fold.ts';
import { boardFile } from './history.ts';
import { boardPast } from './past.ts';
import { dayHoursOf, promiseOf, rawOf } from './promise.ts';
import { rotaOf } from './rota.ts';

export interface Ribbon {
	segments: Segment[];
	carried: Record<number, number>;
}

/** A board in time. */
export interface BoardTime {
	/** On which days the team works, from a year ago to two years ahead. */
	workdays: Workdays;
	/** Where it takes long, as a long history is read the first time, it comes after the page. */
	ribbon: Ribbon | Promise<Ribbon>;
}

/** What was drawn already: it stands until something happens on the board, or the day is over. */
const drawn = new LRUCache<string, { seq: number; day: Day; time: BoardTime }>({ max: 200 });

/** So long a page waits for its ribbon. */
const PATIENCE_MS = 150;

/** On which days the team of a board works, and the board's ribbon. */
export async function boardTime(head: BoardHead): Promise<BoardTime> {
	const at = now().getTime();
	const day = boardFile(head).zone.day(at);
	const known = drawn.get(head.id);
	if (known && known.seq === head.seq && known.day === day) return known.time;
	// Read meanwhile: the ribbon is drawn from it.
	boardFold(head).catch(() => undefined);
	const rota = await rotaOf(head.teamId);
	const workdays = workdaysAround(rota, day);
	const drawing = ribbonOf(head, rota, at).then((ribbon) => {
		drawn.set(head.id, { seq: head.seq, day, time: { workdays, ribbon } });
		return ribbon;
	});
	const done = new AbortController();
	const soon = await Promise.race([
		drawing,
		passed(PATIENCE_MS, undefined, { signal: done.signal }).catch(() => undefined),
	]).finally(() => done.abort());
	// Whoever it comes to says that it could not be read.
	drawing.catch(() => undefined);
	return { workdays, ribbon: soon ?? drawing };
}

/** The ribbon of a board, and how often each card that is open or was in its last sprints was carried. */
async function ribbonOf(head: BoardHead, rota: Rota, at: Instant): Promise<Ribbon> {
	const board = boardFile(head);
	const day = board.zone.day(at);
	const carried: Record<number, number> = {};
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
	return { segments, carried };
}

const around = new WeakMap<Rota, { day: Day; workdays: Workdays }>();

function workdaysAround(rota: Rota, day: Day): Workdays {
	const known = around.get(rota);
	if (known?.day === day) return known.workdays;
	const works = (on: Day) => teamWorks(rota, on);
	// Days before anybody's first are told by the weekdays too.
	let from = day - 370;
	while (from < day && !works(from)) from++;
	const workdays = workdaysOf(works, from, day + 740);
	around.set(rota, { day, workdays });
	return workdays;
}
