import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { MineCard } from '../pages/mine.ts';
import { cardWith } from '../testing/looking.ts';
import { mineGroups } from './groups.ts';

const card: fc.Arbitrary<MineCard> = fc
	.record({
		clock: fc.constantFrom('none', 'running', 'done'),
		owners: fc.subarray(['ines', 'bram']),
		waits: fc.subarray(['TRY-1']),
		blocked: fc.constantFrom(null, { since: '2026-11-20T09:00:00Z', reason: 'No crane' }),
		asked: fc.constantFrom(null, { comment: 3, who: 'Bram', text: 'Is it?' }),
	})
	.map(
		({ asked, ...more }) =>
			({ ...cardWith(more as Parameters<typeof cardWith>[0]), asked }) as unknown as MineCard,
	);

test('each of one’s own open cards, and each that one is asked on, stands in one group, in its order', () => {
	fc.assert(
		fc.property(fc.array(card), (cards) => {
			const { inHand, asked, next, waits } = mineGroups(cards, 'ines');
			const all = [inHand, asked, next, waits];
			const meant = cards.filter((one) => one.asked || (one.owners.includes('ines') && one.clock !== 'done'));
			assert.deepEqual(
				all.flat().sort((a, b) => cards.indexOf(a) - cards.indexOf(b)),
				meant,
			);
			for (const group of all)
				assert.deepEqual(
					group,
					group.toSorted((a, b) => cards.indexOf(a) - cards.indexOf(b)),
				);
			assert.ok(inHand.every(({ clock }) => clock === 'running'));
			assert.ok(next.every(({ blocked, waits: others }) => !blocked && !others.length));
			assert.ok(waits.every(({ blocked, waits: others }) => blocked ?? others.length));
		}),
	);
});
