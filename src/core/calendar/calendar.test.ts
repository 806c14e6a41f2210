import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { calendarDays, workingDays } from './day-count.ts';
import { dayText, mondayOf, parseDay, weekday, weekText } from './days.ts';
import { DAY_MS, HOUR_MS, isZone, zoneOf } from './zone.ts';

const day = (text: string) => parseDay(text)!;
const zones = [
	'Europe/Lisbon',
	'America/New_York',
	'Australia/Lord_Howe',
	'Asia/Kathmandu',
	'America/Santiago',
	'Pacific/Kiritimati',
	'Africa/Cairo',
	'UTC',
];

describe('a zone', () => {
	test('knows days of 23 and 25 hours', () => {
		const lisbon = zoneOf('Europe/Lisbon');
		const hours = (text: string) => (lisbon.startOf(day(text) + 1) - lisbon.startOf(day(text))) / HOUR_MS;
		assert.deepEqual([hours('2026-03-28'), hours('2026-03-29'), hours('2026-10-25')], [24, 23, 25]);
	});

	test('begins a day at the first instant there is, where clocks go forward at midnight', () => {
		const santiago = zoneOf('America/Santiago');
		assert.equal(new Date(santiago.startOf(day('2026-09-06'))).toISOString(), '2026-09-06T04:00:00.000Z');
		assert.equal(santiago.day(santiago.startOf(day('2026-09-06')) - 1), day('2026-09-05'));
	});

	test('agrees with the machine’s own calendar at any instant', () => {
		const formats = new Map(
			zones.map((name) => [name, new Intl.DateTimeFormat('sv-SE', { timeZone: name })]),
		);
		fc.assert(
			fc.property(
				fc.constantFrom(...zones),
				fc.integer({ min: Date.UTC(2000, 0), max: Date.UTC(2040, 0) }),
				(name, at) => {
					assert.equal(dayText(zoneOf(name).day(at)), formats.get(name)!.format(at));
				},
			),
			{ numRuns: 500 },
		);
	});

	test('a day runs from its start to the start of the next', () => {
		fc.assert(
			fc.property(fc.constantFrom(...zones), fc.integer({ min: 11_000, max: 25_000 }), (name, date) => {
				const zone = zoneOf(name);
				assert.equal(zone.day(zone.startOf(date)), date);
				assert.equal(zone.day(zone.startOf(date) - 1), date - 1);
			}),
		);
	});

	test('is refused when there is none of that name', () => {
		assert.ok(!isZone('Mars/Base') && !isZone(''));
		assert.throws(() => zoneOf('Mars/Base'), RangeError);
	});
});

describe('dates', () => {
	test('weeks are ISO weeks, across new years', () => {
		for (const [date, week] of [
			['2026-01-01', '2026-W01'],
			['2025-12-29', '2026-W01'],
			['2027-01-01', '2026-W53'],
			['2024-12-31', '2025-W01'],
			['2026-11-23', '2026-W48'],
		])
			assert.equal(weekText(day(date!)), week);
		assert.equal(dayText(mondayOf(day('2026-11-29'))), '2026-11-23');
	});

	test('are read as they are written, and nothing else is read', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: -100_000, max: 200_000 }),
				(date) => date < -719_528 || parseDay(dayText(date)) === date || dayText(date).length !== 10,
			),
		);
		for (const wrong of ['2026-02-29', '2026-13-01', '2026-1-1', 'today', '', '2026-11-23T10:00Z'])
			assert.equal(parseDay(wrong), null, wrong);
	});

	test('weekdays begin on Monday, before 1970 too', () => {
		assert.deepEqual(
			[weekday(day('2026-11-23')), weekday(day('2026-11-29')), weekday(day('1969-12-29'))],
			[0, 6, 0],
		);
	});
});

describe('counting days', () => {
	test('counts both ends', () => assert.equal(calendarDays(day('2026-11-23'), day('2026-11-25')), 3));

	test('working days leave out what is not worked, and are at least 1', () => {
		const count = workingDays((date) => weekday(date) < 5 && date !== day('2026-11-25'));
		assert.equal(count(day('2026-11-20'), day('2026-11-26')), 4);
		assert.equal(count(day('2026-11-21'), day('2026-11-22')), 1);
	});

	test('working days are never more than calendar days', () => {
		fc.assert(
			fc.property(fc.nat(40_000), fc.nat(60), fc.array(fc.nat(6)), (from, length, worked) => {
				const n = workingDays((date) => worked.includes(weekday(date)))(from, from + length);
				assert.ok(n >= 1 && n <= calendarDays(from, from + length));
			}),
		);
		assert.equal(DAY_MS, 24 * HOUR_MS);
	});
});
