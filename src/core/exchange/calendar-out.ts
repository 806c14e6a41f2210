import ICAL from 'ical.js';
import { dayText } from '../calendar/days.ts';
import type { Day, Instant } from '../calendar/zone.ts';

/** Something of one or several whole days, as a calendar shows it. */
export interface CalendarEntry {
	/** The same for the same thing each time that it is read, so that a calendar changes it instead of doubling it. */
	uid: string;
	from: Day;
	/** The last day, counted. */
	to: Day;
	summary: string;
	description?: string;
	/** Where it is to be seen. */
	url?: string;
	place?: string;
	/** It takes nobody’s time: a due date, not a day away. */
	free: boolean;
}

/**
 * A calendar file (iCalendar, RFC 5545) of whole days: dates without a time are the same day in every zone.
 * @param at when it was written
 * @param name as calendars call it
 */
export function calendarText(name: string, entries: readonly CalendarEntry[], at: Instant): string {
	const calendar = new ICAL.Component('vcalendar');
	calendar.updatePropertyWithValue('version', '2.0');
	calendar.updatePropertyWithValue('prodid', '-//Harrow//Harrow//EN');
	calendar.updatePropertyWithValue('calscale', 'GREGORIAN');
	calendar.updatePropertyWithValue('name', name);
	// What most calendars read for a name, and how often they are to look again.
	calendar.updatePropertyWithValue('x-wr-calname', name);
	calendar.updatePropertyWithValue('refresh-interval', ICAL.Duration.fromString('PT1H'));
	const stamp = ICAL.Time.fromJSDate(new Date(at), true);
	for (const { uid, from, to, summary, description, url, place, free } of entries) {
		const event = new ICAL.Component('vevent');
		event.updatePropertyWithValue('uid', uid);
		event.updatePropertyWithValue('dtstamp', stamp);
		event.updatePropertyWithValue('dtstart', ICAL.Time.fromDateString(dayText(from)));
		event.updatePropertyWithValue('dtend', ICAL.Time.fromDateString(dayText(to + 1)));
		event.updatePropertyWithValue('summary', plain(summary));
		if (description) event.updatePropertyWithValue('description', plain(description));
		if (place) event.updatePropertyWithValue('location', plain(place));
		if (url) event.updatePropertyWithValue('url', url);
		event.updatePropertyWithValue('transp', free ? 'TRANSPARENT' : 'OPAQUE');
		calendar.addSubcomponent(event);
	}
	return `${calendar.toString()}\r\n`;
}

/** Words without signs that end a line for some readers, or that the standard does not allow in a text. */
const plain = (text: string): string =>
	text.replace(/[\u2028\u2029\u0085]/g, ' ').replace(/[\u0000-\u0008\u000B-\u001F\u007F]/g, '');
