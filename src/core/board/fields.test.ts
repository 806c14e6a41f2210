import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { parseDay } from '../calendar/days.ts';
import type { CardView } from '../pages/board.ts';
import { BOARD, cardWith } from '../testing/looking.ts';
import {
	arrangeable,
	byValue,
	readArrangement,
	sorted,
	sortKeys,
	sortText,
	tally,
	valuesAmong,
} from './arrange.ts';
import { arrangedWords, fieldNamed, type Change, type Looking } from './field.ts';
import { fieldsOf } from './fields.ts';
import { conditionWords, NO_FILTER, passing, readFilter, withCondition, writeFilter } from './filter.ts';
import { intoLane } from './lanes.ts';
import { readTyped, typeable } from './typed.ts';

const TODAY = parseDay('2026-11-23')!;
const looking: Looking = { board: BOARD, today: TODAY, me: 'ines', carried: { 7: 2 } };
const fields = fieldsOf(looking);
const named = (id: string) => fieldNamed(fields, id)!;

const day = fc.constantFrom(null, '2026-10-02', '2026-11-20', '2026-11-23', '2026-11-25', '2026-12-04');
const card: fc.Arbitrary<CardView> = fc
	.record({
		column: fc.constantFrom(null, 'ready', 'making'),
		lane: fc.constantFrom(null, 'north', 'gone'),
		type: fc.constantFrom('', 'Repair', 'Once'),
		class: fc.constantFrom('expedite', 'fixed', 'standard', 'background'),
		size: fc.constantFrom(null, 3, 8),
		due: day,
		start: day,
		owners: fc.uniqueArray(fc.constantFrom('ines', 'bram', 'left')),
		labels: fc.uniqueArray(fc.constantFrom('mast', 'quay', 'old')),
		initiative: fc.constantFrom(null, 'Winter', 'Past'),
		ready: fc.boolean(),
		sprint: fc.constantFrom(null, 3, 4),
		fields: fc.record(
			{
				harbour: fc.constantFrom('n', 's'),
				seen: fc.constantFrom('2026-11-24', '2026-12-24'),
				wet: fc.boolean(),
				depth: fc.constantFrom(-2, 0, 4.5),
			},
			{ requiredKeys: [] },
		),
	})
	.map((more) => cardWith({ ...more, left: more.size ?? 0 }) as CardView);

/** A card after a change, as the commands leave it. */
function after(one: CardView, change: Change): CardView {
	switch (change.do) {
		case 'move':
			return { ...one, column: change.column };
		case 'plan':
			return { ...one, sprint: change.sprint };
		case 'due':
		case 'length':
			return { ...one, due: change.due };
		case 'start':
			return { ...one, start: change.start, ...(change.due === undefined ? {} : { due: change.due }) };
		case 'percent':
			return { ...one, percent: change.percent };
		case 'review': {
			const by = change.reviewer === undefined ? one.review?.by : change.reviewer;
			return { ...one, review: by ? { by, due: change.due ?? null } : null };
		}
		case 'title':
			return { ...one, title: change.title };
		case 'size':
			return { ...one, size: change.size, left: change.size };
		case 'left':
			return { ...one, left: change.left };
		case 'own': {
			const { [change.field]: _before, ...rest } = one.fields;
			return { ...one, fields: change.value === null ? rest : { ...rest, [change.field]: change.value } };
		}
		case 'cards': {
			const { label = [], unlabel = [], lane, ...rest } = change.change;
			const into =
				lane === undefined
					? {}
					: intoLane(BOARD.lanes, one, BOARD.lanes.find(({ id }) => id === lane) ?? null);
			const labels = [...new Set([...one.labels, ...label])].filter((name) => !unlabel.includes(name));
			return { ...one, ...rest, ...into, labels };
		}
	}
}

