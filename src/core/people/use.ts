import { fsum } from 'd3-array';
import { mondayOf } from '../calendar/days.ts';
import type { Day } from '../calendar/zone.ts';
import { hoursOn, type Rota } from '../capacity/hours.ts';
import { tidy } from '../sums.ts';

/** Over and under: so much more, or less, of the hours of a time than there were. */
export const OVER = 1;
export const UNDER = 0.7;

/** Days that are looked at together, both counted. */
export interface Stretch {
	from: Day;
	to: Day;
}

/** How much of somebody's hours was worked in a stretch of days; null where they had none. */
export interface Used {
	worked: number;
	hours: number;
	use: number | null;
}

/** Somebody's use of several stretches, and of all of them together. */
export interface PersonUse {
	person: string;
	each: Used[];
	all: Used;
}

/**
 * Use of people: worked ÷ the hours of their weeks less absences and holidays, on days on which they were in the team; the
 * same as in the account. Source: measures, time and money.
 */
export function useOfPeople(
	rota: Rota,
	people: readonly string[],
	worked: readonly { person: string; day: Day; hours: number }[],
	stretches: readonly Stretch[],
): PersonUse[] {
	return people.map((person) => {
		const own = worked.filter((one) => one.person === person);
		const each = stretches.map(({ from, to }): Used => {
			let hours = 0;
			for (let day = from; day <= to; day++) hours += hoursOn(rota, person, day);
			const sum = fsum(own, (one) => (one.day >= from && one.day <= to ? one.hours : 0));
			return used(sum, hours);
		});
		const total = (of: (one: Used) => number) => fsum(each, of);
		return {
			person,
			each,
			all: used(
				total((one) => one.worked),
				total((one) => one.hours),
			),
		};
	});
}

const used = (worked: number, hours: number): Used => ({
	worked: tidy(worked),
	hours: tidy(hours),
	use: hours > 0 ? worked / hours : null,
});

/** The last whole weeks before the one of a day, the earliest first. */
export function weeksBefore(day: Day, count: number): Stretch[] {
	const monday = mondayOf(day);
	return Array.from({ length: count }, (_, i) => {
		const from = monday - 7 * (count - i);
		return { from, to: from + 6 };
	});
}
