import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { parseDay } from '../calendar/days.ts';
import { passing, type Condition } from '../board/filter.ts';
import { fieldsOf } from '../board/fields.ts';
import type { Field } from '../board/field.ts';
import { BOARD, cardWith } from '../testing/looking.ts';
import { offeredTogether, onBoard, togetherWords } from './conditions.ts';

const looking = { board: BOARD, today: parseDay('2026-11-23')!, me: 'ines' };
const here = fieldsOf(looking);
/** Another board of the team: its columns and its own field have other ids, and it has no classes. */
const there = fieldsOf({
	...looking,
	board: {
		...BOARD,
		columns: BOARD.columns.map((column) => ({ ...column, id: `other-${column.id}` })),
		labels: ['mast', 'rope'],
		fields: BOARD.fields.map((field) => ({ ...field, id: `other-${field.id}` })),
		lanes: [],
		off: ['classes'],
	},
});
const offered = offeredTogether([here, there]);
const named = (name: string) => offered.find((one) => one.name === name)!;
const passes = (fields: readonly Field[], where: Condition[], card: object): boolean => {
	const mine = onBoard(fields, where);
	return (
		mine !== null && passing({ text: '', where: mine, outside: false }, fields, undefined)(cardWith(card))
	);
};

test('fields of one name are one, with all their values; one that boards know by different ids goes by its name', () => {
	assert.equal(named('Owners').id, 'owners');
	assert.equal(named('Class').id, 'class');
	const own = BOARD.fields.find(({ kind }) => kind === 'choice')!;
	assert.equal(named(own.name).id, own.name);
	assert.deepEqual(
		named('Labels')
			.choices.map(({ name }) => name)
			.filter((name) => ['mast', 'quay', 'rope'].includes(name))
			.sort(),
		['mast', 'quay', 'rope'],
	);
	assert.deepEqual(
		named('Column').choices.map(({ key }) => key),
		[...BOARD.columns.map(({ name }) => name), ''],
	);
	assert.equal(new Set(offered.map(({ id }) => id)).size, offered.length);
});

test('each board is narrowed by its own values; what it does not have is never anything', () => {
	const column = BOARD.columns[0]!;
	const at = (not = false): Condition[] => [{ field: 'column', any: [column.name], not }];
	assert.ok(passes(here, at(), { column: column.id }));
	assert.ok(passes(there, at(), { column: `other-${column.id}` }));
	assert.ok(!passes(there, at(), { column: column.id }));
	assert.ok(!passes(here, at(true), { column: column.id }));
	const fixed = (not = false): Condition[] => [{ field: 'class', any: ['fixed'], not }];
	assert.ok(passes(here, fixed(), { class: 'fixed' }) && !passes(there, fixed(), { class: 'fixed' }));
	assert.ok(!passes(here, fixed(true), { class: 'fixed' }) && passes(there, fixed(true), { class: 'fixed' }));
	assert.ok(passes(here, [{ field: 'due', any: ['~late'], not: false }], { due: '2026-11-20' }));
	assert.ok(!passes(here, [{ field: 'labels', any: ['gone'], not: false }], { labels: ['mast'] }));
});

test('whatever is offered passes on a board as its own condition does', () =>
	fc.assert(
		fc.property(
			fc.constantFrom(...offeredTogether([here, there])).chain((field) =>
				fc.record({
					field: fc.constant(field),
					choice: fc.constantFrom(...field.choices),
					not: fc.boolean(),
				}),
			),
			fc.record({
				labels: fc.subarray(['mast', 'quay', 'rope']),
				owners: fc.subarray(['ines', 'bram']),
				due: fc.constantFrom(null, '2026-11-20', '2026-11-24'),
				column: fc.constantFrom(null, ...BOARD.columns.map(({ id }) => id)),
			}),
			({ field, choice, not }, card) => {
				const own = here.find(({ id, name }) => id === field.id || name === field.id);
				const key =
					[
						...(own?.said ?? []).map((one) => ({ key: one.key, name: one.words })),
						...(own?.values?.known ?? []),
					].find(({ key: one, name }) => one === choice.key || name === choice.key)?.key ?? choice.key;
				const alone = own ? [{ field: own.id, any: [key], not }] : [];
				const expected =
					own || not
						? passing({ text: '', where: alone, outside: false }, here, undefined)(cardWith(card))
						: false;
				assert.equal(passes(here, [{ field: field.id, any: [choice.key], not }], card), expected);
			},
		),
	));

test('a condition is said in words', () => {
	assert.equal(togetherWords(offered, { field: 'due', any: ['~late'], not: false }), 'late');
	assert.equal(
		togetherWords(offered, { field: 'labels', any: ['mast', 'rope'], not: true }),
		'not mast or rope',
	);
	assert.equal(togetherWords(offered, { field: 'gone', any: ['x'], not: false }), 'x');
});
