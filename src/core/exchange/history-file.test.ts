import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { FILED_EVENTS } from '../events/kinds.ts';
import { readVector, vectorFile, VECTORS } from '../testing/vectors.ts';
import { readBoardFile, writeBoardFile } from './board-file.ts';
import { readHistory, writeHistory } from './history-file.ts';
import { instantText, parseInstant } from '../calendar/instant.ts';

const { board } = readVector('small');
const HEADER = 'card,at,event,value';
const lines = (text: string) => {
	const read = readHistory(text, board);
	return read.ok ? [] : read.errors.map((error) => error.line);
};

describe('reading', () => {
	test('every line that cannot be read is named', () => {
		const bad = readBoardFile(vectorFile('bad/board.json'));
		assert.ok(bad.ok);
		const read = readHistory(vectorFile('bad/history.csv'), bad.value);
		assert.ok(!read.ok);
		assert.deepEqual(
			read.errors.map((error) => error.line),
			[3, 4, 5, 6, 7, 8, 9, 10],
		);
	});

	test('a line is where its record starts, over quoted line breaks and blank lines, whatever ends the lines', () => {
		for (const end of ['\n', '\r\n', '\r'])
			assert.deepEqual(
				lines(
					[
						HEADER,
						'',
						'S-1,2026-03-20T10:00Z,created,"two',
						'lines"',
						'',
						'  ',
						'S-1,never,created,x',
						'S-1,2026-03-20T10:00Z,danced,"a',
						'b"',
					].join(end),
				),
				[7, 8],
				JSON.stringify(end),
			);
	});

	test('a wrong header is line 1, and so is none', () => {
		for (const text of [
			'',
			'\n',
			`\n${HEADER}`,
			'card,at,event',
			'Card,at,event,value\nS-1,never,x,y',
			`${HEADER},more`,
		])
			assert.deepEqual(lines(text), [1], JSON.stringify(text));
	});

	test('a quote that is never closed is named where it opens', () => {
		assert.deepEqual(
			lines(`${HEADER}\nS-1,2026-03-20T10:00Z,created,fine\nS-1,2026-03-20T10:00Z,created,"never\nclosed`),
			[3],
		);
	});

	test('a long history is read piece by piece as if at once: over quoted line breaks, bad lines and open quotes', () => {
		const line = (value: string) => `S-1,2026-03-20T10:00Z,created,${value}`;
		const words = '"with a quote "" and a, comma"';
		for (const long of [`"${'two\nlines '.repeat(40)}"`, `"${'\n'.repeat(200_000)}"`]) {
			const height = long.split('\n').length;
			const many = Array.from({ length: 40_000 / height }, (_, i) => line(i % 2 ? long : words));
			const before = many.reduce((sum, one) => sum + one.split('\n').length, 1);
			const read = readHistory([HEADER, ...many, line(long)].join('\n'), board);
			assert.ok(read.ok);
			assert.equal(read.events.length, many.length + 1);
			assert.equal([...read.events].at(-1)!.value, long.slice(1, -1));
			assert.deepEqual(
				lines([HEADER, ...many, line(long), 'S-1,never,created,x', ...many, line('"open')].join('\n')),
				[before + height + 1, before + height + 2 + before - 1],
			);
		}
	});

	test('figures are plain numbers from 0 on', () => {
		const line = (value: string) => lines(`${HEADER}\nS-1,2026-03-20T10:00Z,sized,${value}`).length === 0;
		for (const fine of ['0', '8', '2.5', '.5', '1e2']) assert.ok(line(fine), fine);
		for (const wrong of ['', '-1', 'x', '1,2', 'NaN', 'Infinity', '1e999', '0x10', ' '])
			assert.ok(!line(wrong), wrong);
	});

	test('a sprint is known, and not closed before then; at its very close it still takes cards', () => {
		const line = (at: string, value: string) => lines(`${HEADER}\nS-1,${at},sprint,${value}`).length === 0;
		assert.ok(line('2026-03-27T17:00:00Z', '1'));
		assert.ok(!line('2026-03-27T17:00:00.001Z', '1'));
		assert.ok(!line('2026-03-20T10:00Z', '01'));
		assert.ok(line('2026-12-20T10:00Z', ''));
	});

	test('events of one instant keep the order of the file, others are put in time order', () => {
		const read = readHistory(
			`\uFEFF${HEADER}\nB,2026-03-21T10:00Z,created,second\nA,2026-03-20T11:00+01:00,created,first\nA,2026-03-21T10:00Z,owner,third`,
			board,
		);
		assert.ok(read.ok);
		assert.deepEqual(
			[...read.events].map((event) => event.value),
			['first', 'second', 'third'],
		);
	});
});

