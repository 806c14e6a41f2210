import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { daysAway, hoursOn, rawHours, shareOn, sprintDays } from './hours.ts';
import { day, rota } from './rota-for-tests.ts';

describe('hours', () => {
	test('are those of the weekday, less what one is away, never below 0', () => {
		const away = rota({
			absences: [
				{ person: 'ann', from: day('2026-11-24'), to: day('2026-11-24'), hours: 3 },
				{ person: 'ann', from: day('2026-11-25'), to: day('2026-11-26'), hours: null },
				{ person: 'ann', from: day('2026-11-27'), to: day('2026-11-27'), hours: 6 },
				{ person: 'bob', from: day('2026-11-23'), to: day('2026-11-27'), hours: null },
			],
		});
		const week = [23, 24, 25, 26, 27, 28].map((d) => hoursOn(away, 'ann', day(`2026-11-${d}`)));
		assert.deepEqual(week, [8, 5, 0, 0, 0, 0]);
		assert.deepEqual(
			daysAway(away, 'ann', day('2026-11-23'), day('2026-11-29')),
			[25, 26, 27].map((d) => day(`2026-11-${d}`)),
		);
	});

	test('are 0 on a holiday, also on the first day of a sprint', () => {
		const holiday = rota({ holidays: new Set([day('2026-11-23')]) });
		assert.equal(rawHours(holiday, 'ann', 'a', day('2026-11-23'), day('2026-11-27')), 28);
		assert.equal(hoursOn(holiday, 'ann', day('2026-11-23')), 0);
	});

	test('are the same in the weeks in which the clocks change: days are dates', () => {
		const hours = (from: string, to: string) => rawHours(rota(), 'ann', 'a', day(from), day(to));
		assert.equal(hours('2026-03-23', '2026-03-29'), 36);
		assert.equal(hours('2026-10-19', '2026-10-25'), 36);
		assert.equal(hours('2026-06-01', '2026-06-07'), 36);
	});

	test('begin for someone who joins in the middle of a sprint on the day they join', () => {
		const joined = rota({
			weeks: [{ person: 'ann', from: day('2026-11-26'), hours: [8, 8, 8, 8, 8, 0, 0] }],
		});
		assert.equal(rawHours(joined, 'ann', 'a', day('2026-11-23'), day('2026-12-04')), 7 * 8);
	});

	test('of a dated week do not rewrite the past', () => {
		const part = rota({
			weeks: [
				{ person: 'ann', from: day('2026-01-01'), hours: [8, 8, 8, 8, 8, 0, 0] },
				{ person: 'ann', from: day('2026-11-25'), hours: [4, 4, 4, 0, 0, 0, 0] },
			],
		});
		assert.equal(rawHours(part, 'ann', 'a', day('2026-11-23'), day('2026-11-29')), 8 + 8 + 4);
	});

	test('of someone on two boards are shared, equally unless said otherwise', () => {
		const equal = rota({ shares: [] });
		assert.equal(shareOn(equal, 'ann', 'a', day('2026-11-23')), 0.5);
		assert.equal(shareOn(equal, 'ann', 'other', day('2026-11-23')), 0);
		const set = rota({
			shares: [
				{ person: 'ann', from: day('2026-01-01'), boards: { a: 0.7, b: 0.3 } },
				{ person: 'ann', from: day('2026-11-26'), boards: { b: 1 } },
			],
		});
		assert.equal(rawHours(set, 'ann', 'a', day('2026-11-23'), day('2026-11-27')), 16.8);
		assert.equal(rawHours(set, 'ann', 'b', day('2026-11-23'), day('2026-11-27')), 19.2);
	});

	test('of a sprint end where the next one starts', () => {
		const sprint = { starts: 10, ends: 30 };
		assert.deepEqual(sprintDays(sprint, [sprint, { starts: 24 }, { starts: 40 }]), { from: 10, to: 23 });
		assert.deepEqual(sprintDays(sprint, [{ starts: 2 }]), { from: 10, to: 30 });
	});

	test('never come to more on all boards than a person works', () => {
		const share = fc.record({ a: fc.integer({ min: 0, max: 50 }), b: fc.integer({ min: 0, max: 50 }) });
		const absence = fc.record({
			from: fc.integer({ min: 0, max: 40 }),
			length: fc.integer({ min: 0, max: 9 }),
			hours: fc.option(fc.integer({ min: 1, max: 9 })),
		});
		fc.assert(
			fc.property(share, fc.array(absence, { maxLength: 6 }), ({ a, b }, list) => {
				const start = day('2026-11-02');
				const given = rota({
					shares: [{ person: 'ann', from: 0, boards: { a: a / 100, b: b / 100 } }],
					absences: list.map(({ from, length, hours }) => ({
						person: 'ann',
						from: start + from,
						to: start + from + length,
						hours,
					})),
				});
				let all = 0;
				for (let d = start; d < start + 40; d++) all += hoursOn(given, 'ann', d);
				const sum =
					rawHours(given, 'ann', 'a', start, start + 39) + rawHours(given, 'ann', 'b', start, start + 39);
				assert.ok(Math.abs(sum - (all * (a + b)) / 100) < 1e-3, `${sum} of ${all}`);
			}),
		);
	});
});
