import assert from 'node:assert/strict';
import { test } from 'node:test';
import { mulberry32 } from './chance.ts';
import { odds } from './odds.ts';
import { shareOut } from './share-out.ts';

test('sharing out 300 cards among 40 people takes less than 200 ms', () => {
	const draw = mulberry32(7);
	const cards = Array.from({ length: 300 }, (_, i) => ({
		card: `C-${1000 + i}`,
		left: 1 + Math.floor(draw() * 12),
		skills: [],
	}));
	const hands = Array.from({ length: 40 }, (_, i) => ({
		person: `p${10 + i}`,
		promise: 40 + Math.floor(draw() * 30),
		placed: 0,
		skills: [],
	}));
	shareOut(cards, hands);
	const began = performance.now();
	const { owners } = shareOut(cards, hands);
	const took = performance.now() - began;
	assert.ok(owners.size > 250);
	assert.ok(took < 200, `${took} ms`);
});

test('10,000 trials of 300 cards of 40 people take less than a second', () => {
	const cards = Array.from({ length: 300 }, (_, i) => ({
		card: String(i),
		left: 1 + (i % 9),
		owners: [`p${i % 40}`],
		skills: [],
	}));
	const raw = Object.fromEntries(Array.from({ length: 40 }, (_, i) => [`p${i}`, 80]));
	const ratios = Array.from({ length: 24 }, (_, i) => 0.6 + (i % 8) * 0.2);
	const pairs = [0.6, 0.7, 0.5].map((focus) => ({ focus, keepBack: 0.1 }));
	const began = performance.now();
	const found = odds({ cards, hands: [], raw, past: { ratios, pairs }, trials: 10_000, seed: 11 });
	const took = performance.now() - began;
	assert.ok(found!.all >= 0);
	assert.ok(took < 1000, `${took} ms`);
});
