import { addMonths, format, parseISO, startOfMonth } from 'date-fns';
import { dayText, mondayOf, parseDay } from '$core/calendar/days';
import type { Day } from '$core/calendar/zone';
import { SCALES, type Scale } from '$core/panorama/asked';
import type { Span } from '$core/panorama/rows';

/** Where days lie across the picture. */
export interface Across {
	start: Day;
	days: number;
	/** Pixels a day. */
	wide: number;
	/** The left edge of a day. */
	x(day: Day): number;
}

export function acrossOf({ start, end }: Span, by: Scale): Across {
	const wide = SCALES[by];
	return { start, days: end - start + 1, wide, x: (day) => (day - start) * wide };
}

/** The lines of a ruler with their words: weeks while they are wide enough for them, months else. */
export function ticksOf(
	{ start, days }: Pick<Across, 'start' | 'days'>,
	by: Scale,
): { day: Day; words: string }[] {
	const ticks: { day: Day; words: string }[] = [];
	const end = start + days;
	if (by === 'months') {
		for (let at = startOfMonth(parseISO(dayText(start))); ; at = addMonths(at, 1)) {
			const day = parseDay(format(at, 'yyyy-MM-dd'))!;
			if (day >= end) return ticks;
			if (day >= start) ticks.push({ day, words: format(at, at.getMonth() ? 'MMM' : 'MMM yyyy') });
		}
	}
	for (let day = mondayOf(start) + 7; day < end; day += 7)
		ticks.push({ day, words: format(parseISO(dayText(day)), by === 'days' ? 'EEE d MMM' : 'd MMM') });
	// At ten pixels a day every second Monday has room for its words.
	return by === 'days' ? ticks : ticks.filter((_, i) => i % 2 === 0);
}
