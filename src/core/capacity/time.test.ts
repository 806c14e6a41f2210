import assert from 'node:assert/strict';
import { test } from 'node:test';
import { zoneOf } from '../calendar/zone.ts';
import { needsReason, restTitle } from '../sprint/left.ts';
import { clockText, readHours } from './hours-text.ts';
import { leftOn, timerHours } from './timer.ts';

test('hours are read as people write them', () => {
	const read: [string, number | null][] = [
		['1.5', 1.5],
		['1,25', 1.25],
		['.5', 0.5],
		['1:30', 1.5],
		['0:20', 0.33],
		['90m', 1.5],
		['2h', 2],
		['1h 30m', 1.5],
		['1h30', null],
		['1:75', null],
		['', null],
		['.', null],
		['-1', null],
		['two', null],
	];
	for (const [text, hours] of read) assert.equal(readHours(text), hours, text);
	assert.equal(clockText(1.2), '1:12');
	assert.equal(clockText(0.999), '1:00');
});

test('a timer was left on after ten hours, or past the midnight of its team', () => {
	const zone = zoneOf('Europe/Lisbon');
	const at = (text: string) => Date.parse(text);
	assert.equal(leftOn(zone, at('2026-11-23T08:00Z'), at('2026-11-23T18:00Z')), false);
	assert.equal(leftOn(zone, at('2026-11-23T08:00Z'), at('2026-11-23T18:01Z')), true);
	assert.equal(leftOn(zone, at('2026-11-23T23:00Z'), at('2026-11-23T23:59Z')), false);
	assert.equal(leftOn(zone, at('2026-11-23T23:00Z'), at('2026-11-24T00:00Z')), true);
	assert.equal(timerHours(at('2026-11-23T08:00Z'), at('2026-11-23T09:12Z')), 1.2);
	assert.equal(timerHours(0, 59_999), 0, 'under a minute is nothing');
	assert.equal(timerHours(0, 60_000), 0.02);
});

test('a correction needs a reason over half the size, or over 8 hours', () => {
	assert.equal(needsReason(10, 10, 5, 'hours'), false);
	assert.equal(needsReason(10, 10, 4.9, 'hours'), true);
	assert.equal(needsReason(40, 10, 18, 'hours'), false);
	assert.equal(needsReason(40, 10, 18.5, 'hours'), true);
	assert.equal(needsReason(40, 10, 30, 'points'), false);
	assert.equal(needsReason(null, 0, 9, 'hours'), true);
});

test('the rest of a split card is named after it, and counted when that is split again', () => {
	assert.equal(restTitle('Raise the mast'), 'Raise the mast, the rest');
	assert.equal(restTitle('Raise the mast, the rest'), 'Raise the mast, the rest 2');
	assert.equal(restTitle('Raise the mast, the rest 2'), 'Raise the mast, the rest 3');
	assert.equal(restTitle('x'.repeat(300)).length, 300);
});
