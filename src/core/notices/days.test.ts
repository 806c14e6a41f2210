import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { parseDay, weekday } from '../calendar/days.ts';
import { isNear, workdaysUntil } from './days.ts';

const works = (day: number) => weekday(day) < 5;
const FRIDAY = parseDay('2026-11-27')!;

test('a day is near from so many working days before it on, over a weekend too', () => {
	const monday = FRIDAY + 3;
	assert.deepEqual(
		[-1, 0, 1, 2, 3, 4].map((n) => isNear(works, FRIDAY + n, monday, 1)),
		[false, true, true, true, true, false],
	);
	assert.equal(isNear(works, FRIDAY, FRIDAY, 0), true);
	assert.equal(isNear(works, FRIDAY - 1, FRIDAY, 0), false);
});

test('once a day is near it stays so until it has passed', () => {
	fc.assert(
		fc.property(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 10 }), (ahead, before) => {
			const day = FRIDAY + ahead;
			const near = Array.from({ length: ahead + 1 }, (_, n) => isNear(works, FRIDAY + n, day, before));
			assert.deepEqual(near, near.toSorted());
			assert.equal(near.at(-1), true);
			assert.equal(workdaysUntil(works, day, day), 0);
		}),
	);
});
