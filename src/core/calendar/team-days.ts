import { weekday } from './days.ts';
import type { Day } from './zone.ts';

/** Hours on each weekday, Monday first, from a day on. */
export interface WorkingWeek {
	person: string;
	from: Day;
	hours: readonly number[];
}

/** Days on which a person was in the team: from one on, and up to the day before another; null: they still are. */
export interface Membership {
	person: string;
	from: Day;
	until: Day | null;
}

/** On which days, and how long, the people of a team work when nobody is away. */
export interface TeamDays {
	weeks: readonly WorkingWeek[];
	members: readonly Membership[];
	holidays: ReadonlySet<Day>;
}

/** What is valid on a day: the latest that begins on or before it. */
export function validOn<T extends { person: string; from: Day }>(
	list: readonly T[],
	person: string,
	day: Day,
): T | null {
	let best: T | null = null;
	for (const item of list)
		if (item.person === person && item.from <= day && (!best || item.from >= best.from)) best = item;
	return best;
}

/** Whether a person was in the team on a day. */
export function isMember(team: Pick<TeamDays, 'members'>, person: string, day: Day): boolean {
	return team.members.some(
		(spell) => spell.person === person && spell.from <= day && (spell.until === null || day < spell.until),
	);
}

/** Hours of a person's working week on a day, whoever is away; none on days when they were not in the team. */
export function weekHours(team: Pick<TeamDays, 'weeks' | 'members'>, person: string, day: Day): number {
	const hours = validOn(team.weeks, person, day)?.hours[weekday(day)] ?? 0;
	return hours > 0 && isMember(team, person, day) ? hours : 0;
}

/**
 * Whether the team works on a day: the working weeks of those who were in it then have hours, and it is no holiday. Who is
 * away makes no difference. Every place that speaks of working days means these: ribbon, rounds, cadence, flow and use.
 */
export function teamWorks(team: TeamDays, day: Day): boolean {
	return !team.holidays.has(day) && team.weeks.some(({ person }) => weekHours(team, person, day) > 0);
}
