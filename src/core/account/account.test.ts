import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { account, cardsBehind, GROUPINGS, placedWithin, useOf, type Worked } from './account.ts';

const fact = (change: Partial<Worked & { card: string }>): Worked & { card: string } => ({
	span: 'now',
	person: 'Ines',
	board: 'TIDE',
	card: 'TIDE-1',
	month: '2026-11',
	sprint: 3,
	initiative: null,
	type: 'Work',
	labels: [],
	hours: 2,
	billable: 0,
	cost: 100,
	unrated: 0,
	...change,
});

describe('an account', () => {
	const facts = [
		fact({ hours: 5, billable: 5, cost: 250, labels: ['mast', 'radio'] }),
		fact({ card: 'TIDE-2', person: 'Bram', hours: 3, cost: 120, labels: ['mast'], initiative: 'Winter' }),
		fact({ card: 'BUOY-1', board: 'BUOY', person: 'Ola', hours: 1, cost: 0, unrated: 1, sprint: null }),
		fact({ span: 'before', hours: 4, cost: 200 }),
	];

	test('sums hours, billable hours and cost, beside the span before', () => {
		const { lines, total } = account(facts, 'person');
		assert.deepEqual(
			lines.map(({ about, hours, billable, cost, unrated, before }) => [
				about,
				hours,
				billable,
				cost,
				unrated,
				before,
			]),
			[
				['Ines', 5, 5, 250, 0, 4],
				['Bram', 3, 0, 120, 0, 0],
				['Ola', 1, 0, null, 1, 0],
			],
		);
		assert.deepEqual([total.hours, total.cost, total.unrated, total.before], [9, 370, 1, 4]);
		assert.deepEqual(cardsBehind(facts, 'person', null)[0], { card: 'TIDE-1', hours: 5 });
		assert.deepEqual(cardsBehind(facts, 'person', 'Bram'), [{ card: 'TIDE-2', hours: 3 }]);
		assert.deepEqual(cardsBehind(facts, 'person', 'Nobody'), []);
	});

	test('counts a card with two labels under each, and once in the total', () => {
		const { lines, total } = account(facts, 'label');
		assert.deepEqual(
			lines.map(({ about, hours }) => [about, hours]),
			[
				['mast', 8],
				['radio', 5],
				['', 1],
			],
		);
		assert.equal(total.hours, 9);
	});

	test('names sprints with their board, and what belongs to none', () => {
		const names = (by: 'sprint' | 'initiative' | 'month') =>
			account(facts, by).lines.map((line) => line.about);
		assert.deepEqual(names('sprint'), ['TIDE 3', '']);
		assert.deepEqual(names('initiative'), ['', 'Winter']);
		assert.deepEqual(names('month'), ['2026-11']);
	});

	test('shows no cost where none is told', () => {
		assert.equal(account([fact({ cost: null })], 'board').total.cost, null);
	});

	test('lines add up to the total, but for labels, whatever was worked', () => {
		const worked = fc.record({
			span: fc.constantFrom('now' as const, 'before' as const),
			person: fc.constantFrom('A', 'B', 'C'),
			board: fc.constantFrom('X', 'Y'),
			card: fc.constantFrom('X-1', 'X-2', 'Y-1'),
			month: fc.constantFrom('2026-10', '2026-11'),
			sprint: fc.constantFrom(null, 1, 2),
			initiative: fc.constantFrom(null, 'I'),
			type: fc.constantFrom('', 'Work'),
			labels: fc.subarray(['a', 'b']),
			hours: fc.integer({ min: 1, max: 2400 }).map((n) => n / 100),
			billable: fc.constant(0),
			cost: fc.integer({ min: 0, max: 900 }),
			unrated: fc.constant(0),
		});
		fc.assert(
			fc.property(fc.array(worked, { maxLength: 40 }), (list) => {
				for (const by of GROUPINGS) {
					const { lines, total } = account(list, by);
					const sum = lines.reduce((all, line) => all + line.hours, 0);
					if (by === 'label') assert.ok(sum >= total.hours - 1e-6);
					else assert.ok(Math.abs(sum - total.hours) < 1e-6);
					const behind = (about: string | null) =>
						cardsBehind(list, by, about).reduce((all, card) => all + card.hours, 0);
					for (const line of lines)
						assert.ok(
							Math.abs(behind(line.about) - line.hours) < 1e-6,
							'every figure is the sum of its cards',
						);
					assert.ok(Math.abs(behind(null) - total.hours) < 1e-6);
				}
			}),
		);
	});
});

test('a sprint that reaches beyond the range counts by its working days', () => {
	const sprint = { from: 10, to: 19, placed: new Map([['Ines', [{ card: 'TIDE-1', hours: 20 }]]]) };
	const works = (day: number) => day % 2 === 0;
	assert.deepEqual([...placedWithin([sprint], works, 0, 13)], [['Ines', [{ card: 'TIDE-1', hours: 8 }]]]);
	assert.deepEqual([...placedWithin([sprint], works, 30, 40)], []);
	assert.deepEqual([...placedWithin([sprint], () => false, 0, 40)], []);
	assert.equal(useOf(3, 0), null);
	assert.equal(useOf(3, 4), 0.75);
});
