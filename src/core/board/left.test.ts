import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { cardWith } from '../testing/looking.ts';
import { leftOf, leftWithParts } from './left.ts';

/** Cards of which some are part of others, as a board has them: sums of parts stand on the whole, and nothing else does. */
const family = fc
	.array(fc.record({ left: fc.nat(40), under: fc.option(fc.nat(3), { nil: null }) }), {
		minLength: 4,
		maxLength: 12,
	})
	.map((drawn) => {
		const under = drawn.map((one, i) => (i > 3 ? one.under : null));
		return drawn.map(({ left }, i) => {
			const parts = drawn.filter((_, j) => under[j] === i);
			const sum = parts.reduce((all, part) => all + part.left, 0);
			return cardWith({
				id: `c${i}`,
				parent: under[i] === null ? null : `c${under[i]}`,
				left: parts.length ? 0 : left,
				parts: parts.length ? { cards: parts.length, done: 0, size: sum, left: sum } : null,
			});
		});
	});

test('of all cards of a board the same is left, whether wholes are meant with their parts or not', () => {
	fc.assert(fc.property(family, (cards) => assert.equal(leftWithParts(cards), leftOf(cards))));
});

test('whoever picks a whole means its parts, and counts none of them twice', () => {
	fc.assert(
		fc.property(family, fc.infiniteStream(fc.boolean()), (cards, draw) => {
			const picked = cards.filter(() => draw.next().value);
			const meant = cards.filter(
				({ id, parent }) => picked.some((one) => one.id === id) || picked.some((one) => one.id === parent),
			);
			assert.equal(leftWithParts(picked), leftOf(meant));
			const whole = cards.find(({ parts }) => parts);
			if (whole) assert.equal(leftWithParts([whole]), whole.parts!.left);
		}),
	);
});
