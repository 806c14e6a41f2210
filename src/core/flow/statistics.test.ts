import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { littlesLaw } from './balance.ts';
import { mean, percentile, summary } from './percentile.ts';
import { processLimits } from './process-limits.ts';
import { finishedByWeek } from './weeks.ts';

describe('percentiles by nearest rank', () => {
	test('are figures that occurred', () => {
		assert.equal(percentile([1, 2, 3, 4], 50), 2);
		assert.equal(percentile([1, 2, 3, 4], 51), 3);
		assert.equal(percentile([7], 95), 7);
		assert.equal(percentile([], 50), null);
		// 0.55 × 100 is a little more than 55 in floating point; the rank must not move for it.
		assert.equal(
			percentile(
				Array.from({ length: 100 }, (_, i) => i + 1),
				55,
			),
			55,
		);
	});

	test('hold at least their share of the list at or below them, and no smaller figure does', () => {
		fc.assert(
			fc.property(fc.array(fc.nat(50), { minLength: 1 }), fc.integer({ min: 1, max: 100 }), (list, p) => {
				const sorted = [...list].sort((a, b) => a - b);
				const found = percentile(sorted, p)!;
				const share = (x: number) => sorted.filter((y) => y <= x).length;
				assert.ok(share(found) * 100 >= p * sorted.length);
				assert.ok(share(found - 1) * 100 < p * sorted.length);
			}),
		);
	});

	test('a summary of nothing is nothing', () => {
		assert.equal(summary([]), null);
		assert.equal(mean([]), null);
		assert.deepEqual(summary([3, 1, 2]), { n: 3, p50: 2, p70: 3, p85: 3, p95: 3, mean: 2 });
	});
});

describe('natural process limits', () => {
	test('come from the average moving range', () => {
		const limits = processLimits([4, 6, 5, 7, 4, 4])!;
		assert.equal(limits.mean, 5);
		assert.equal(limits.averageRange, (2 + 1 + 2 + 3 + 0) / 5);
		assert.equal(limits.upper, 5 + 2.66 * 1.6);
		assert.equal(limits.lower, 5 - 2.66 * 1.6);
		assert.equal(limits.rangeLimit, 3.267 * 1.6);
		assert.deepEqual(limits.signals, []);
	});

	test('need six points, and are not below 0 for counts', () => {
		assert.equal(processLimits([1, 2, 3, 4, 5]), null);
		assert.equal(processLimits([0, 9, 0, 9, 0, 9])!.lower, 0);
	});

	test('a point outside is a signal', () => {
		assert.deepEqual(
			processLimits([5, 5, 6, 5, 5, 6, 5, 20, 5, 5])!.signals.filter((signal) => signal.rule === 'outside'),
			[{ index: 7, rule: 'outside' }],
		);
	});

	test('eight in a row on one side are a signal from the eighth on; a point on the mean ends a run', () => {
		const run = [4, 4, 4, 4, 4, 4, 4, 4, 6, 6, 6, 6, 6, 6, 6, 6];
		assert.deepEqual(
			processLimits(run)!
				.signals.filter((signal) => signal.rule === 'run')
				.map((signal) => signal.index),
			[7, 15],
		);
		const ended = [4, 4, 4, 5, 4, 4, 4, 4, 6, 6, 6, 5, 6, 6, 6, 6];
		assert.deepEqual(
			processLimits(ended)!.signals.filter((signal) => signal.rule === 'run'),
			[],
		);
	});

	test('say nothing of a series that does not move', () => {
		assert.deepEqual(processLimits([3, 3, 3, 3, 3, 3, 3, 3, 3])!.signals, []);
	});

	test('a series and its mirror image have their signals at the same points', () => {
		fc.assert(
			fc.property(fc.array(fc.integer({ min: 40, max: 60 }), { minLength: 6, maxLength: 30 }), (series) => {
				const [one, other] = [processLimits(series)!, processLimits(series.map((x) => 100 - x))!];
				if (one.lower > 0 && other.lower > 0) assert.deepEqual(one.signals, other.signals);
			}),
		);
	});
});

describe('Little’s law', () => {
	test('work in hand is throughput times cycle time', () => {
		const law = littlesLaw([2, 2, 2, 2], [48, 48])!;
		assert.deepEqual([law.throughputPerDay, law.meanCycleDays, law.implied, law.ratio], [0.5, 2, 1, 2]);
	});
	test('says nothing without a finish, and no ratio where nothing is implied', () => {
		assert.equal(littlesLaw([1, 2], []), null);
		assert.equal(littlesLaw([1, 2], [0])!.ratio, null);
	});
});

describe('weeks', () => {
	const monday = 20_780; // 2026-11-23
	test('are whole, inside the range, and over', () => {
		assert.deepEqual(
			finishedByWeek([], monday - 14, monday, monday).map((week) => week.week),
			['2026-W46', '2026-W47'],
		);
		assert.deepEqual(
			finishedByWeek([], monday - 13, monday, monday).map((week) => week.week),
			['2026-W47'],
		);
		assert.deepEqual(finishedByWeek([], monday - 14, monday + 6, monday + 6).length, 2);
	});
	test('count every finish that lies in one of them, once', () => {
		fc.assert(
			fc.property(
				fc.array(fc.integer({ min: 20_600, max: 20_900 })),
				fc.integer({ min: 20_600, max: 20_700 }),
				fc.nat(200),
				(finished, from, length) => {
					const each = finished.map((day) => [day, 1] as const);
					const weeks = finishedByWeek(each, from, from + length, 20_850);
					const inside = finished.filter((day) =>
						weeks.some((week) => day >= week.monday && day < week.monday + 7),
					);
					assert.equal(
						weeks.reduce((sum, week) => sum + week.finished, 0),
						inside.length,
					);
				},
			),
		);
	});
});