describe('a field', () => {
	for (const field of arrangeable(fields))
		test(`${field.name}: a card stands under its values, and under another one when it is put there`, () => {
			fc.assert(
				fc.property(card, (one) => {
					const { values } = field;
					const from = values!.of(one);
					assert.ok(from.length, 'a card without one stands under none');
					for (const key of from) assert.ok(values!.name(key));
					if (!values!.put) return;
					for (const { key } of valuesAmong(field, [one])) {
						if (from.includes(key)) continue;
						const change = values!.put(one, key, from[0]!);
						if (change) assert.ok(values!.of(after(one, change)).includes(key), `${field.id} ${key}`);
					}
				}),
			);
		});

	for (const field of fields.filter(typeable))
		test(`${field.name}: what it says of a card can be typed and says it again`, () => {
			fc.assert(
				fc.property(card, card, (one, other) => {
					const text = field.text(one);
					const read = readTyped(field, other, text, looking);
					// Names that are gone from the board are known to cards only.
					if (!read.ok)
						return assert.match(
							read.reason,
							/none of|nobody|figure|split|working days|no start|no reviewer|finished/,
						);
					// Emptied, how much is done follows from the rest of the card again.
					if (field.id === 'done' && !text) return;
					const now = read.change ? after(other, read.change) : other;
					const sorted = (words: string) => words.split(', ').sort().join();
					assert.equal(sorted(field.text(now)), sorted(text));
				}),
			);
		});

	test('whatever is typed into it is refused with a reason, or does something that it shows', () => {
		for (const [id, text, expected] of [
			['due', 'next week some day', /is not a day/],
			['due', '31.12.20026', /is not a day/],
			['size', '-3', /is not a figure/],
			['size', '10000', /is not a figure/],
			['type', 'Nothing like that', /is none of: Repair, Work/],
			['owners', 'Nobody Known', /is nobody who can own cards/],
			['harbour', 'East', /is none of: North quay, South quay/],
			['wet', 'maybe', /is neither yes nor no/],
			['title', ' ', /the title is empty/],
			['age', '3', /follows from what happens/],
			['done', '140 %', /is not a figure from 0 to 100/],
			['length', '3 days', /has no start yet/],
			['review', '4 dec 2026', /no reviewer yet/],
		] as const) {
			const read = readTyped(
				named(id),
				cardWith({ type: 'Repair', fields: { harbour: 'n', wet: true } }),
				text,
				looking,
			);
			assert.ok(!read.ok && expected.test(read.reason), `${id} ${text}: ${JSON.stringify(read)}`);
		}
	});
});

describe('a filter', () => {
	const passes = (where: [string, string[], boolean?][], one: CardView, text = '') =>
		passing(
			where.reduce((filter, [field, any, not]) => withCondition(filter, field, any, not), {
				...NO_FILTER,
				text,
			}),
			fields,
			undefined,
		)(one);

	test('lets through what has one of the values, or none of them', () => {
		const one = cardWith({ number: 7, owners: ['ines'], labels: ['mast'], due: '2026-11-20', size: null });
		for (const [where, expected] of [
			[[['owners', ['ines', 'bram']]], true],
			[[['owners', ['bram', '']]], false],
			[[['owners', ['ines'], true]], false],
			[[['owners', ['~mine']]], true],
			[[['owners', ['~mine-or-nobodys']]], true],
			[[['labels', ['quay'], true]], true],
			[
				[
					['labels', ['mast']],
					['due', ['~late']],
				],
				true,
			],
			[[['due', ['~today']]], false],
			[[['size', ['~none']]], true],
			[[['carried', ['~twice']]], true],
			[[['harbour', ['']]], true],
			[[['gone', ['x']]], true],
		] as [[string, string[], boolean?][], boolean][])
			assert.equal(passes(where, one), expected, JSON.stringify(where));
	});

	test('finds words in number, title, labels, owners, initiative and own fields, and nowhere else', () => {
		const one = cardWith({
			number: 42,
			title: 'Swap the lamp',
			labels: ['mast'],
			owners: ['ines'],
			initiative: 'Winter',
			fields: { harbour: 'n', who: 'The ferry' },
			blocked: { since: '2026-11-20T09:00:00Z', reason: 'No crane' },
		});
		for (const text of ['42', 'LAMP swap', 'mast ines', 'winter', 'north quay', 'ferry', 'crane'])
			assert.ok(passes([], one, text), text);
		for (const text of ['lamp boat', 'standard', 'ready']) assert.ok(!passes([], one, text), text);
		const described = passing({ ...NO_FILTER, text: 'boat' }, fields, undefined, new Set([one.id]));
		assert.ok(described(one), 'its description was looked through elsewhere');
	});

	test('of a running sprint lets through its own cards, or those outside it', () => {
		const [mine, other] = [cardWith({ sprint: 3 }), cardWith()];
		const inside = passing(NO_FILTER, fields, 3);
		const outside = passing({ ...NO_FILTER, outside: true }, fields, 3);
		assert.deepEqual(
			[inside(mine), inside(other), outside(mine), outside(other)],
			[true, false, false, true],
		);
		assert.ok(passing(NO_FILTER, fields, undefined)(other));
	});

	test('stands in an address and is read from it again, whatever its words are', () => {
		const key = fc.string({ unit: 'grapheme' });
		fc.assert(
			fc.property(
				fc.record({
					text: fc.string({ unit: 'grapheme' }),
					where: fc.uniqueArray(
						fc.record({
							field: fc.constantFrom('owners', 'labels', 'due', 'harbour'),
							any: fc.array(key, { minLength: 1 }),
							not: fc.boolean(),
						}),
						{ selector: ({ field }) => field },
					),
					outside: fc.boolean(),
				}),
				(filter) => {
					const url = writeFilter(new URL('http://harrow.test/boards/x?by=owners'), filter);
					assert.equal(
						JSON.stringify(readFilter(new URL(url.href).searchParams).where),
						JSON.stringify(filter.where),
					);
					assert.equal(readFilter(new URL(url.href).searchParams).text, filter.text);
					assert.equal(url.searchParams.get('by'), 'owners');
				},
			),
		);
		assert.deepEqual(readFilter(new URLSearchParams('owner=nobody&blocked')).where, [
			{ field: 'owners', any: [''], not: false },
			{ field: 'blocked', any: ['yes'], not: false },
		]);
		assert.deepEqual(readFilter(new URLSearchParams('where=nonsense&where=x:%25E0')).where, []);
	});

	test('is said in plain words', () => {
		const say = (field: string, any: string[], not = false) => conditionWords(fields, { field, any, not });
		assert.equal(say('due', ['~late', '']), 'late or no date');
		assert.equal(say('type', ['Repair', 'Work'], true), 'not Repair or Work');
		assert.equal(say('harbour', ['s']), 'South quay');
		assert.equal(say('gone', ['s']), null);
	});
});

