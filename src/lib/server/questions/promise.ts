import { fsum } from 'd3-array';
import type { BoardHead } from '../../../core/pages/board.ts';
import { parseDay } from '../../../core/calendar/days.ts';
import type { Day } from '../../../core/calendar/zone.ts';
import { givesFrom, rawHours, sprintDays, type Rota } from '../../../core/capacity/hours.ts';
import { PERSON_DAY, type Learned } from '../../../core/capacity/promise.ts';

/** The days of a sprint of a board, cut where the next one starts. */
export function daysOf(head: Pick<BoardHead, 'sprints'>, number: number): { from: Day; to: Day } | null {
	const sprint = head.sprints.find((known) => known.number === number);
	if (!sprint) return null;
	const dates = (one: { starts: string; ends: string }) => ({
		starts: parseDay(one.starts)!,
		ends: parseDay(one.ends)!,
	});
	return sprintDays(dates(sprint), head.sprints.map(dates));
}

/** The leads and members who are in the team. */
export const workersOf = (head: Pick<BoardHead, 'people'>) =>
	head.people.filter((person) => !person.gone && person.role !== 'viewer');

/** Hours that all people of a board have for a sprint, those that are gone left out; null where there is no such sprint. */
export function rawOf(head: BoardHead, rota: Rota, number: number, today: Day): number | null {
	const days = daysOf(head, number);
	if (!days) return null;
	const from = givesFrom(days, today);
	return fsum(workersOf(head), (person) => rawHours(rota, person.id, head.id, from, days.to));
}

/** What so many hours of a sprint promise, in the board's unit; null where nothing says. */
export function promiseOf(head: BoardHead, number: number, learned: Learned, raw: number): number | null {
	const sprint = head.sprints.find((known) => known.number === number);
	if (head.unit === 'points') return learned.perDay === null ? null : (learned.perDay * raw) / PERSON_DAY;
	const focus = sprint?.focus ?? learned.focus;
	return raw * focus * (1 - (sprint?.keepBack ?? learned.keepBack));
}

/**
 * The team's hours on each day of a sprint of a board, as known at its start; for days beyond that, and for sprints from
 * before it was kept, as the rota has them now.
 */
export function dayHoursOf(
	head: BoardHead,
	rota: Rota,
	number: number,
): { from: Day; to: Day; hours: number[] } {
	const sprint = head.sprints.find((known) => known.number === number)!;
	const { from, to } = daysOf(head, number)!;
	const hours = Array.from(
		{ length: to - from + 1 },
		(_, i) =>
			sprint.dayHours?.[i] ??
			fsum(workersOf(head), (one) => rawHours(rota, one.id, head.id, from + i, from + i)),
	);
	return { from, to, hours };
}
