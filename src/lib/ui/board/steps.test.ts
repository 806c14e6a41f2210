import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import type { CardView } from '$core/pages/board';
import { movedBy, nextBy, placeIn } from './steps.ts';

const ARROWS = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'];
const KEYS = [...ARROWS, 'Home', 'End'];

/** Lanes of columns of cards that are told apart by their ids. */
const laid = fc
	.array(fc.array(fc.nat(4), { minLength: 3, maxLength: 3 }), { minLength: 1, maxLength: 4 })
	.map((counts) =>
		counts.map((row, band) => ({
			cells: row.map((many, column) =>
				Array.from({ length: many }, (_, i) => ({ id: `${band} ${column} ${i}` }) as CardView),
			),
		})),
	);
const all = (bands: readonly { cells: CardView[][] }[]) => bands.flatMap(({ cells }) => cells.flat());

describe('going through cards by keys', () => {
	test('leads across a lane to the nearest column that has cards, and to the ends of the own one', () => {
		fc.assert(
			fc.property(laid, fc.constantFrom('ArrowLeft', 'ArrowRight', 'Home', 'End'), (bands, key) => {
				for (const card of all(bands)) {
					const from = placeIn(bands, card)!;
					const next = nextBy(bands, from, key);
					const row = bands[from.band]!.cells;
					const on = [...row.entries()].filter(([, cards]) => cards.length);
					if (key === 'ArrowLeft')
						assert.equal(next?.column, on.findLast(([column]) => column < from.column)?.[0]);
					else if (key === 'ArrowRight')
						assert.equal(next?.column, on.find(([column]) => column > from.column)?.[0]);
					else assert.equal(next?.card, from.cards.at(key === 'Home' ? 0 : -1));
					if (next) assert.ok(row[next.column]!.includes(next.card));
				}
			}),
		);
	});

	test('comes to every card of a column, over all lanes, and back the same way', () => {
		fc.assert(
			fc.property(laid, (bands) => {
				const column = bands.flatMap(({ cells }) => cells[1]!);
				const walk = (first: CardView | undefined, key: string) => {
					const seen: string[] = [];
					for (let card = first; card; card = nextBy(bands, placeIn(bands, card)!, key)?.card)
						seen.push(card.id);
					return seen;
				};
				const ids = column.map(({ id }) => id);
				assert.deepEqual(walk(column[0], 'ArrowDown'), ids);
				assert.deepEqual(walk(column.at(-1), 'ArrowUp'), ids.toReversed());
			}),
		);
	});
});

test('a card that is moved by a key comes to stand where the key says', () => {
	fc.assert(
		fc.property(laid, fc.constantFrom(...KEYS), (bands, key) => {
			for (const card of all(bands)) {
				const from = placeIn(bands, card)!;
				const to = movedBy(bands, from, key);
				const [first, last] = [from.index === 0, from.index === from.cards.length - 1];
				const nowhere = {
					ArrowLeft: from.column === 0,
					ArrowRight: from.column === 2,
					ArrowUp: first && from.band === 0,
					ArrowDown: last && from.band === bands.length - 1,
					Home: first,
					End: last,
				}[key];
				assert.equal(to === null, nowhere);
				if (!to) continue;
				const there = bands[to.band]!.cells[to.column]!.filter(({ id }) => id !== card.id);
				const place =
					to.below === undefined
						? there.length
						: to.below === null
							? 0
							: there.findIndex(({ id }) => id === to.below) + 1;
				const stays = to.band === from.band && to.column === from.column;
				if (!stays) {
					assert.ok(ARROWS.includes(key));
					assert.equal(Math.abs(to.band - from.band) + Math.abs(to.column - from.column), 1);
				} else if (key === 'ArrowUp') assert.equal(place, from.index - 1);
				else if (key === 'ArrowDown') assert.equal(place, from.index + 1);
				else assert.equal(place, key === 'Home' ? 0 : there.length);
			}
		}),
	);
});

test('of several places of a card the one in which somebody is counts', () => {
	const card = { id: 'twice' } as CardView;
	const bands = [{ cells: [[card], [card]] }];
	assert.equal(placeIn(bands, card)!.column, 0);
	assert.equal(placeIn(bands, card, { band: 0, column: 1 })!.column, 1);
	assert.equal(placeIn(bands, { id: 'nowhere' }), null);
});
