import { tidy } from '../sums.ts';
import { validOn, weekHours, type TeamDays } from '../calendar/team-days.ts';
import type { Day } from '../calendar/zone.ts';

/** Days away, both included; so many hours of each of them, or all (null). */
export interface Absence {
	person: string;
	from: Day;
	to: Day;
	hours: number | null;
}

/** How a person's hours are shared between boards, from a day on: a share of each board, together at most 1. */
export interface Shares {
	person: string;
	from: Day;
	boards: Readonly<Record<string, number>>;
}

/** Everything that says how long the people of a team work. */
export interface Rota extends TeamDays {
	/** The team's boards: where no shares are set, a person's hours are shared equally between them. */
	boards: readonly string[];
	absences: readonly Absence[];
	shares: readonly Shares[];
}

/**
 * Hours a person works on a day: the working week on that weekday less the absence hours of that day, never below 0;
 * 0 on a holiday, and on days when they were not in the team. Days are calendar dates, so a change of the clocks changes nothing.
 */
export function hoursOn(rota: Rota, person: string, day: Day): number {
	if (rota.holidays.has(day)) return 0;
	let hours = weekHours(rota, person, day);
	for (const absence of rota.absences)
		if (absence.person === person && absence.from <= day && day <= absence.to)
			hours -= absence.hours ?? hours;
	return Math.max(0, hours);
}

/** The share of a person's hours that a board gets on a day, 0 to 1. Without shares set, all boards get the same. */
export function shareOn(rota: Rota, person: string, board: string, day: Day): number {
	const set = validOn(rota.shares, person, day);
	if (set) return set.boards[board] ?? 0;
	return rota.boards.includes(board) ? 1 / rota.boards.length : 0;
}

/** Hours a person has for a board from one day to another, both included, before focus and keep-back. */
export function rawHours(rota: Rota, person: string, board: string, from: Day, to: Day): number {
	let sum = 0;
	for (let day = from; day <= to; day++) {
		const hours = hoursOn(rota, person, day);
		if (hours) sum += hours * shareOn(rota, person, board, day);
	}
	return tidy(sum);
}

/** Days on which a person would work but is away the whole day, from one day to another. */
export function daysAway(rota: Rota, person: string, from: Day, to: Day): Day[] {
	const away: Day[] = [];
	for (let day = from; day <= to; day++)
		if (!rota.holidays.has(day) && weekHours(rota, person, day) > 0 && hoursOn(rota, person, day) === 0)
			away.push(day);
	return away;
}

/** The days of a sprint: from its start to its end, or to the day before the next sprint starts where that is earlier. */
export function sprintDays(
	sprint: { starts: Day; ends: Day },
	later: readonly { starts: Day }[],
): { from: Day; to: Day } {
	const next = Math.min(Infinity, ...later.map((other) => other.starts).filter((s) => s > sprint.starts));
	return { from: sprint.starts, to: Math.min(sprint.ends, next - 1) };
}

/**
 * From which day on a sprint has hours to give: from its first, and from today on once today is past that, started or not.
 * Hours that are gone cannot be given.
 */
export function givesFrom(days: { from: Day }, today: Day): Day {
	return Math.max(days.from, today);
}
