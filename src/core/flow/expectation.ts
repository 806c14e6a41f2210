import { calendarDays, type DayCount } from '../calendar/day-count.ts';
import type { Instant, Zone } from '../calendar/zone.ts';
import type { Lifetime } from './lifetime.ts';
import { percentile } from './percentile.ts';
import { cycleDays } from './times.ts';

/** What past cards say about how long a card takes: half took at most `median` days, the percentile at most `days`. */
export interface Expectation {
	n: number;
	median: number;
	days: number;
	percentile: number;
}

export const WINDOW_DAYS = 90;
const ENOUGH = 10;

/**
 * The service level expectation from the days that cards took which were finished on the 90 days up to and with the
 * as-of day. Null with fewer than 10.
 */
export function expectationOf(took: readonly number[], p = 85): Expectation | null {
	if (took.length < ENOUGH) return null;
	const sorted = [...took].sort((a, b) => a - b);
	return { n: sorted.length, median: percentile(sorted, 50)!, days: percentile(sorted, p)!, percentile: p };
}

/** The service level expectation of a board at an instant; null with fewer than 10 finished cards in its 90 days. */
export function expectation(
	lives: readonly Lifetime[],
	zone: Zone,
	asOf: Instant,
	p = 85,
	count: DayCount = calendarDays,
): Expectation | null {
	const last = zone.day(asOf);
	const took: number[] = [];
	for (const life of lives) {
		if (life.state !== 'done' || life.finished === null) continue;
		const day = zone.day(life.finished);
		if (day > last - WINDOW_DAYS && day <= last) took.push(cycleDays(life, zone, count)!);
	}
	return expectationOf(took, p);
}
