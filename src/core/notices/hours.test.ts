import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { dayText, parseDay } from '../calendar/days.ts';
import { HOUR_MS, zoneOf } from '../calendar/zone.ts';
import { digestDay, hourOf, quietUntil, wallHour } from './hours.ts';

const london = zoneOf('Europe/London');
const at = (text: string) => Date.parse(text);

test('an hour of a day is found on days on which the clocks change, too', () => {
	assert.equal(hourOf(london, parseDay('2026-03-28')!, 8), at('2026-03-28T08:00:00Z'));
	assert.equal(hourOf(london, parseDay('2026-03-29')!, 8), at('2026-03-29T07:00:00Z'));
	assert.equal(hourOf(london, parseDay('2026-10-25')!, 8), at('2026-10-25T08:00:00Z'));
	// 01:00 is skipped in March: the next one is taken; in October it comes twice: the first.
	assert.equal(hourOf(london, parseDay('2026-03-29')!, 1), at('2026-03-29T01:00:00Z'));
	assert.equal(hourOf(london, parseDay('2026-10-25')!, 1), at('2026-10-25T00:00:00Z'));
});

test('quiet hours over midnight end in the morning of the right day', () => {
	assert.equal(quietUntil([20, 7], london, at('2026-11-23T21:30:00Z')), at('2026-11-24T07:00:00Z'));
	assert.equal(quietUntil([20, 7], london, at('2026-11-24T06:59:00Z')), at('2026-11-24T07:00:00Z'));
	assert.equal(quietUntil([20, 7], london, at('2026-11-24T07:00:00Z')), null);
	assert.equal(quietUntil([12, 14], london, at('2026-11-24T13:00:00Z')), at('2026-11-24T14:00:00Z'));
	assert.equal(quietUntil([12, 12], london, at('2026-11-24T12:00:00Z')), null);
	assert.equal(quietUntil(null, london, at('2026-11-24T12:00:00Z')), null);
});

test('whatever the zone and the hours: one is left in peace until they end, and not after', () => {
	const hour = fc.integer({ min: 0, max: 23 });
	fc.assert(
		fc.property(
			fc.constantFrom('Europe/London', 'America/St_Johns', 'Asia/Kathmandu', 'Pacific/Apia', 'UTC'),
			fc.tuple(hour, hour),
			fc.integer({ min: at('2026-01-01T00:00:00Z'), max: at('2027-12-31T00:00:00Z') }),
			(name, quiet, now) => {
				const zone = zoneOf(name);
				const until = quietUntil(quiet, zone, now);
				if (until === null) return;
				assert.ok(until > now && until - now <= 25 * HOUR_MS);
				assert.equal(quietUntil(quiet, zone, until), null);
			},
		),
	);
});

test('a digest is made once a day, from its hour on, however late it is looked', () => {
	fc.assert(
		fc.property(
			fc.constantFrom('Europe/London', 'America/St_Johns', 'Pacific/Apia'),
			fc.integer({ min: 0, max: 23 }),
			fc.array(fc.integer({ min: 1, max: 20 * 4 }), { maxLength: 60 }),
			(name, hour, pauses) => {
				const zone = zoneOf(name);
				let now = at('2026-03-01T00:00:00Z');
				let last: number | null = null;
				for (const quarters of pauses) {
					now += quarters * (HOUR_MS / 4);
					const day = digestDay(hour, zone, now, last);
					if (day === null) assert.ok(last === zone.day(now) || now < hourOf(zone, zone.day(now), hour));
					else {
						assert.equal(dayText(day), dayText(zone.day(now)));
						assert.ok(last === null || day > last);
						assert.ok(wallHour(zone, now) >= hour || hour === 23);
						last = day;
					}
				}
			},
		),
	);
});