test('what is written is read again as it was', () => {
	const event = fc.record(
		{
			card: fc.string({ minLength: 1 }).filter((card) => card.trim() !== '' && !card.includes('\r')),
			at: fc.integer({ min: 0, max: 4e12 }),
			event: fc.constantFrom(
				...FILED_EVENTS.filter((kind) => ['created', 'blocked', 'owner', 'label', 'archived'].includes(kind)),
			),
			value: fc.string().filter((value) => !value.includes('\r')),
		},
		{ noNullPrototype: true },
	);
	fc.assert(
		fc.property(fc.array(event), fc.integer({ min: 1, max: 90 }), (events, length) => {
			const text = writeHistory(events).replaceAll('\n', '\r\n');
			// However it comes in pieces, it is the same.
			const pieces = text.match(new RegExp(`.{1,${length}}`, 'gs'))!;
			const read = readHistory(pieces, board);
			assert.ok(read.ok);
			assert.deepEqual(
				[...read.events],
				[...events].sort((a, b) => a.at - b.at),
			);
		}),
	);
});

describe('instants', () => {
	test('need a date, hours, minutes and an offset', () => {
		assert.equal(parseInstant('2026-03-20T10:00Z'), Date.UTC(2026, 2, 20, 10));
		assert.equal(parseInstant('2026-03-20T10:00:30.1239+05:30'), Date.UTC(2026, 2, 20, 4, 30, 30, 123));
		assert.equal(parseInstant('2026-03-20T10:00-00:00'), Date.UTC(2026, 2, 20, 10));
		for (const wrong of [
			'2026-03-20',
			'2026-03-20T10:00',
			'2026-02-30T10:00Z',
			'2026-03-20T24:00Z',
			'2026-03-20T10:60Z',
			'2026-03-20 10:00Z',
			'2026-03-20T10Z',
			' 2026-03-20T10:00Z',
			'2026-03-20T10:00:00.Z',
		])
			assert.equal(parseInstant(wrong), null, wrong);
	});

	test('are written as they are read', () => {
		fc.assert(
			fc.property(fc.integer({ min: -6e13, max: 2e14 }), (at) => parseInstant(instantText(at)) === at),
		);
	});
});

describe('board files', () => {
	const good = JSON.parse(vectorFile('small/board.json'));
	const errors = (change: object) => {
		const read = readBoardFile(JSON.stringify({ ...good, ...change }));
		return read.ok ? [] : read.errors;
	};
	test('what is wrong is said', () => {
		for (const [change, words] of [
			[{ timeZone: 'Mars/Base' }, /unknown time zone "Mars\/Base"/],
			[{ columns: [{ name: 'A', kind: 'heap' }], commitment: 'A' }, /unknown kind "heap"/],
			[
				{
					columns: [
						{ name: 'A', kind: 'work' },
						{ name: 'A', kind: 'done' },
					],
					commitment: 'A',
				},
				/two columns are named "A"/,
			],
			[{ columns: [{ name: 'A', kind: 'work', limit: 0 }], commitment: 'A' }, /limit of column "A"/],
			[{ commitment: 'Nowhere' }, /no column "Nowhere"/],
			[
				{
					columns: [
						{ name: 'A', kind: 'work', was: ['B'] },
						{ name: 'B', kind: 'done' },
					],
					commitment: 'A',
				},
				/two columns are named "B"/,
			],
			[{ columns: [{ name: 'A', kind: 'work', was: 'B' }], commitment: 'A' }, /"was" of column "A"/],
			[{ columns: [{ name: 'A', kind: 'work', retired: 1 }], commitment: 'A' }, /"retired" of column "A"/],
			[{ unit: 'days' }, /hours or points/],
			[
				{ sprints: [{ number: 1, starts: '2026-03-02', ends: '2026-03-01' }] },
				/sprint 1 ends before it starts/,
			],
			[
				{
					sprints: [
						{
							number: 1,
							starts: '2026-03-02',
							ends: '2026-03-06',
							startedAt: '2026-03-02T09:00Z',
							closedAt: '2026-03-01T09:00Z',
						},
					],
				},
				/closes before its start/,
			],
			[{ sprints: 'none' }, /"sprints" must be a list/],
		] as const)
			assert.match(errors(change).join('; '), words);
		for (const text of ['', '{', '[]', 'null']) assert.ok(!readBoardFile(text).ok, text);
	});

	test('are written as they are read', () => {
		for (const [name] of VECTORS) {
			const { board: read } = readVector(name);
			const again = readBoardFile(writeBoardFile(read));
			assert.ok(again.ok);
			assert.deepEqual({ ...again.value, zone: again.value.zone.name }, { ...read, zone: read.zone.name });
		}
	});
});
