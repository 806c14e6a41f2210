import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { CLASSES, intoLane, laneOf, roomForOthers, type Lane } from './lanes.ts';

const lanes = fc
	.uniqueArray(fc.constantFrom(...CLASSES), { maxLength: 4 })
	.chain((classes) =>
		fc
			.nat(classes.length < 4 ? 3 : 0)
			.map((free): Lane[] => [
				...classes.map((one) => ({ id: one, class: one })),
				...Array.from({ length: free }, (_, i) => ({ id: `free ${i}`, class: null })),
			]),
	)
	.chain((all) => fc.shuffledSubarray(all, { minLength: all.length }));
const card = fc.record({
	class: fc.constantFrom(...CLASSES),
	lane: fc.constantFrom(null, 'free 0', 'free 1', 'free 2', 'gone'),
});

test('a card that is put into a lane stands in it, and in none when it is taken out', () => {
	fc.assert(
		fc.property(lanes, card, (all, one) => {
			for (const lane of all) assert.equal(laneOf(all, intoLane(all, one, lane))?.id, lane.id);
			if (roomForOthers(all)) assert.equal(laneOf(all, intoLane(all, one, null)), null);
		}),
	);
});

test('a card stands in one lane at most: that of its class before the one that it was put in', () => {
	fc.assert(
		fc.property(lanes, card, (all, one) => {
			const lane = laneOf(all, one);
			const classed = all.find((known) => known.class === one.class);
			assert.equal(lane?.id, (classed ?? all.find((known) => known.id === one.lane))?.id);
		}),
	);
});

test('a card keeps its class where no lane asks for another one', () => {
	const free: Lane[] = [{ id: 'north', class: null }];
	assert.deepEqual(intoLane(free, { class: 'fixed', lane: null }, free[0]!), {
		class: 'fixed',
		lane: 'north',
	});
	const urgent: Lane[] = [{ id: 'urgent', class: 'expedite' }];
	assert.deepEqual(intoLane(urgent, { class: 'fixed', lane: null }, null), { class: 'fixed', lane: null });
	assert.deepEqual(intoLane(urgent, { class: 'expedite', lane: null }, null), {
		class: 'standard',
		lane: null,
	});
});
