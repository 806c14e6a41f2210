import type { Day } from '../calendar/zone.ts';

/** Something that must be done before a milestone, and when it will be; null where nothing says. */
export interface Before {
	what: string;
	done: boolean;
	end: Day | null;
}

/**
 * What will not be done before a milestone, and how many days after it: its end lies after that day, or it is not done
 * though the day has passed. What is not done ends today at the earliest.
 */
export function lateFor(day: Day, today: Day, before: readonly Before[]): { what: string; days: number }[] {
	return before.flatMap(({ what, done, end }) => {
		const days = Math.max(end ?? today, today) - day;
		return done || days <= 0 ? [] : [{ what, days }];
	});
}
