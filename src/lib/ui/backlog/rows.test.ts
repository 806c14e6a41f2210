import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { CardView } from '$core/pages/board';
import { onePlace } from './rows.ts';

const card = (id: string, parent: string | null = null) => ({ id, parent }) as CardView;
const list = ['a', 'b', 'c', 'd'].map((id) => card(id));
const [a, b, c, d] = list as [CardView, CardView, CardView, CardView];

describe('one place up or down in a list', () => {
	it('is below the card that is passed, or on top', () => {
		assert.equal(onePlace(list, [b], 1), 'c');
		assert.equal(onePlace(list, [c], -1), 'a');
		assert.equal(onePlace(list, [b], -1), null);
	});

	it('stays at either end', () => {
		assert.equal(onePlace(list, [a], -1), undefined);
		assert.equal(onePlace(list, [d], 1), undefined);
	});

	it('takes several together, and passes a parent with its parts along', () => {
		assert.equal(onePlace(list, [b, d], 1), 'c');
		assert.equal(onePlace(list, [b, d], -1), null);
		const family = [a, b, card('part', 'b'), c];
		assert.equal(onePlace(family, [b], 1), 'c');
	});

	it('up and then down again is where it was', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 12 }), fc.nat(), (n, at) => {
				const many = Array.from({ length: n }, (_, i) => card(String(i)));
				const one = many[at % n]!;
				const under = onePlace(many, [one], -1);
				if (under === undefined) return assert.equal(one, many[0]);
				const others = many.filter((other) => other !== one);
				others.splice(others.findIndex(({ id }) => id === under) + 1, 0, one);
				const back = onePlace(others, [one], 1);
				assert.equal(back, many[(at % n) - 1]!.id);
			}),
		);
	});
});
