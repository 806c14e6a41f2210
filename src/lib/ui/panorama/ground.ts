import { parseDay } from '$core/calendar/days';
import type { Day } from '$core/calendar/zone';
import type { PanoramaPage } from '$core/pages/panorama';
import type { Across, Lie } from './scale';

/** So far beyond what is seen days are drawn as well, in pixels. */
const BEYOND = 300;

/** A milestone, where its flag stands, and on which line. */
export interface Flag {
	one: PanoramaPage['milestones'][number];
	x: number;
	line: number;
}

/** The flags of milestones: those whose words would lie on one another stand on lines of their own. */
export function flagsOf(milestones: PanoramaPage['milestones'], across: Across, lie: Lie): Flag[] {
	const ends: number[] = [];
	return milestones
		.filter(({ day }) => parseDay(day)! >= across.start)
		.map((one) => {
			const x = lie.left(parseDay(one.day)!);
			let line = ends.findIndex((end) => end < x);
			if (line < 0) line = Math.min(ends.length, 1);
			ends[line] = x + one.name.length * 6.6 + 26;
			return { one, x, line };
		});
}

/** Days one after the other on which nobody works; named, where all of them are holidays. */
export interface Closed {
	day: Day;
	days: number;
	name: string;
}

/** Days near what is seen on which nobody works: holidays always, the others where `each` day is wide enough. */
export function closedDays(
	holidays: PanoramaPage['holidays'],
	works: (day: Day) => boolean,
	across: Across,
	seen: { left: number; wide: number },
	each: boolean,
): Closed[] {
	const from = Math.max(across.start, across.start + Math.floor((seen.left - BEYOND) / across.wide));
	const to = Math.min(across.start + across.days, from + Math.ceil((seen.wide + 2 * BEYOND) / across.wide));
	const named = new Map(holidays.map(({ day, name }) => [parseDay(day)!, name]));
	const bands: Closed[] = [];
	for (let day = from; day < to; day++) {
		const name = named.get(day) ?? '';
		if (!name && (!each || works(day))) continue;
		const last = bands.at(-1);
		if (last && last.day + last.days === day && (last.name !== '') === (name !== '')) last.days++;
		else bands.push({ day, days: 1, name });
	}
	return bands;
}
