import { dayText, parseDay, weekday } from './days.ts';
import type { Day } from './zone.ts';

/** On which days a team works, as pages are told of it: on these weekdays, Monday first, but for some days. */
export interface Workdays {
	week: boolean[];
	/** Days on which it is the other way round, `2026-12-25`. */
	but: string[];
}

/**
 * On which days a team works, from one day to another, told by the weekdays on which it mostly does.
 * @param works as `teamWorks` has it
 */
export function workdaysOf(works: (day: Day) => boolean, from: Day, to: Day): Workdays {
	const counts = Array.from({ length: 7 }, () => 0);
	const worked: boolean[] = [];
	for (let day = from; day <= to; day++) {
		worked.push(works(day));
		counts[weekday(day)]! += worked.at(-1) ? 1 : -1;
	}
	const week = counts.map((count) => count > 0);
	const others = worked.flatMap((one, i) => (one === week[weekday(from + i)] ? [] : [dayText(from + i)]));
	return { week, but: others };
}

/** Whether the team works on a day. */
export function worksOn({ week, but }: Workdays): (day: Day) => boolean {
	const others = new Set(but.map((text) => parseDay(text)));
	return (day) => week[weekday(day)]! !== others.has(day);
}

/** Days that are looked through for one on which somebody works: beyond it nobody ever does. */
const FAR = 3660;

/** How many working days lie from one day to another, both counted; at least 1. Source: measures, dates and dependencies. */
export function lengthOf(works: (day: Day) => boolean, start: Day, due: Day): number {
	let days = 0;
	for (let day = start; day <= due; day++) if (works(day)) days++;
	return Math.max(1, days);
}

/** The day on which something ends that begins on a day and takes so many working days; null where nobody works long enough. */
export function dueAfter(works: (day: Day) => boolean, start: Day, length: number): Day | null {
	let days = 0;
	for (let day = start; day < start + FAR; day++) {
		if (works(day)) days++;
		if (days >= length) return day;
	}
	return null;
}

/** Monday to Friday: what is gone by where nothing is known of a team. */
export const ORDINARY = (day: Day): boolean => weekday(day) < 5;
