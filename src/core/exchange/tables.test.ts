import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { dayText, parseDay } from '../calendar/days.ts';
import { zoneOf } from '../calendar/zone.ts';
import { stringify } from 'csv-stringify/sync';
import { cellOf, type Looking } from '../board/field.ts';
import { fieldsOf } from '../board/fields.ts';
import type { CardView } from '../pages/board.ts';
import { BOARD, cardWith } from '../testing/looking.ts';
import { readCalendar } from './calendar-file.ts';
import { badLines, guessMapping, readCards, readTable, tableHeads } from './card-file.ts';

const looking: Looking = {
	board: {
		...BOARD,
		people: [
			{ ...BOARD.people[0]!, id: 'p1', name: 'Ines Okoro' },
			{ ...BOARD.people[0]!, id: 'p2', name: 'Bram Tolver' },
		],
		types: [BOARD.types[1]!, BOARD.types[0]!],
	},
	today: parseDay('2026-11-23')!,
	me: null,
};
const heads = tableHeads(fieldsOf(looking));
const read = (text: string) => {
	const found = readTable(text);
	assert.ok(found.ok);
	return readCards(found.table, guessMapping(found.table, heads), looking);
};

describe('a table of cards', () => {
	test('is read by the words of its header, whatever separates its fields', () => {
		const text = [
			'Summary;Estimate;Tags;Assignee;Due date;Class of service;Part of;Notes;Kind',
			'Siren test;8h;alerts, quay;bram tolver;2026-12-04;Fixed date;;"Two lines',
			'of text; and more";Repair',
			'Ask the office;1,5;;;;;Siren test;;',
		].join('\r\n');
		const { cards, errors } = read(`\uFEFF${text}`);
		assert.deepEqual(errors, []);
		const [first, second] = cards;
		assert.deepEqual(
			{ ...first, description: first!.description!.length },
			{
				line: 2,
				title: 'Siren test',
				description: 27,
				size: 8,
				type: 'Repair',
				class: 'fixed',
				labels: ['alerts', 'quay'],
				owners: ['p2'],
				due: '2026-12-04',
			},
		);
		assert.deepEqual([second!.line, second!.size, second!.parent], [4, 1.5, 2]);
	});

	test('that was saved gives back every field that it has a column for', () => {
		const whole = {
			title: 'Re-hang the bell, twice',
			size: 6.5,
			type: 'Repair',
			class: 'background',
			labels: ['mast', 'quay'],
			owners: ['p2', 'p1'],
			start: '2026-11-24',
			due: '2026-12-04',
			initiative: 'Winter',
			ready: true,
			fields: { harbour: 's', seen: '2026-12-24', wet: false, depth: -2.5, who: 'The ferry' },
		} as const;
		const card = cardWith(whole as unknown as Partial<CardView>);
		const columns = fieldsOf(looking).filter(({ id }) => heads.some((head) => head.id === id));
		for (const field of columns) assert.notEqual(cellOf(field, card), '', `${field.name} is tried`);
		const { cards, errors } = read(
			stringify([columns.map(({ name }) => name.toLowerCase()), columns.map((field) => cellOf(field, card))]),
		);
		assert.deepEqual(errors, []);
		assert.deepEqual(cards, [{ line: 2, ...whole }]);
	});

	test('names every line that cannot be read, all of them', () => {
		const { errors } = read(
			[
				'title,size,type,class,owner,due,start,parent',
				',3,,,,,,',
				'A,-2,,,,,,',
				'B,much,,,,,,',
				'C,1,Chore,,,,,',
				'D,1,,urgent,,,,',
				'E,1,,,Nobody Known,,,',
				'F,1,,,,31.2.2026,,',
				'G,1,,,,2026-12-01,2026-12-04,',
				'H,1,,,,,,Not there',
				`${'x'.repeat(301)},1,,,,,,`,
			].join('\n'),
		);
		assert.deepEqual(
			errors.map(({ line, reason }) => `${line} ${reason}`),
			[
				'2 the title is empty',
				'3 size: “-2” is not a figure from 0 to 9,999',
				'4 size: “much” is not a figure from 0 to 9,999',
				'5 type: “Chore” is none of: Work, Repair, no type',
				'6 class: “urgent” is none of: Expedite, Fixed date, Standard, Background',
				'7 owners: “Nobody Known” is nobody who can own cards here',
				'8 due: “31.2.2026” is not a day such as 2026-12-04 or 4.12.2026',
				'9 it starts after it is due',
				'10 no card on an earlier line is called “Not there”',
				'11 the title has 301 characters; at most 300 are kept',
			],
		);
	});

	test('gives its good lines, and the bad ones as a table that says what is wrong', () => {
		const text =
			'title,size,due,owner,part of\nMend it,4h,4.12.,,\nWrong size,much,,,\nA part,1,,,Wrong size\nTwins,1,,Sam Pike,\nThe other,1,,sam pike (schools),\n"\'=1+1",2,fri,,\n';
		const found = readTable(text);
		assert.ok(found.ok);
		const people = [
			...looking.board.people,
			...['Boatman', 'Schools'].map((title) => ({
				...looking.board.people[0]!,
				id: title,
				name: 'Sam Pike',
				title,
			})),
		];
		const twins = { ...looking, board: { ...looking.board, people } };
		const { cards, errors } = readCards(found.table, guessMapping(found.table, heads), twins);
		assert.deepEqual(
			cards.map(({ line, title, size, due, owners }) => [line, title, size, due, owners]),
			[
				[2, 'Mend it', 4, '2026-12-04', undefined],
				[6, 'The other', 1, undefined, ['Schools']],
				[7, '=1+1', 2, '2026-11-27', undefined],
			],
			'a quote mark before a formula comes off again',
		);
		assert.deepEqual(
			errors.map(({ line, reason }) => `${line} ${reason}`),
			[
				'3 size: “much” is not a figure from 0 to 9,999',
				'4 it is part of line 3, which cannot be read',
				'5 owners: there are 2 people called “Sam Pike”: Sam Pike (Boatman) and Sam Pike (Schools)',
			],
		);
		const again = readTable(badLines(found.table, errors));
		assert.ok(again.ok);
		assert.deepEqual(again.table.header.at(-1), 'what is wrong');
		assert.deepEqual(
			again.table.records.map(({ fields }) => [fields[0], fields.at(-1)]),
			[
				['Wrong size', 'size: “much” is not a figure from 0 to 9,999'],
				['A part', 'it is part of line 3, which cannot be read'],
				['Twins', 'owners: there are 2 people called “Sam Pike”: Sam Pike (Boatman) and Sam Pike (Schools)'],
			],
		);
	});

	test('that is none is refused with the line', () => {
		const wrong = (text: string) => {
			const found = readTable(text);
			assert.ok(!found.ok);
			return `${found.errors[0]!.line} ${found.errors[0]!.reason}`;
		};
		assert.match(wrong('PK\u0003\u0004\0\0'), /^1 this is not a CSV file in UTF-8/);
		assert.equal(wrong('  \n '), '1 the file is empty');
		assert.equal(wrong('title,size\n'), '1 there is a header and no card below it');
		assert.match(wrong('title\n"never closed\nmore'), /a quote is opened and never closed/);
		assert.match(
			wrong(`title\n${Array.from({ length: 1001 }, (_, i) => `card ${i}`).join('\n')}`),
			/^1002 at most 1000 cards can be read at once; this file has 1001/,
		);
	});

	test('without a column for the title makes nothing', () => {
		const found = readTable('colour,shape\nred,round');
		assert.ok(found.ok);
		assert.deepEqual(readCards(found.table, guessMapping(found.table, heads), looking), {
			cards: [],
			errors: [{ line: 1, reason: 'say which column holds the title' }],
		});
	});
});