describe('an arrangement', () => {
	test('orders by several fields, those without a value last, equal ones as they were', () => {
		fc.assert(
			fc.property(
				fc.array(card, { maxLength: 30 }),
				fc.array(fc.constantFrom(...fields.map(({ id }) => id)), { maxLength: 3 }),
				fc.boolean(),
				(cards, ids, down) => {
					const keys = ids.map((field) => ({ field, down }));
					const order = sorted(cards, keys, fields);
					assert.deepEqual(new Set(order), new Set(cards));
					assert.deepEqual(sorted(order, keys, fields), order, 'again it is the same');
					assert.deepEqual(sortKeys(sortText(keys)), keys);
					const by = ids[0] && named(ids[0]).order;
					if (!by) return;
					const empty = order.findIndex((one) => by(one) === null);
					if (empty >= 0) assert.ok(order.slice(empty).every((one) => by(one) === null));
				},
			),
		);
	});

	test('counts each card under each of its values, and in sums once', () => {
		fc.assert(
			fc.property(
				fc.array(card, { maxLength: 30 }),
				fc.constantFrom(...arrangeable(fields)),
				fc.constantFrom(...arrangeable(fields)),
				(cards, rows, columns) => {
					const counted = tally(cards, rows, columns);
					assert.equal(counted.all.length, cards.length);
					for (const [i, row] of counted.rows.entries()) {
						assert.deepEqual(
							counted.inRow[i],
							cards.filter((one) => rows.values!.of(one).includes(row.key)),
						);
						for (const [j, column] of counted.columns.entries())
							assert.deepEqual(
								counted.cells[i]![j],
								counted.inRow[i]!.filter((one) => columns.values!.of(one).includes(column.key)),
							);
					}
					assert.equal(new Set(counted.inRow.flat()).size, cards.length);
					const under = byValue(rows, cards);
					assert.deepEqual([...under.keys()].sort(), counted.rows.map(({ key }) => key).sort());
				},
			),
		);
	});

	test('is read from an address; what is no field there is left out', () => {
		const read = (text: string) => {
			const { by, lanes, sort } = readArrangement(new URLSearchParams(text), fields);
			return [by?.id ?? null, lanes?.id ?? null, sortText(sort)];
		};
		assert.deepEqual(read(''), [null, 'lane', '']);
		assert.deepEqual(read('by=owners&lanes=class&sort=due,-size,gone'), ['owners', 'class', 'due,-size']);
		assert.deepEqual(read('by=column&lanes=none'), [null, null, '']);
		assert.deepEqual(read('by=title&lanes=gone'), [null, null, '']);
		assert.equal(
			arrangedWords(named('owners'), named('class')),
			'Arranged by owners and in lanes of class; dragging hands a card over',
		);
		assert.match(arrangedWords(named('blocked'), null), /stay where they are put/);
	});

	test('a week that cards are due in stands among the others in its order', () => {
		const names = valuesAmong(named('due'), [
			cardWith({ due: '2026-12-24' }),
			cardWith({ due: '2026-10-01' }),
		]).map(({ name }) => name);
		assert.deepEqual(names, ['week of 28 Sep', 'this week', 'next week', 'week of 21 Dec', 'no date']);
	});
});
