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

/** Where days lie in the picture, in pixels, right of the names of its rows. */
export interface Lie {
	/** The left edge of a day. */
	left(day: Day): number;
	/** How wide a span of days is drawn: never so narrow that it is not seen. */
	wide(start: Day, end: Day): number;
}

/** @param label how wide the names of the rows are */
export function lieOf({ x, wide }: Pick<Across, 'x' | 'wide'>, label: number): Lie {
	return {
		left: (day) => label + x(day),
		wide: (start, end) => Math.max(8, (end - start + 1) * wide - 1),
	};
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

/** An arrow from the end of one bar to the beginning of another, as SVG draws it. */
export function arrowFrom([x1, y1]: Point, [x2, y2]: Point): string {
	const bend = Math.max(x1 + 6, Math.min(x2 - 8, x1 + 10));
	return x2 - 6 >= bend
		? `M${x1} ${y1}H${bend}V${y2}H${x2 - 1}`
		: `M${x1} ${y1}h6V${(y1 + y2) / 2}H${x2 - 8}V${y2}h7`;
}

type Point = readonly [x: number, y: number];
