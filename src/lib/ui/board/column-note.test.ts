import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Field } from '$core/board/field';
import type { CardView, ColumnView } from '$core/pages/board';
import { noteOf } from './column-note';

const cards = (...some: Partial<CardView>[]) => some.map((card) => ({ left: 0, ...card }) as CardView);
const column = (view: Partial<ColumnView>, all: CardView[], shown = all) => ({
	view: { kind: 'work', limit: null, ...view } as ColumnView,
	all,
	shown,
});
const owner = { name: 'Owner' } as Field;

test('what stands under the name of a column says what its kind asks for', () => {
	const three = cards({ left: 2, sprint: 4 }, { left: 3, sprint: 3 }, { left: 5, parts: 2 } as never);
	assert.equal(noteOf(column({}, three, three.slice(1)), 'hours', null, 4), '2 of 3 shown');
	assert.equal(noteOf(column({ kind: 'queue' }, three), 'hours', null, 4), '3 wait');
	assert.equal(noteOf(column({}, three), 'hours', null, 4), '3 in hand');
	assert.equal(noteOf(column({ limit: 3 }, three), 'hours', null, 4), '', 'its slots are drawn');
	assert.equal(noteOf(column({ limit: 2 }, three), 'hours', null, 4), '3 of 2');
	assert.equal(noteOf(column({ kind: 'done' }, three), 'hours', null, 4), '1 this sprint, 2 outside it');
	assert.equal(noteOf(column({ kind: 'done' }, three.slice(0, 1)), 'hours', null, 4), '1 this sprint');
	assert.equal(noteOf(column({ kind: 'done' }, three), 'hours', null, undefined), '3 in two weeks');
});

test('under the value of a field stands what is left of its cards, that of a whole with its parts', () => {
	const three = cards({ left: 2 }, { left: 3 }, { left: 5, parts: 2 } as never);
	assert.equal(noteOf(column({}, three), 'hours', owner, 4), '3 cards, 5 h');
	assert.equal(noteOf(column({}, three), 'none', owner, 4), '3 cards');
	assert.equal(noteOf(column({}, []), 'hours', owner, 4), 'no cards');
});
