import type { Day } from '../calendar/zone.ts';

/** Working days from a day up to another, the first not counted; 0 when it is that day, or past it. */
export function workdaysUntil(works: (day: Day) => boolean, from: Day, to: Day): number {
	let days = 0;
	for (let day = from + 1; day <= to; day++) if (works(day)) days++;
	return days;
}

/**
 * Whether somebody is to be told today that a day is near: from so many working days before it on, and on the day itself.
 * @param works whether the team works on a day
 */
export const isNear = (works: (day: Day) => boolean, today: Day, day: Day, before: number): boolean =>
	today <= day && workdaysUntil(works, today, day) <= before;
