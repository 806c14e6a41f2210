import { HOUR_MS, type Instant, type Zone } from '../calendar/zone.ts';

/** A timer that has run for longer than this was forgotten. */
const LONGEST_HOURS = 10;
const MINUTE_MS = 60_000;

/** Hours that a timer has run, to a hundredth; under a minute it has not run. */
export function timerHours(from: Instant, at: Instant): number {
	if (at - from < MINUTE_MS) return 0;
	return Math.round(((at - from) / HOUR_MS) * 100) / 100;
}

/** Whether a timer was left on: it runs for over 10 hours, or since before the midnight of its team. */
export function leftOn(zone: Zone, from: Instant, at: Instant): boolean {
	return at - from > LONGEST_HOURS * HOUR_MS || zone.day(at) > zone.day(from);
}
