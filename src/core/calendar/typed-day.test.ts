import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { dayText, parseDay } from './days.ts';
import { typedDay } from './typed-day.ts';

// A Monday.
const today = parseDay('2026-11-23')!;
const read = (text: string) => {
	const day = typedDay(text, today);
	return day === null ? null : dayText(day);
};

test('a day is read as people write it', () => {
	const said: Record<string, string | null> = {
		'4 dec': '2026-12-04',
		'4 December 2027': '2027-12-04',
		'Fri 4 Dec': '2026-12-04',
		fri: '2026-11-27',
		tomorrow: '2026-11-24',
		today: '2026-11-23',
		'+2w': '2026-12-07',
		'+3d': '2026-11-26',
		'+1m': '2026-12-23',
		'04.12.': '2026-12-04',
		'4.12.27': '2027-12-04',
		'4/12/2026': '2026-12-04',
		'2026-12-04': '2026-12-04',
		'3.2.': '2027-02-03',
		'20.11.': '2026-11-20',
		'31.2.': null,
		'2026-02-30': null,
		'': null,
		'the harbour': null,
		'4 dec or so': null,
		'4.12.0026': null,
	};
	for (const [text, day] of Object.entries(said)) assert.equal(read(text), day, text);
});

test('what it shows it reads again, and nothing fails', () => {
	fc.assert(
		fc.property(fc.integer({ min: today - 300, max: today + 300 }), (day) => {
			assert.equal(typedDay(dayText(day), today), day);
		}),
	);
	fc.assert(fc.property(fc.string({ maxLength: 30 }), (text) => void typedDay(text, today)));
});
