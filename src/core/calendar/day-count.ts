import type { Day } from './zone.ts';

/** Counts the days from one date to another, both included. */
export type DayCount = (from: Day, to: Day) => number;

/** Every day counts. Source: the trade's usual cycle time, finish date − start date + 1. */
export const calendarDays: DayCount = (from, to) => to - from + 1;

/**
 * Only working days count, and never fewer than 1: a card that was started and finished on a Saturday took a day.
 * @param works whether the team works on a date
 */
export function workingDays(works: (day: Day) => boolean): DayCount {
	return (from, to) => {
		let n = 0;
		for (let day = from; day <= to; day++) if (works(day)) n++;
		return Math.max(1, n);
	};
}