describe('a calendar file', () => {
	const zone = zoneOf('Europe/Lisbon');
	const today = parseDay('2026-11-23')!;
	const file = (...events: string[]) =>
		['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//made up//', ...events, 'END:VCALENDAR'].join('\r\n');
	const event = (...lines: string[]) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'].join('\r\n');
	const days = (text: string) => {
		const found = readCalendar(text, zone, today);
		assert.ok(found.ok, found.ok ? '' : found.reason);
		return found.days.map(
			(one) => `${dayText(one.from)} ${dayText(one.to)} ${one.hours ?? 'whole'} ${one.note}`,
		);
	};

	test('gives whole days for entries of dates: the end is the day after', () => {
		assert.deepEqual(
			days(
				file(
					event('UID:1', 'SUMMARY:Leave', 'DTSTART;VALUE=DATE:20261207', 'DTEND;VALUE=DATE:20261212'),
					event('UID:2', 'SUMMARY:One day', 'DTSTART;VALUE=DATE:20261201'),
				),
			),
			['2026-12-07 2026-12-11 whole Leave', '2026-12-01 2026-12-01 whole One day'],
		);
	});

	test('gives the hours of entries with times, in the team’s zone, over a change of the clocks too', () => {
		assert.deepEqual(
			days(
				file(
					event('UID:1', 'SUMMARY:Dentist', 'DTSTART:20261124T093000', 'DTEND:20261124T120000'),
					event('UID:2', 'SUMMARY:Night', 'DTSTART:20261024T220000Z', 'DTEND:20261025T080000Z'),
				),
			),
			['2026-11-24 2026-11-24 2.5 Dentist', '2026-10-24 2026-10-24 1 Night', '2026-10-25 2026-10-25 9 Night'],
		);
	});

	test('follows what repeats, and leaves out what is cancelled or free', () => {
		assert.deepEqual(
			days(
				file(
					event(
						'UID:1',
						'SUMMARY:Course',
						'DTSTART:20261130T090000',
						'DTEND:20261130T130000',
						'RRULE:FREQ=WEEKLY;COUNT=3',
						'EXDATE:20261207T090000',
					),
					event('UID:2', 'STATUS:CANCELLED', 'DTSTART;VALUE=DATE:20261201'),
					event('UID:3', 'TRANSP:TRANSPARENT', 'DTSTART;VALUE=DATE:20261202'),
				),
			),
			['2026-11-30 2026-11-30 4 Course', '2026-12-14 2026-12-14 4 Course'],
		);
	});

	test('that is none, is broken or holds nothing is refused in words', () => {
		const why = (text: string) => {
			const found = readCalendar(text, zone, today);
			assert.ok(!found.ok);
			return found.reason;
		};
		assert.match(why('title,size\nA,1'), /not an iCalendar file/);
		assert.match(why('BEGIN:VCALENDAR\r\nrubbish'), /cannot be read/);
		assert.match(why(file()), /holds no entry/);
		assert.match(
			why(file(event('UID:1', 'DTSTART;VALUE=DATE:20200101'))),
			/holds no entry within the last year/,
		);
	});
});
