import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { shareOut, type Hand, type LooseCard } from './share-out.ts';

describe('sharing out', () => {
	const hand = (person: string, promise: number, placed = 0, skills: string[] = []): Hand => ({
		person,
		promise,
		placed,
		skills,
	});

	test('gives each card to who has most room for it, and then evens out', () => {
		const { owners, placed } = shareOut(
			[
				{ card: '1', left: 10, skills: [] },
				{ card: '2', left: 6, skills: ['radio'] },
				{ card: '3', left: 30, skills: [] },
				{ card: '4', left: 4, skills: [] },
			],
			[hand('ann', 20), hand('bob', 18, 6, ['radio'])],
		);
		assert.deepEqual([...owners].sort(), [
			['1', 'ann'],
			['2', 'bob'],
			['4', 'ann'],
		]);
		assert.deepEqual(
			[...placed],
			[
				['ann', 14],
				['bob', 12],
			],
		);
	});

	test('exchanges two cards where no single move helps', () => {
		// One by one: 9 to ann, 8 to bob, 5 to bob (most room), 2 to ann; 8 and 5 against 9 and 2. An exchange evens it.
		const { placed } = shareOut(
			[9, 8, 5, 2].map((left, i) => ({ card: String(i), left, skills: [] })),
			[hand('ann', 14), hand('bob', 14)],
		);
		assert.ok(Math.max(...placed.values()) <= 13);
	});

	const cards = fc.array(
		fc.record({
			left: fc.integer({ min: 0, max: 20 }),
			skills: fc.subarray(['radio', 'text'] as string[]),
		}),
		{ maxLength: 14 },
	);
	const hands = fc.array(
		fc.record({
			promise: fc.integer({ min: 0, max: 40 }),
			placed: fc.integer({ min: 0, max: 50 }),
			skills: fc.subarray(['radio', 'text'] as string[]),
		}),
		{ minLength: 1, maxLength: 5 },
	);
	const given = fc
		.tuple(cards, hands)
		.map(([c, h]): [LooseCard[], Hand[]] => [
			c.map((card, i) => ({ ...card, card: `C-${i + 10}` })),
			h.map((one, i) => ({ ...one, person: `p${i}` })),
		]);
	const load = (placed: number, promise: number) =>
		promise > 0 ? placed / promise : placed > 0 ? Infinity : 0;

	test('is deterministic, keeps skills and fit, and never makes the largest load worse than 1', () => {
		fc.assert(
			fc.property(given, ([c, h]) => {
				const found = shareOut(c, h);
				const reversed = shareOut(c, [...h].reverse());
				assert.deepEqual([...found.owners].sort(), [...reversed.owners].sort());
				const sums = new Map(h.map((one) => [one.person, one.placed]));
				for (const [key, person] of found.owners) {
					const card = c.find((one) => one.card === key)!;
					const one = h.find((known) => known.person === person)!;
					assert.ok(card.skills.every((skill) => one.skills.includes(skill)));
					sums.set(person, sums.get(person)! + card.left);
				}
				for (const one of h) {
					assert.ok(Math.abs(sums.get(one.person)! - found.placed.get(one.person)!) < 1e-6);
					// Only who was over by cards that had owners before may still be.
					if (sums.get(one.person)! > one.placed) assert.ok(sums.get(one.person)! <= one.promise + 1e-6);
				}
				const largest = (of: (one: Hand) => number) =>
					Math.max(...h.map((one) => load(of(one), one.promise)));
				assert.ok(
					largest((one) => found.placed.get(one.person)!) <=
						Math.max(
							1,
							largest((one) => one.placed),
						) +
							1e-9,
				);
			}),
			{ numRuns: 500 },
		);
	});

	test('leaves no single move that would lower the largest load', () => {
		fc.assert(
			fc.property(given, ([c, h]) => {
				const { owners, placed } = shareOut(c, h);
				const loads = h.map((one) => load(placed.get(one.person)!, one.promise));
				const top = Math.max(...loads);
				if (loads.filter((one) => one > top - 1e-9).length > 1) return;
				const from = h[loads.indexOf(top)]!;
				for (const card of c)
					if (owners.get(card.card) === from.person)
						for (const to of h) {
							if (to === from || !card.skills.every((skill) => to.skills.includes(skill))) continue;
							const more = placed.get(to.person)! + card.left;
							if (more > to.promise) continue;
							assert.ok(
								Math.max(load(placed.get(from.person)! - card.left, from.promise), load(more, to.promise)) >=
									top - 1e-6,
							);
						}
			}),
			{ numRuns: 500 },
		);
	});
});
