import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { dayText, parseDay } from '../calendar/days.ts';
import { checkValue, FIELD_KINDS, shownValue, type FieldKind, type OwnField } from './own.ts';
import { readValue } from './typed.ts';

const today = parseDay('2026-11-23')!;
const field = (kind: FieldKind): OwnField => ({
	id: 'f',
	name: 'Depth',
	kind,
	choices: ['Shallow', 'Deep'].map((name, i) => ({ id: `c${i}`, name })),
});
const VALUES: Record<FieldKind, fc.Arbitrary<string | number | boolean>> = {
	text: fc
		.string({ minLength: 1, maxLength: 500 })
		.map((text) => text.trim())
		.filter(Boolean),
	number: fc.integer({ min: -1e9, max: 1e9 }).map((n) => n / 100),
	date: fc.integer({ min: parseDay('1900-01-01')!, max: parseDay('2199-12-31')! }).map(dayText),
	choice: fc.constantFrom('c0', 'c1'),
	'yes-no': fc.boolean(),
};

test('a value that is shown is read again as it was, and is one of its kind', () => {
	for (const kind of FIELD_KINDS)
		fc.assert(
			fc.property(VALUES[kind], (value) => {
				const own = field(kind);
				assert.deepEqual(checkValue(own, value), { ok: true, value });
				assert.deepEqual(readValue(own, shownValue(own, value), today), { ok: true, value });
			}),
		);
});

test('whatever is typed is read or refused in words that name the field, and nothing is empty', () => {
	for (const kind of FIELD_KINDS)
		fc.assert(
			fc.property(
				fc.oneof(fc.string(), fc.double(), fc.boolean(), fc.constant(null), fc.object()),
				(given) => {
					for (const found of [
						checkValue(field(kind), given),
						readValue(field(kind), typeof given === 'object' ? '' : String(given), today),
					])
						if (!found.ok) assert.match(found.reason, /Depth/);
						else if (found.value !== null) assert.deepEqual(checkValue(field(kind), found.value), found);
				},
			),
		);
	assert.deepEqual(readValue(field('text'), '  ', today), { ok: true, value: null });
	assert.equal(shownValue(field('choice'), 'gone'), '');
	assert.deepEqual(readValue(field('choice'), 'deep', today), { ok: true, value: 'c1' });
	assert.deepEqual(readValue(field('date'), '4 dec', today), { ok: true, value: '2026-12-04' });
});
