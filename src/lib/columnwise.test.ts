import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { Columnwise, columnwise, fromText, toText } from './columnwise.ts';

const said = fc.oneof(
	{ weight: 6, arbitrary: fc.constantFrom(null, '', 'standard', 5, false) },
	fc.string(),
	fc.integer(),
	fc.array(fc.string(), { maxLength: 2 }),
	fc.record({ since: fc.string(), reason: fc.string() }, { requiredKeys: ['since'], noNullPrototype: true }),
);
const rows = fc.array(
	fc.record(
		{ id: fc.uuid(), title: fc.string(), labels: said, left: said, watchers: said },
		{ requiredKeys: ['id', 'title', 'left'], noNullPrototype: true },
	),
	{ maxLength: 60 },
);

test('rows arrive as they left, whatever they say and leave unsaid', () => {
	fc.assert(
		fc.property(rows, (all) => {
			assert.deepEqual(fromText(toText(all)), all);
		}),
	);
});

test('of many rows that say the same it is written once', () => {
	const cards = Array.from({ length: 2000 }, (_, i) => ({
		number: i,
		class: 'standard',
		labels: [] as string[],
		blocked: i === 700 ? { reason: 'The crane is booked' } : null,
	}));
	const { columns } = JSON.parse(
		toText(cards.map((card) => ({ ...card, column: ['Making', 'Check', 'Done'][card.number % 3] }))),
	);
	assert.deepEqual(columns.column, {
		few: ['Making', 'Check', 'Done'],
		at: cards.map(({ number }) => number % 3),
	});
	assert.deepEqual(columns.labels, { usual: [], but: [] });
	assert.deepEqual(columns.blocked, { usual: null, but: [[700, cards[700]!.blocked]] });
	assert.ok(toText(cards).length * 4 < JSON.stringify(cards).length);
});

test('only many rows travel so; to the API and in every computation they are a list', () => {
	const few = columnwise([{ a: 1 }]);
	assert.ok(!(few instanceof Columnwise));
	const many = columnwise(Array.from({ length: 50 }, (_, a) => ({ a })));
	assert.ok(many instanceof Columnwise);
	assert.ok(!(many.map(({ a }) => a) instanceof Columnwise));
	assert.equal(JSON.stringify(many.slice(0, 2)), '[{"a":0},{"a":1}]');
	assert.deepEqual(JSON.parse(JSON.stringify(many)), [...many]);
});
