import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { parseDay } from '$core/calendar/days';
import { arrangeable } from '$core/board/arrange';
import { fieldsOf } from '$core/board/fields';
import type { CardView } from '$core/pages/board';
import { BOARD, cardWith } from '$core/testing/looking';
import { gridOf } from './grid.ts';

const fields = fieldsOf({ board: BOARD, today: parseDay('2026-11-23')!, me: 'ines' });
const ready = { id: 'a', column: 'ready', initiative: 'Winter', labels: ['mast', 'quay'] };
const making = { id: 'b', column: 'making', labels: ['quay'] };
const some = new Map([
	['ready', [cardWith(ready) as CardView]],
	['making', [cardWith(making) as CardView]],
]);

describe('a board laid out', () => {
	for (const lanes of [null, ...arrangeable(fields)])
		test(`has a lane also where there are no cards, in lanes by ${lanes?.name ?? 'nothing'}`, () => {
			const { columns, bands } = gridOf(BOARD, new Map(), { by: null, lanes, sort: [] }, fields, () => true);
			assert.ok(columns.length);
			assert.ok(bands.length);
			for (const { cells } of bands) assert.equal(cells.length, columns.length);
			// Of several, each has a name.
			assert.ok(bands.length === 1 || bands.every(({ name }) => name));
		});

	for (const lanes of arrangeable(fields))
		test(`shows each card under each of its values, in lanes by ${lanes.name}`, () => {
			const { columns, bands } = gridOf(BOARD, some, { by: null, lanes, sort: [] }, fields, () => true);
			for (const [place, { key }] of columns.entries())
				for (const one of some.get(key) ?? [])
					assert.deepEqual(
						bands.filter(({ cells }) => cells[place]!.includes(one)).map((band) => band.key),
						bands.map((band) => band.key).filter((value) => lanes.values!.of(one).includes(value)),
					);
			assert.ok(bands.every(({ name }) => name));
		});
});
