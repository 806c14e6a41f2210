import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { sprintLines } from './lines.ts';
import { readPaste } from './paste.ts';
import { pullOrder, replenishment } from './replenish.ts';

describe('pasted lines', () => {
	test('become cards, sub-cards, checklist lines and sizes', () => {
		const text = [
			'Siren test on the quay 8h',
			'\tAsk the harbour office 2 h',
			'\t- [ ] by telephone',
			'    Write the notice',
			'',
			'- Second card, 1.5 hours',
			'  [x] agreed already',
			'* Third 12,5h',
			'3. Fourth in 2 weeks',
		].join('\r\n');
		assert.deepEqual(readPaste(text, 'hours'), [
			{
				title: 'Siren test on the quay',
				size: 8,
				checklist: [],
				children: [
					{ title: 'Ask the harbour office', size: 2, checklist: [{ text: 'by telephone', done: false }] },
					{ title: 'Write the notice', size: null, checklist: [] },
				],
			},
			{
				title: 'Second card,',
				size: 1.5,
				checklist: [{ text: 'agreed already', done: true }],
				children: [],
			},
			{ title: 'Third', size: 12.5, checklist: [], children: [] },
			{ title: 'Fourth in 2 weeks', size: null, checklist: [], children: [] },
		]);
	});

	test('keep a size in the other unit as a part of the title, and one that is all of it', () => {
		assert.deepEqual(
			['Quick 5 pt', 'Quick 5h', '8h', 'Buy 12 pt'].map((line) => readPaste(line, 'points')[0]!),
			[
				{ title: 'Quick', size: 5, checklist: [], children: [] },
				{ title: 'Quick 5h', size: null, checklist: [], children: [] },
				{ title: '8h', size: null, checklist: [], children: [] },
				{ title: 'Buy', size: 12, checklist: [], children: [] },
			],
		);
		assert.equal(readPaste('Quick 5h', 'none')[0]!.size, null);
	});

	test('lose no line that has words in it', () => {
		const line = fc
			.string({ unit: 'grapheme', maxLength: 40 })
			.filter((text) => /[\p{L}\p{N}]/u.test(text) && !/[\r\n]/.test(text));
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.constantFrom('', '  ', '\t', '- ', '- [ ] '), line), { maxLength: 20 }),
				(lines) => {
					const cards = readPaste(lines.map(([before, text]) => before + text).join('\n'), 'none');
					const made = cards.flatMap((card) => [card, ...card.children]);
					const kept = made.length + made.reduce((n, card) => n + card.checklist.length, 0);
					assert.equal(kept, lines.filter(([, text]) => /\S/.test(text)).length);
					assert.ok(made.every((card) => card.title === card.title.trim() && card.title));
				},
			),
		);
	});
});

describe('the lines of a backlog', () => {
	test('stand where what is free in the next sprint is used up, and a usual sprint later each', () => {
		assert.deepEqual(sprintLines([8, 4, 6, 10, 3, 12], 14, 15), [
			{ below: 1, sprint: 1, holds: 12 },
			{ below: 2, sprint: 2, holds: 6 },
			{ below: 4, sprint: 3, holds: 13 },
		]);
		assert.deepEqual(sprintLines([5, 5], 0, 10)[0], { below: -1, sprint: 1, holds: 0 });
		assert.deepEqual(sprintLines([5, 5], 10, 0), []);
	});

	test('give a card larger than a sprint one to itself, and weigh nothing for what weighs nothing', () => {
		assert.deepEqual(sprintLines([0, 40, 0, 5], 10, 20), [
			{ below: 0, sprint: 1, holds: 0 },
			{ below: 2, sprint: 2, holds: 40 },
		]);
	});

	test('lie in order, and between two of them is no more than a sprint or one card', () => {
		fc.assert(
			fc.property(
				fc.array(fc.nat(30)),
				fc.nat(40),
				fc.integer({ min: 1, max: 40 }),
				(weights, free, usual) => {
					const lines = sprintLines(weights, free, usual, 1000);
					lines.slice(1).forEach((line, i) => {
						const inside = weights.slice(lines[i]!.below + 1, line.below + 1);
						const sum = inside.reduce((a, b) => a + b, 0);
						assert.ok(line.below > lines[i]!.below);
						assert.equal(sum, line.holds);
						assert.ok(sum <= usual || inside.filter(Boolean).length === 1, `${inside.join()} in ${usual}`);
					});
				},
			),
		);
	});
});

test('what is pulled comes by class of service, then as it stands', () => {
	const card = (number: number, kind: 'expedite' | 'fixed' | 'standard' | 'background') => ({
		number,
		class: kind,
		rank: `a${number}`,
	});
	const order = pullOrder([
		card(1, 'standard'),
		card(2, 'background'),
		card(3, 'expedite'),
		card(4, 'fixed'),
		card(5, 'standard'),
	]);
	assert.deepEqual(
		order.map((one) => one.number),
		[3, 4, 1, 5, 2],
	);
	assert.deepEqual([replenishment(5, 3), replenishment(5, 9), replenishment(null, 9)], [2, 0, Infinity]);
});
