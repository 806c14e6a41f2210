import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { passedIn, PERIODS, spentBy, spentOver, type Spent } from './spent.ts';

const fact = fc.record({
	person: fc.constantFrom('ines', 'bram'),
	card: fc.constantFrom('TIDE-1', 'TIDE-2', 'BUOY-1'),
	week: fc.constantFrom('2026-09-28', '2026-10-05', '2026-11-02'),
	month: fc.constantFrom('2026-09', '2026-10', '2026-11'),
	sprint: fc.constantFrom('Sprint 1', 'Sprint 2', null),
	hours: fc.integer({ min: 1, max: 40 }).map((n) => n / 4),
	cost: fc.option(fc.integer({ min: 1, max: 400 })),
});
const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);

test('every hour is counted once, in each way of telling them apart', () =>
	fc.assert(
		fc.property(fc.array(fact, { maxLength: 30 }), fc.constantFrom(...PERIODS), (facts, by) => {
			const all = sum(facts.map(({ hours }) => hours));
			const { lines, periods } = spentBy(facts, by);
			const [everyone, ...people] = lines;
			assert.equal(everyone!.hours, all);
			assert.equal(sum(people.map(({ hours }) => hours)), all);
			for (const { cells, hours } of lines) {
				assert.deepEqual(
					cells.map(({ period }) => period),
					periods,
				);
				assert.equal(sum(cells.map((cell) => cell.hours)), hours);
				for (const cell of cells) assert.equal(sum(cell.cards.map(({ amount }) => amount)), cell.hours);
			}
			const points = spentOver(facts, 'hours');
			assert.equal(points.at(-1)?.spent ?? 0, all);
			assert.equal(sum(points.flatMap(({ cards }) => cards.map(({ amount }) => amount))), all);
			assert.equal(spentOver(facts, 'cost').at(-1)?.spent ?? 0, sum(facts.map(({ cost }) => cost ?? 0)));
		}),
	));

test('a budget is passed in the first week after which more was spent', () => {
	const one = (week: string, hours: number): Spent => ({
		...{ person: 'ines', card: 'TIDE-1', week, month: week.slice(0, 7), sprint: null, hours, cost: null },
	});
	const points = spentOver([one('2026-10-12', 5), one('2026-10-05', 8), one('2026-10-19', 1)], 'hours');
	assert.deepEqual(
		points.map(({ week, spent }) => [week, spent]),
		[
			['2026-10-05', 8],
			['2026-10-12', 13],
			['2026-10-19', 14],
		],
	);
	assert.equal(passedIn(points, 13), '2026-10-19');
	assert.equal(passedIn(points, 14), null);
});

test('periods stand in their order; what was worked in no sprint comes last', () => {
	const facts = [
		{ person: 'a', card: 'T-1', week: '2026-10-05', month: '2026-10', sprint: null, hours: 1, cost: null },
		{
			person: 'a',
			card: 'T-1',
			week: '2026-11-02',
			month: '2026-11',
			sprint: 'Sprint 2',
			hours: 1,
			cost: null,
		},
		{
			person: 'a',
			card: 'T-1',
			week: '2026-10-12',
			month: '2026-10',
			sprint: 'Sprint 1',
			hours: 1,
			cost: null,
		},
	];
	assert.deepEqual(spentBy(facts, 'sprint').periods, ['Sprint 1', 'Sprint 2', '']);
	assert.deepEqual(spentBy(facts, 'quarter').periods, ['2026-Q4']);
});
