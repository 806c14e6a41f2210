import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { mulberry32 } from './chance.ts';
import { odds, takeOff, tooLittle, type OddsInput } from './odds.ts';

describe('odds', () => {
	const ratios = Array.from({ length: 24 }, (_, i) => 0.6 + (i % 8) * 0.2);
	const pairs = [
		{ focus: 0.6, keepBack: 0.1 },
		{ focus: 0.7, keepBack: 0.2 },
		{ focus: 0.5, keepBack: 0.3 },
	];
	const input = (more: Partial<OddsInput> = {}): OddsInput => ({
		cards: [
			{ card: '1', left: 10, owners: ['ann'], skills: [] },
			{ card: '2', left: 12, owners: ['ann', 'bob'], skills: [] },
			{ card: '3', left: 9, owners: ['bob'], skills: [] },
			{ card: '4', left: 6, owners: ['ann'], skills: [] },
		],
		hands: [],
		raw: { ann: 60, bob: 40 },
		past: { ratios, pairs },
		trials: 10_000,
		seed: 11,
		...more,
	});

	/** The same by counting every pair with every combination of ratios: exact, and nothing like the simulation. */
	function exact({ cards, raw, past }: OddsInput): { all: number; each: number[] } {
		const each = cards.map(() => 0);
		let [all, n] = [0, 0];
		const kinds = [...new Set(past.ratios)];
		const weight = kinds.map((ratio) => past.ratios.filter((r) => r === ratio).length / past.ratios.length);
		for (const pair of past.pairs) {
			const go = (i: number, totals: Record<string, number>, done: boolean[], p: number): void => {
				if (i === cards.length) {
					n += p;
					if (done.every(Boolean)) all += p;
					done.forEach((one, c) => (each[c]! += one ? p : 0));
					return;
				}
				const card = cards[i]!;
				kinds.forEach((ratio, k) => {
					const next = { ...totals };
					let fits = card.owners.length > 0;
					for (const owner of card.owners) {
						next[owner] = (next[owner] ?? 0) + (card.left * ratio) / card.owners.length;
						if (next[owner]! > (raw[owner] ?? 0) * pair.focus * (1 - pair.keepBack)) fits = false;
					}
					go(i + 1, next, [...done, fits], p * weight[k]!);
				});
			};
			go(0, {}, [], 1);
		}
		return { all: all / n, each: each.map((one) => one / n) };
	}

	test('agree with a slow independent count within three standard errors', () => {
		for (const more of [
			{},
			{ raw: { ann: 45, bob: 22 }, seed: 5 },
			{ raw: { ann: 80, bob: 80 }, seed: 99 },
			{ raw: { ann: 30, bob: 15 }, seed: 3 },
		]) {
			const asked = input(more);
			const found = odds(asked)!;
			const truth = exact(asked);
			const near = (count: number, p: number, what: string) =>
				assert.ok(
					Math.abs(count / asked.trials - p) <= 3 * Math.sqrt((p * (1 - p)) / asked.trials) + 1e-9,
					`${what}: ${count / asked.trials} for ${p}`,
				);
			near(found.all, truth.all, 'all');
			found.each.forEach((one, i) => near(one.done, truth.each[i]!, one.card));
		}
	});

	test('give the same counts for the same seed, and others for another', () => {
		assert.deepEqual(odds(input()), odds(input()));
		assert.notDeepEqual(odds(input())!.each, odds(input({ seed: 12 }))!.each);
		// The generator’s known first numbers for this seed, in millionths.
		assert.deepEqual(
			[0, 1, 2].map(
				(
					(draw) => () =>
						Math.floor(draw() * 1e6)
				)(mulberry32(42)),
			),
			[601103, 448290, 852465],
		);
	});

	test('of nobody’s card are none, and without enough past there are none at all', () => {
		const found = odds(input({ cards: [{ card: '1', left: 1, owners: [], skills: [] }] }))!;
		assert.deepEqual([found.all, found.each[0]!.done, found.leftOver], [0, 0, 1]);
		assert.deepEqual(found.nobodys, ['1']);
		assert.equal(odds(input({ past: { ratios: ratios.slice(0, 19), pairs } })), null);
		assert.equal(odds(input({ past: { ratios, pairs: pairs.slice(0, 2) } })), null);
		assert.match(tooLittle({ ratios: [], pairs })!, /0 of 20 past cards/);
		assert.match(tooLittle({ ratios, pairs: [] })!, /0 of 3 sprints/);
	});

	test('of an empty sprint and of zero capacity are certain either way', () => {
		assert.equal(odds(input({ cards: [] }))!.all, 10_000);
		assert.equal(odds(input({ raw: { ann: 0, bob: 0 } }))!.all, 0);
	});

	test('of a card that nobody owns are those of whom sharing out gives it to', () => {
		const loose = { card: '5', left: 6, owners: [], skills: ['welding'] };
		const hands = [
			{ person: 'ann', promise: 99, placed: 0, skills: [] },
			{ person: 'bob', promise: 20, placed: 9, skills: ['welding'] },
		];
		const cards = [...input().cards, loose];
		const given = odds(input({ cards, hands }))!;
		assert.deepEqual(given.nobodys, []);
		assert.deepEqual(
			given.each,
			odds(input({ cards: [...input().cards, { ...loose, owners: ['bob'] }] }))!.each,
		);
		const full = odds(input({ cards, hands: [hands[0]!, { ...hands[1]!, promise: 10 }] }))!;
		assert.deepEqual([full.all, full.nobodys], [0, ['5']], 'who can do it has no room');
	});

	test('to reach a level are the least likely cards taken off, reckoned anew each time', () => {
		const tight = input({ raw: { ann: 45, bob: 22 } });
		for (const level of [0.1, 0.5, 0.9, 1]) {
			const off = takeOff(tight, level)!;
			let { cards } = tight;
			for (const card of off) {
				const found = odds({ ...tight, cards })!;
				assert.ok(found.all < level * found.trials, 'not one more than has to come off');
				const least = Math.min(...found.each.map((one) => one.done));
				assert.equal(found.each.findLast((one) => one.done === least)!.card, card);
				cards = cards.filter((known) => known.card !== card);
			}
			const after = odds({ ...tight, cards })!;
			assert.ok(after.all >= level * after.trials);
		}
		assert.deepEqual(takeOff(tight, 0), []);
		assert.equal(takeOff({ ...tight, past: { ratios: [], pairs: [] } }, 0.5), null);
	});
});
