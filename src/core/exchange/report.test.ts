import assert from 'node:assert/strict';
import { test } from 'node:test';
import { parseDay } from '../calendar/days.ts';
import { parseInstant } from '../calendar/instant.ts';
import { agree, readVector, VECTORS } from '../testing/vectors.ts';
import { report } from './report.ts';

const MEASURED = [
	'cards',
	'days',
	'cycle',
	'ageing',
	'weeks',
	'xmr',
	'littlesLaw',
	'forecast',
	'sprints',
] as const;
const day = (text?: string) => (text ? parseDay(text)! : undefined);

for (const [name, asOf, from, to] of VECTORS)
	test(`the report of the ${name} history has its true figures`, () => {
		const { board, events, expected } = readVector(name);
		const actual = report(board, events, parseInstant(asOf)!, day(from), day(to));
		for (const part of MEASURED) agree(actual[part], expected[part], part);
	});

test('a range that ends after the as-of day is cut to it', () => {
	const { board, events } = readVector('small');
	const asOf = parseInstant('2026-04-02T12:00:00Z')!;
	assert.equal(report(board, events, asOf, undefined, day('2026-05-01')).days.at(-1)?.day, '2026-04-02');
});
