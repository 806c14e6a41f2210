import assert from 'node:assert/strict';
import { test } from 'node:test';
import { arrowFrom, lieOf } from './scale';

/** Where a path of straight lines goes, as it is written: M, H, V, h. */
function corners(path: string): [number, number][] {
	let [x, y] = [0, 0];
	return [...path.matchAll(/([MHVh])(-?[\d.]+)(?: (-?[\d.]+))?/g)].map(([, way, first, second]) => {
		const value = Number(first);
		if (way === 'M') [x, y] = [value, Number(second)];
		if (way === 'H') x = value;
		if (way === 'V') y = value;
		if (way === 'h') x += value;
		return [x, y];
	});
}

test('an arrow leaves the end of a bar to the right and comes to the next one from the left', () => {
	for (const from of [0, 40, 200])
		for (const to of [-60, 0, 38, 46, 60, 300])
			for (const [above, below] of [
				[10, 37],
				[64, 10],
			] as const) {
				const all = corners(arrowFrom([from, above], [to, below]));
				const [[beginX, beginY], second] = [all[0]!, all[1]!];
				const [[beforeX], [endX, endY]] = [all.at(-2)!, all.at(-1)!];
				assert.deepEqual([beginX, beginY], [from, above]);
				assert.deepEqual([endX, endY], [to - 1, below]);
				assert.ok(second[0] >= from + 6, 'to the right');
				assert.ok(beforeX <= to - 6, 'from the left');
			}
});

test('a span of days is drawn from its first to the end of its last, and never too narrow to be seen', () => {
	const lie = lieOf({ x: (day) => (day - 100) * 10, wide: 10 }, 220);
	assert.equal(lie.left(103), 250);
	assert.equal(lie.left(100) + lie.wide(100, 102), lie.left(103) - 1);
	assert.equal(lieOf({ x: (day) => day, wide: 2 }, 0).wide(5, 5), 8);
});
