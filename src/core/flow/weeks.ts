import { mondayOf, weekText } from '../calendar/days.ts';
import type { Day } from '../calendar/zone.ts';

/** Cards finished in one ISO week, named like `2026-W31`; monday is its first day. */
export interface WeekCount {
	week: string;
	monday: Day;
	finished: number;
}

/**
 * Throughput by whole ISO weeks that lie inside from…to and ended before the as-of day, weeks with nothing included.
 * @param finished how many were finished on each day on which any was
 */
export function finishedByWeek(
	finished: Iterable<readonly [Day, number]>,
	from: Day,
	to: Day,
	today: Day,
): WeekCount[] {
	const weeks: WeekCount[] = [];
	const first = mondayOf(from) === from ? from : mondayOf(from) + 7;
	for (let monday = first; monday + 6 <= to && monday + 6 < today; monday += 7)
		weeks.push({ week: weekText(monday), monday, finished: 0 });
	for (const [day, cards] of finished) {
		const week = weeks[Math.floor((day - first) / 7)];
		if (week && day >= first) week.finished += cards;
	}
	return weeks;
}
