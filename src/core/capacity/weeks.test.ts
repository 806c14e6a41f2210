import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { personWeeks, type WeekBoard } from './weeks.ts';
import { day, rota } from './rota-for-tests.ts';

describe('the weeks of people', () => {
	const board = (more: Partial<WeekBoard> = {}): WeekBoard => ({
		id: 'a',
		unit: 'hours',
		focus: 0.5,
		keepBack: 0.2,
		perDay: null,
		sprints: [
			{
				number: 4,
				from: day('2026-11-23'),
				to: day('2026-12-04'),
				focus: null,
				keepBack: null,
				cards: [{ card: 'A-1', left: 24, owners: ['ann'] }],
			},
		],
		inHand: [],
		...more,
	});

	test('spread a sprint’s work over its days to come, by the hours on them', () => {
		const away = rota({
			absences: [{ person: 'ann', from: day('2026-11-30'), to: day('2026-12-02'), hours: null }],
		});
		const weeks = personWeeks(away, [board()], ['ann'], day('2026-11-25'), 3);
		assert.deepEqual(
			weeks.map((week) => [week.hours, week.give, week.promise, week.placed, week.away]),
			[
				[20, 10, 8, 15, 0],
				[12, 6, 4.8, 9, 3],
				[36, 18, 14.4, 0, 0],
			],
		);
		assert.deepEqual(weeks[0]!.cards, [{ card: 'A-1', hours: 15 }]);
		assert.deepEqual(
			weeks.map((week) => week.standing),
			['over', 'over', 'room'],
		);
	});

	test('lay work in hand without a sprint on the weeks in order, as far as the promise goes', () => {
		const weeks = personWeeks(
			rota(),
			[board({ sprints: [], inHand: [{ card: 'B-1', left: 20, owners: ['ann'] }] })],
			['ann'],
			day('2026-11-23'),
			2,
		);
		assert.deepEqual(
			weeks.map((week) => week.placed),
			[14.4, 5.6],
		);
	});

	test('count points as the hours they usually take', () => {
		const points = board({ unit: 'points', perDay: 2, keepBack: 0.9 });
		const [week] = personWeeks(rota(), [points], ['ann'], day('2026-11-23'), 1);
		// A person-day of 8 hours gives 4 and delivers 2 points: a point is 2 hours, and 24 of them are 48 over two weeks.
		assert.equal(week!.placed, 24);
		assert.equal(week!.promise, week!.give);
	});

	test('conserve hours: what the weeks of a sprint hold is what is left of its cards', () => {
		fc.assert(
			fc.property(
				fc.array(
					fc.record({
						card: fc.uuid(),
						left: fc.integer({ min: 0, max: 40 }),
						owners: fc.uniqueArray(fc.constantFrom('ann', 'bob')),
					}),
					{ maxLength: 10 },
				),
				fc.integer({ min: 0, max: 13 }),
				(cards, offset) => {
					const two = rota({
						weeks: ['ann', 'bob'].map((person) => ({ person, from: 0, hours: [8, 8, 8, 8, 4, 0, 0] })),
						shares: [],
						boards: ['a'],
					});
					const sprint = { ...board().sprints[0]!, cards };
					const weeks = personWeeks(
						two,
						[board({ sprints: [sprint] })],
						['ann', 'bob'],
						day('2026-11-23') + offset,
						4,
					);
					const placed = weeks.reduce((sum, week) => sum + week.placed, 0);
					const owned = cards.filter((card) => card.owners.length).reduce((sum, card) => sum + card.left, 0);
					assert.ok(Math.abs(placed - owned) < 1e-3, `${placed} for ${owned}`);
				},
			),
		);
	});
});
