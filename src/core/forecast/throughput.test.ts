import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { howMany, when, windowBefore } from './throughput.ts';

const P = [0.5, 0.7, 0.85, 0.95];
const counts = fc.array(fc.integer({ min: 0, max: 4 }), { minLength: 1, maxLength: 5 });

/** How likely each sum of so many days is, by going through every way that they can go. */
function everyWay(of: readonly number[], days: number): Map<number, number> {
	let ways = new Map([[0, 1]]);
	for (let t = 0; t < days; t++) {
		const next = new Map<number, number>();
		for (const [sum, n] of ways) for (const k of of) next.set(sum + k, (next.get(sum + k) ?? 0) + n);
		ways = next;
	}
	return ways;
}
const atLeast = (of: readonly number[], days: number, k: number) => {
	let [met, all] = [0, 0];
	for (const [sum, n] of everyWay(of, days)) {
		all += n;
		if (sum >= k) met += n;
	}
	return met / all;
};

test('how many is the most that every way of going reaches so surely', () =>
	fc.assert(
		fc.property(counts, fc.integer({ min: 0, max: 6 }), (of, days) => {
			for (const [i, k] of howMany(of, days, P).entries()) {
				assert.ok(atLeast(of, days, k) >= P[i]! - 1e-9);
				assert.ok(atLeast(of, days, k + 1) < P[i]! + 1e-9);
			}
		}),
	));

test('when is the first day on which so many are reached so surely', () =>
	fc.assert(
		fc.property(counts, fc.integer({ min: 1, max: 6 }), (of, items) => {
			for (const [i, t] of when(of, items, P).entries()) {
				if (t === null) {
					assert.ok(of.every((n) => n === 0) || atLeast(of, 8, items) < P[i]!);
					continue;
				}
				if (t > 8) continue;
				assert.ok(atLeast(of, t, items) >= P[i]! - 1e-9);
				assert.ok(atLeast(of, t - 1, items) < P[i]! + 1e-9);
			}
		}),
		{ numRuns: 60 },
	));

test('the surer, the fewer and the later; and each says what the other does', () =>
	fc.assert(
		fc.property(
			counts,
			fc.integer({ min: 1, max: 40 }),
			fc.integer({ min: 1, max: 30 }),
			(of, items, days) => {
				const [many, days85] = [howMany(of, days, P), when(of, items, P)];
				assert.deepEqual(
					many,
					many.toSorted((a, b) => b - a),
				);
				const far = days85.map((t) => t ?? Infinity);
				assert.deepEqual(
					far,
					far.toSorted((a, b) => a - b),
				);
				const t = days85[2];
				if (t != null) {
					assert.ok(howMany(of, t, [0.85])[0]! >= items);
					assert.ok(howMany(of, t - 1, [0.85])[0]! < items);
				}
			},
		),
	));

test('nothing to do is done already; where nothing was ever finished no date is given', () => {
	assert.deepEqual(when([1, 2], 0, P), [0, 0, 0, 0]);
	assert.deepEqual(when([0, 0], 3, P), [null, null, null, null]);
	assert.deepEqual(when([1], 1001, [0.85]), [null]);
	assert.deepEqual(when([1], 1000, [0.85]), [1000]);
});

test('the window ends yesterday, begins no earlier than the first event, and needs ten finished cards', () => {
	const finished = new Map([
		[95, 4],
		[99, 6],
		[100, 50],
	]);
	assert.deepEqual(windowBefore(finished, 94, 100), { from: 94, to: 99, counts: [0, 4, 0, 0, 0, 6] });
	assert.equal(windowBefore(finished, 96, 100), null);
	assert.equal(windowBefore(finished, 0, 100)!.counts.length, 60);
});
