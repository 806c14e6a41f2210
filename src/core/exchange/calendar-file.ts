import ICAL from 'ical.js';
import type { Day, Zone } from '../calendar/zone.ts';
import { HOUR_MS } from '../calendar/zone.ts';

/** Days away that a calendar file names: an entry of it, or one turn of an entry that repeats. */
export interface CalendarDays {
	/** The entry's own name in its file, so that reading the file again changes it instead of doubling it. */
	uid: string;
	from: Day;
	to: Day;
	/** Hours on each of the days; null: the whole day. */
	hours: number | null;
	note: string;
}

const MOST_TURNS = 500;
const AHEAD_DAYS = 800;
const MOST_DAYS = 5000;

/**
 * Reads the entries of an iCalendar file (RFC 5545) as days away. Whole-day entries are whole days; entries with times
 * are so many hours of the days they touch, in the team's time zone. What is cancelled or marked as free time is left
 * out. Entries that repeat are followed for a little over two years. A rule that no day ever meets can go on for ever:
 * files from people are read where that can be stopped.
 * @param today entries that ended more than a year before it are left out
 */
export function readCalendar(
	text: string,
	zone: Zone,
	today: Day,
): { ok: true; days: CalendarDays[] } | { ok: false; reason: string } {
	if (!/^\uFEFF?\s*BEGIN:VCALENDAR/i.test(text))
		return { ok: false, reason: 'This is not an iCalendar file: it does not begin with BEGIN:VCALENDAR.' };
	let root: ICAL.Component;
	try {
		root = new ICAL.Component(ICAL.parse(text.replace(/^\uFEFF/, '').trim()) as unknown[]);
	} catch (error) {
		return { ok: false, reason: `This iCalendar file cannot be read: ${(error as Error).message}.` };
	}
	const days: CalendarDays[] = [];
	try {
		for (const component of root.getAllSubcomponents('vevent')) {
			const text = (name: string) => String(component.getFirstPropertyValue(name) ?? '');
			if (/^cancelled$/i.test(text('status')) || /^transparent$/i.test(text('transp'))) continue;
			const event = new ICAL.Event(component);
			if (!event.startDate || component.hasProperty('recurrence-id')) continue;
			const uid = event.uid || `${event.summary}@${event.startDate.toString()}`;
			const note = (event.summary ?? '').slice(0, 200);
			for (const [start, end, turn] of turns(event, zone, today))
				for (const found of daysOf(start, end, zone))
					if (found.to >= today - 366) days.push({ uid: `${uid}${turn}`.slice(0, 300), note, ...found });
			if (days.length > MOST_DAYS)
				return { ok: false, reason: 'This iCalendar file names more than 5,000 days away.' };
		}
	} catch (error) {
		return { ok: false, reason: `This iCalendar file cannot be read: ${(error as Error).message}.` };
	}
	if (!days.length)
		return { ok: false, reason: 'This iCalendar file holds no entry within the last year or later.' };
	return { ok: true, days };
}

type Turn = [start: ICAL.Time, end: ICAL.Time, turn: string];

function* turns(event: ICAL.Event, zone: Zone, today: Day): Generator<Turn> {
	if (!event.isRecurring()) return yield [event.startDate, event.endDate, ''];
	const iterator = event.iterator();
	for (let n = 0, next = iterator.next(); next && n < MOST_TURNS; n++, next = iterator.next()) {
		const { startDate, endDate } = event.getOccurrenceDetails(next);
		if (dayOf(startDate, zone) > today + AHEAD_DAYS) return;
		yield [startDate, endDate, `/${startDate.toString()}`];
	}
}

/** A date is itself; an instant is a day in the zone; a time without a zone is taken as the team's. */
function dayOf(time: ICAL.Time, zone: Zone): Day {
	if (time.isDate || isFloating(time))
		return Math.floor(Date.UTC(time.year, time.month - 1, time.day) / 86_400_000);
	return zone.day(time.toUnixTime() * 1000);
}

const isFloating = (time: ICAL.Time) => time.zone === ICAL.Timezone.localTimezone;

function instantOf(time: ICAL.Time, zone: Zone): number {
	if (!isFloating(time)) return time.toUnixTime() * 1000;
	return zone.startOf(dayOf(time, zone)) + (time.hour + time.minute / 60) * HOUR_MS;
}

/** The days that an entry touches; the first and last of one with times may be hours only. */
function daysOf(start: ICAL.Time, end: ICAL.Time, zone: Zone): Omit<CalendarDays, 'uid' | 'note'>[] {
	const from = dayOf(start, zone);
	if (start.isDate) return [{ from, to: Math.max(from, dayOf(end, zone) - 1), hours: null }];
	const [begins, ends] = [instantOf(start, zone), instantOf(end, zone)];
	const found: Omit<CalendarDays, 'uid' | 'note'>[] = [];
	for (let day = from; day <= from + AHEAD_DAYS && (zone.startOf(day) < ends || day === from); day++) {
		const whole = zone.startOf(day + 1) - zone.startOf(day);
		const inside = Math.min(ends, zone.startOf(day + 1)) - Math.max(begins, zone.startOf(day));
		if (inside <= 0) continue;
		const hours = inside >= whole ? null : Math.max(0.25, Math.round((inside / HOUR_MS) * 4) / 4);
		const last = found.at(-1);
		if (last && hours === null && last.hours === null && last.to === day - 1) last.to = day;
		else found.push({ from: day, to: day, hours });
	}
	return found;
}
