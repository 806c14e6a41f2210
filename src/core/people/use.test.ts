import assert from 'node:assert/strict';
import { test } from 'node:test';
import { parseDay } from '../calendar/days.ts';
import type { Rota } from '../capacity/hours.ts';
import { useOfPeople, weeksBefore } from './use.ts';

const day = (text: string) => parseDay(text)!;
const rota: Rota = {
	boards: [],
	weeks: [{ person: 'ines', from: 0, hours: [8, 8, 8, 8, 8, 0, 0] }],
	members: [{ person: 'ines', from: 0, until: null }],
	absences: [{ person: 'ines', from: day('2026-11-17'), to: day('2026-11-17'), hours: null }],
	shares: [],
	holidays: new Set([day('2026-11-18')]),
};

test('use is worked over the hours there were: less absences and holidays, none where there were none', () => {
	const worked = [
		{ person: 'ines', day: day('2026-11-16'), hours: 9 },
		{ person: 'ines', day: day('2026-11-20'), hours: 9 },
		{ person: 'ines', day: day('2026-11-10'), hours: 20 },
	];
	const stretches = [
		...weeksBefore(day('2026-11-25'), 2),
		{ from: day('2026-11-21'), to: day('2026-11-22') },
	];
	const [one] = useOfPeople(rota, ['ines'], worked, stretches);
	assert.deepEqual(one!.each, [
		{ worked: 20, hours: 40, use: 0.5 },
		{ worked: 18, hours: 24, use: 0.75 },
		{ worked: 0, hours: 0, use: null },
	]);
	assert.deepEqual(one!.all, { worked: 38, hours: 64, use: 38 / 64 });
});

test('whole weeks end before the week of the day', () => {
	assert.deepEqual(weeksBefore(day('2026-11-25'), 1), [{ from: day('2026-11-16'), to: day('2026-11-22') }]);
	assert.deepEqual(weeksBefore(day('2026-11-23'), 1), [{ from: day('2026-11-16'), to: day('2026-11-22') }]);
});
