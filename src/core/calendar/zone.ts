import { tzOffset } from '@date-fns/tz';

/** Milliseconds since 1970-01-01T00:00Z. */
export type Instant = number;
/** A calendar date, as whole days since 1970-01-01. */
export type Day = number;

export const DAY_MS = 86_400_000;
export const HOUR_MS = 3_600_000;
const QUARTER_MS = 900_000;

/** The calendar of one IANA time zone. */
export interface Zone {
	name: string;
	/** The calendar date of an instant there. */
	day(at: Instant): Day;
	/** The first instant of a date there; the day before ends at it. Days of 23 and 25 hours come out right. */
	startOf(day: Day): Instant;
}

const zones = new Map<string, Zone>();

/** Whether the name is an IANA time zone that this machine knows. */
export function isZone(name: string): boolean {
	try {
		new Intl.DateTimeFormat('en', { timeZone: name });
		return name.length > 0;
	} catch {
		return false;
	}
}

/**
 * The calendar of an IANA time zone. Offsets are looked up once a UTC day, and once a quarter of an hour on
 * the days on which the clocks change.
 * @throws RangeError when the name is not an IANA time zone.
 */
export function zoneOf(name: string): Zone {
	const known = zones.get(name);
	if (known) return known;
	if (!isZone(name)) throw new RangeError(`"${name}" is not a time zone`);
	const whole = new Map<number, number | null>();
	const quarters = new Map<number, number>();
	const lookUp = (at: Instant) => Math.round(tzOffset(name, new Date(at)) * 60_000);

	function offset(at: Instant): number {
		const utcDay = Math.floor(at / DAY_MS);
		let same = whole.get(utcDay);
		if (same === undefined) {
			const first = lookUp(utcDay * DAY_MS);
			same = first === lookUp((utcDay + 1) * DAY_MS) ? first : null;
			whole.set(utcDay, same);
		}
		if (same !== null) return same;
		const quarter = Math.floor(at / QUARTER_MS);
		let found = quarters.get(quarter);
		if (found === undefined) quarters.set(quarter, (found = lookUp(quarter * QUARTER_MS)));
		return found;
	}

	const day = (at: Instant) => Math.floor((at + offset(at)) / DAY_MS);

	const zone: Zone = {
		name,
		day,
		startOf(date) {
			// The first instant whose date is not before the one asked for: dates never run backwards.
			let low = date * DAY_MS - 15 * HOUR_MS;
			let high = date * DAY_MS + 15 * HOUR_MS;
			while (low < high) {
				const middle = Math.floor((low + high) / 2);
				if (day(middle) >= date) high = middle;
				else low = middle + 1;
			}
			return low;
		},
	};
	zones.set(name, zone);
	return zone;
}
