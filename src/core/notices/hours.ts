import type { Day, Instant, Zone } from '../calendar/zone.ts';
import { HOUR_MS } from '../calendar/zone.ts';

/** When the daily digest comes where nobody chose an hour. */
export const USUAL_DIGEST = 8;

/** The first instant of a day in a zone at which the clock there shows an hour, or a later one where it is skipped. */
export function hourOf(zone: Zone, day: Day, hour: number): Instant {
	const begins = zone.startOf(day);
	// An hour that the clocks skip or repeat: the wall clock tells.
	let at = begins + hour * HOUR_MS;
	const shown = (instant: Instant) => wallHour(zone, instant);
	while (zone.day(at) === day && shown(at) > hour) at -= HOUR_MS;
	while (zone.day(at) === day && shown(at) < hour) at += HOUR_MS;
	return at;
}

/** The hour that the clock shows in a zone, 0 to 23. */
export function wallHour(zone: Zone, at: Instant): number {
	return Number(
		new Intl.DateTimeFormat('en-GB', { hour: '2-digit', hourCycle: 'h23', timeZone: zone.name }).format(at),
	);
}

/**
 * Until when somebody is left in peace; null when that is not now.
 * @param quiet from which hour to which, where they are; over midnight where the first is the later one
 */
export function quietUntil(
	quiet: readonly [number, number] | null | undefined,
	zone: Zone,
	at: Instant,
): Instant | null {
	if (!quiet || quiet[0] === quiet[1]) return null;
	const [from, to] = quiet;
	const hour = wallHour(zone, at);
	const within = from < to ? hour >= from && hour < to : hour >= from || hour < to;
	if (!within) return null;
	const day = zone.day(at);
	return hourOf(zone, hour < to ? day : day + 1, to);
}

/** The day for which a digest is to be made now; null where its hour has not come, or it was made. */
export function digestDay(hour: number, zone: Zone, at: Instant, last: Day | null): Day | null {
	const day = zone.day(at);
	if (last !== null && last >= day) return null;
	return at >= hourOf(zone, day, hour) ? day : null;
}
