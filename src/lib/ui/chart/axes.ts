import { scaleLinear, scaleUtc, type ScaleLinear, type ScaleTime } from 'd3-scale';
import { utcDay, utcMonday, utcMonth } from 'd3-time';
import { utcFormat } from 'd3-time-format';
import { parseDay } from '$core/calendar/days';
import { DAY_MS } from '$core/calendar/zone';

/** Room around every chart that shares the time axis; labels of lines and bands stand in the right margin. */
export const MARGIN = { left: 38, right: 112 };

/** The shared time axis: from the beginning of the first day to the end of the last. */
export function timeScale(from: string, to: string, width: number): ScaleTime<number, number> {
	const right = width < 560 ? 12 : MARGIN.right;
	return scaleUtc(
		[new Date(parseDay(from)! * DAY_MS), new Date((parseDay(to)! + 1) * DAY_MS)],
		[MARGIN.left, Math.max(MARGIN.left + 10, width - right)],
	);
}

/** Ticks of the time axis, as many as there is room for. */
export function timeTicks(x: ScaleTime<number, number>): { x: number; text: string }[] {
	const [from, to] = x.domain() as [Date, Date];
	const days = (to.getTime() - from.getTime()) / DAY_MS;
	const room = (x.range()[1]! - x.range()[0]!) / 64;
	const every =
		days > 75
			? utcMonth.every(Math.max(1, Math.ceil(days / 30 / room)))!
			: days > 16
				? utcMonday.every(Math.max(1, Math.ceil(days / 7 / room)))!
				: utcDay.every(Math.max(1, Math.ceil(days / room)))!;
	const text = utcFormat(days > 75 ? '%b' : '%-d %b');
	return every.range(from, to).map((at) => ({ x: x(at), text: text(at) }));
}

/** A scale of counts or days from 0 to a round figure. */
export function countScale(most: number, height: number, top = 8): ScaleLinear<number, number> {
	return scaleLinear([0, Math.max(1, most)], [height, top]).nice(5);
}

/** Whole-number ticks. */
export function countTicks(y: ScaleLinear<number, number>, n = 4): number[] {
	return y.ticks(n).filter(Number.isInteger);
}
