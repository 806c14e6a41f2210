import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { learn, median, partsInHours, partsInPoints, placedBy, type PlannedCard } from './promise.ts';

describe('what is learned', () => {
	const sprint = (number: number, worked: number, unplanned: number, raw = 100, delivered = 40) => ({
		number,
		worked,
		unplanned,
		raw,
		delivered,
	});

	test('is what is usual until three sprints are closed', () => {
		assert.deepEqual(learn([sprint(1, 50, 5), sprint(2, 60, 6)]), {
			focus: 0.75,
			keepBack: 0.2,
			from: 0,
			perDay: null,
			delivered: null,
		});
	});

	test('counts the last six with hours: the median of focus, enough of a keep-back for most', () => {
		const closed = [
			sprint(1, 99, 99),
			sprint(2, 40, 4),
			sprint(3, 50, 10),
			sprint(4, 60, 30),
			sprint(5, 30, 0, 0),
			sprint(6, 70, 7),
			sprint(7, 80, 24),
		];
		const learned = learn(closed);
		assert.equal(learned.from, 6);
		assert.ok(Math.abs(learned.focus - 0.65) < 1e-9);
		// Of 1, 0.1, 0.2, 0.5, 0.1 and 0.3 the fifth smallest: 70% of six is rank 4.2.
		assert.equal(learned.keepBack, 0.5);
		assert.equal(learned.perDay, 40 / (100 / 8));
		assert.equal(learn(closed.map((one) => ({ ...one, worked: 300 }))).focus, 1, 'never above 1');
		const unstaffed = learn([sprint(1, 50, 5), sprint(2, 60, 6), sprint(3, 30, 0, 0)]);
		assert.deepEqual([unstaffed.from, unstaffed.focus, unstaffed.delivered], [0, 0.75, 40]);
		assert.equal(median([1, 2, 3, 10]), 2.5);
		assert.equal(median([]), null);
	});
});

describe('parts in a sprint', () => {
	const raw = new Map([
		['ann', 80],
		['bob', 40],
		['cyd', 0],
	]);

	test('promise what is left of the hours to give after the keep-back', () => {
		const cards: PlannedCard[] = [
			{ card: '1', left: 50, owners: ['ann'] },
			{ card: '2', left: 12, owners: ['ann', 'bob'] },
			{ card: '3', left: 9, owners: ['ann', 'gone'] },
			{ card: '4', left: 5, owners: ['bob'], unplanned: true },
			{ card: '5', left: 2, owners: ['cyd'] },
		];
		const [ann, bob, cyd] = partsInHours(raw, 0.75, 0.2, cards);
		assert.deepEqual([ann!.give, ann!.promise, ann!.placed, ann!.standing], [60, 48, 65, 'over']);
		assert.deepEqual([bob!.placed, bob!.surprises, bob!.standing], [6, 5, 'room']);
		assert.deepEqual([cyd!.promise, cyd!.load, cyd!.standing], [0, null, 'over']);
	});

	test('in points come from velocity by person-day, with nothing kept back', () => {
		const parts = partsInPoints(raw, 1.5, []);
		assert.deepEqual(
			parts.map((part) => part.promise),
			[15, 7.5, 0],
		);
		assert.deepEqual(
			partsInPoints(raw, null, []).map((part) => part.promise),
			[0, 0, 0],
		);
	});

	test('a card larger than anyone’s promise is over, whoever has it', () => {
		for (const owner of ['ann', 'bob'])
			assert.equal(
				partsInHours(raw, 0.75, 0.2, [{ card: '1', left: 49, owners: [owner] }]).find(
					(part) => part.person === owner,
				)!.standing,
				'over',
			);
	});

	test('hold together what is left of their cards: nothing is lost or doubled by sharing', () => {
		const card = fc.record({
			card: fc.string(),
			left: fc.integer({ min: 0, max: 60 }),
			owners: fc.uniqueArray(fc.constantFrom('ann', 'bob', 'cyd', 'gone'), { maxLength: 4 }),
			unplanned: fc.boolean(),
		});
		fc.assert(
			fc.property(fc.array(card, { maxLength: 30 }), (cards) => {
				const team = new Set(raw.keys());
				const { placed, surprises } = placedBy(cards, team);
				const held = [...placed.values(), ...surprises.values()].reduce((a, b) => a + b, 0);
				const owned = cards.filter((one) => one.owners.some((owner) => team.has(owner)));
				assert.ok(Math.abs(held - owned.reduce((sum, one) => sum + one.left, 0)) < 1e-6);
			}),
		);
	});
});
