import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { parseDay } from './days.ts';
import { dueAfter, lengthOf, ORDINARY, workdaysOf, worksOn } from './workdays.ts';

const day = (text: string) => parseDay(text)!;
/** Any pattern of days on which somebody works at least now and then. */
const works = fc.tuple(fc.array(fc.boolean(), { minLength: 5, maxLength: 20 }), fc.nat(19)).map(
	([days, sure]) =>
		(on: number) =>
			(days[on % days.length] ?? false) || on % days.length === sure % days.length,
);

describe('working days', () => {
	test('what pages are told of them says the same of every day', () => {
		fc.assert(
			fc.property(works, fc.integer({ min: 20000, max: 21000 }), (team, from) => {
				const told = worksOn(workdaysOf(team, from, from + 200));
				for (let on = from; on <= from + 200; on++) assert.equal(told(on), team(on));
			}),
		);
	});

	test('what takes so many working days ends on the first day that makes them whole', () => {
		fc.assert(
			fc.property(
				works,
				fc.integer({ min: 20000, max: 21000 }),
				fc.integer({ min: 1, max: 60 }),
				(team, start, length) => {
					const due = dueAfter(team, start, length)!;
					assert.equal(lengthOf(team, start, due), length);
					assert.ok(team(due));
					if (due > start && length > 1) assert.ok(lengthOf(team, start, due - 1) < length);
				},
			),
		);
	});

	test('a weekend lies between, and counts nothing', () => {
		assert.equal(lengthOf(ORDINARY, day('2026-11-27'), day('2026-11-30')), 2);
		assert.equal(dueAfter(ORDINARY, day('2026-11-27'), 2), day('2026-11-30'));
	});

	test('what begins and ends on days off takes a day', () => {
		assert.equal(lengthOf(ORDINARY, day('2026-11-28'), day('2026-11-29')), 1);
	});

	test('where nobody ever works nothing ends', () => {
		assert.equal(
			dueAfter(() => false, day('2026-11-27'), 1),
			null,
		);
	});
});
