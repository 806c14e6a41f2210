import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { dayText, parseDay, weekday } from '../calendar/days.ts';
import { moveSprint, nextSprints, type SprintDates } from './cadence.ts';

const day = (text: string) => parseDay(text)!;
const weekdays = (d: number) => weekday(d) < 5;
const named = (list: SprintDates[]) =>
	list.map((s) => `${s.number}: ${dayText(s.starts)} ${dayText(s.ends)}`);

describe('the next sprints', () => {
	test('follow the last one on the weekday of the cadence, and end on the last working day', () => {
		const last = { number: 4, starts: day('2026-11-16'), ends: day('2026-11-27') };
		assert.deepEqual(named(nextSprints({ days: 14, weekday: 0 }, last, 0, 2, weekdays)), [
			'5: 2026-11-30 2026-12-11',
			'6: 2026-12-14 2026-12-25',
		]);
	});

	test('begin on the next such weekday where there is none yet, today included', () => {
		const from = (today: string) =>
			named(nextSprints({ days: 7, weekday: 2 }, null, day(today), 1, weekdays))[0];
		assert.equal(from('2026-11-25'), '1: 2026-11-25 2026-12-01');
		assert.equal(from('2026-11-26'), '1: 2026-12-02 2026-12-08');
	});

	test('begin after the last one has ended, however long it was made', () => {
		const long = { number: 1, starts: day('2026-11-02'), ends: day('2026-11-20') };
		assert.equal(
			named(nextSprints({ days: 7, weekday: 0 }, long, 0, 1, weekdays))[0],
			'2: 2026-11-23 2026-11-27',
		);
	});

	test('never overlap and never run backwards', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 90 }),
				fc.integer({ min: 0, max: 6 }),
				fc.integer({ min: 0, max: 100 }),
				(days, on, length) => {
					const last = { number: 1, starts: 20_000, ends: 20_000 + length };
					const list = [last, ...nextSprints({ days, weekday: on }, last, 0, 5, weekdays)];
					list.slice(1).forEach((sprint, i) => {
						assert.ok(sprint.starts > list[i]!.ends && sprint.ends >= sprint.starts);
						if (days % 7 === 0) assert.equal(weekday(sprint.starts), on);
					});
				},
			),
		);
	});
});

describe('other dates for a sprint', () => {
	const sprints: SprintDates[] = [
		{ number: 1, starts: 100, ends: 110, started: true },
		{ number: 2, starts: 114, ends: 124 },
		{ number: 3, starts: 128, ends: 138 },
	];

	test('leave the later ones, or take them along', () => {
		const alone = moveSprint(sprints, 2, 115, 126, false);
		assert.ok(alone.ok);
		assert.deepEqual(
			alone.moved.map((s) => [s.number, s.starts, s.ends]),
			[[2, 115, 126]],
		);
		const all = moveSprint(sprints, 2, 114, 131, true);
		assert.ok(all.ok);
		assert.deepEqual(
			all.moved.map((s) => [s.number, s.starts, s.ends]),
			[
				[2, 114, 131],
				[3, 135, 145],
			],
		);
	});

	test('that overlap, run backwards or move a start that was are refused in words', () => {
		const wrong = (...args: [number, number, number, boolean]) => {
			const found = moveSprint(sprints, ...args);
			assert.ok(!found.ok);
			return [found.problem.code, found.problem.field];
		};
		assert.deepEqual(wrong(2, 114, 113, false), ['sprint.backwards', 'ends']);
		assert.deepEqual(wrong(2, 108, 124, false), ['sprint.overlap', 'starts']);
		assert.deepEqual(wrong(2, 114, 128, false), ['sprint.overlap', 'ends']);
		assert.deepEqual(wrong(1, 99, 110, false), ['sprint.started', 'starts']);
	});

	test('never make two sprints overlap', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 3 }),
				fc.integer({ min: 90, max: 150 }),
				fc.integer({ min: -2, max: 40 }),
				fc.boolean(),
				(number, starts, length, follow) => {
					const found = moveSprint(sprints, number, starts, starts + length, follow);
					if (!found.ok) return;
					const after = sprints
						.map((s) => found.moved.find((m) => m.number === s.number) ?? s)
						.sort((a, b) => a.starts - b.starts);
					after.slice(1).forEach((s, i) => assert.ok(s.starts > after[i]!.ends));
				},
			),
		);
	});
});
