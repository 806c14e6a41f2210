import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import ICAL from 'ical.js';
import independent from 'node-ical';
import { dayText, parseDay } from '../calendar/days.ts';
import { calendarText, type CalendarEntry } from './calendar-out.ts';

const AT = Date.parse('2026-11-23T14:20:00Z');
// What a line of words can hold: no control signs but those that are escaped.
const words = fc
	.string({ unit: 'grapheme', minLength: 1, maxLength: 120 })
	.map((text) => text.replace(/[\p{C}\p{Zl}\p{Zp}]/gu, '').trim())
	.filter(Boolean);
const entry = fc
	.record({
		from: fc.integer({ min: 20_000, max: 22_000 }),
		days: fc.integer({ min: 1, max: 40 }),
		summary: words,
		free: fc.boolean(),
	})
	.map(({ from, days, ...rest }): Omit<CalendarEntry, 'uid'> => ({ from, to: from + days - 1, ...rest }));

test('two readers that know nothing of each other read the same days and words back', () =>
	fc.assert(
		fc.property(fc.array(entry, { maxLength: 12 }), (some) => {
			const entries = some.map((one, i): CalendarEntry => ({ ...one, uid: `entry-${i}@harrow` }));
			const text = calendarText('Days', entries, AT);
			const root = new ICAL.Component(ICAL.parse(text) as unknown[]);
			const read = root.getAllSubcomponents('vevent').map((component) => {
				const event = new ICAL.Event(component);
				return [event.uid, event.startDate.toString(), event.endDate.toString(), event.summary];
			});
			const meant = entries.map((one) => [one.uid, dayText(one.from), dayText(one.to + 1), one.summary]);
			assert.deepEqual(read, meant);
			const other = independent.sync.parseICS(text);
			for (const one of entries) {
				const found = other[one.uid] as independent.VEvent;
				assert.equal(found.datetype, 'date');
				const day = (date: Date) =>
					`${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;
				assert.deepEqual([day(found.start), day(found.end!)], [dayText(one.from), dayText(one.to + 1)]);
				const said = found.summary as string | { val: string };
				assert.equal(typeof said === 'string' ? said : said.val, one.summary);
			}
		}),
		{ numRuns: 60 },
	));

test('a file is as the standard asks: its lines end so and are short, its dates have no time, its signs are escaped', () => {
	const text = calendarText(
		'Tidewatch',
		[
			{
				uid: 'sprint-13@harrow',
				from: parseDay('2026-11-23')!,
				to: parseDay('2026-12-04')!,
				summary: 'Sprint\u202813; storms,\u0007 and more',
				description: 'Two\nlines',
				url: 'https://harrow.example/boards/tidewatch',
				free: true,
			},
		],
		AT,
	);
	assert.match(text, /^BEGIN:VCALENDAR\r\n/);
	assert.match(text, /\r\nEND:VCALENDAR\r\n$/);
	for (const line of text.split('\r\n')) assert.ok(Buffer.byteLength(line) <= 75, line);
	assert.ok(!text.replaceAll('\r\n', '').includes('\n'));
	assert.match(text, /DTSTART;VALUE=DATE:20261123\r\nDTEND;VALUE=DATE:20261205\r\n/);
	assert.match(text, /SUMMARY:Sprint 13\\; storms\\, and more\r\n/);
	assert.match(text, /DESCRIPTION:Two\\nlines\r\n/);
	assert.match(text, /DTSTAMP:20261123T142000Z\r\n/);
	assert.match(text, /TRANSP:TRANSPARENT/);
});
