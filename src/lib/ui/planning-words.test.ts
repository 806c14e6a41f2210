import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { CardView } from '../../core/pages/board.ts';
import type { Part } from '../../core/capacity/promise.ts';
import { fieldNamed } from '../../core/board/field.ts';
import { fieldsOf } from '../../core/board/fields.ts';
import { BOARD, cardWith } from '../../core/testing/looking.ts';
import { backlogRows, inFamilies } from './backlog/rows.ts';
import { backlogSentence } from './backlog/sentence.ts';
import { cardAddress } from './frame/card-address.ts';
import { aboutDay, rotaOf, weekOn } from './people/day.ts';
import type { PlanRow } from './plan/plan-state.svelte.ts';
import { oddsWords, presenceWords, standingWords } from './plan/words.ts';

const card = (more: Partial<CardView> = {}): CardView =>
	cardWith({ column: null, size: 5, left: 5, ...more });
const by = (id: string) => fieldNamed(fieldsOf({ board: BOARD, today: 0, me: null }), id)!;
const shown = (rows: ReturnType<typeof backlogRows>) =>
	rows.map((row) => (row.kind === 'group' ? `${row.name}: ${row.cards}, ${row.left}` : row.card.number));

describe('the rows of a backlog', () => {
	const parts = { cards: 2, done: 0, size: 8, left: 8 };
	const list = [
		card({ number: 1, initiative: 'Winter', labels: ['mast', 'quay'] }),
		card({ number: 2, parts, size: 0, left: 0 }),
		card({ number: 3 }),
		card({ number: 4, parent: 'id-2', initiative: 'Winter' }),
		card({ number: 5, parent: 'id-9' }),
		card({ number: 6, parent: 'id-2', left: 3 }),
	];
	const all = () => true;

	test('stand in families: sub-cards below their parent, where it waits too', () => {
		assert.deepEqual(
			inFamilies(list).map((one) => one.number),
			[1, 2, 4, 6, 3, 5],
		);
		const rows = backlogRows(list, all, null, 0, null);
		assert.deepEqual(
			rows.map((row) => row.kind === 'card' && [row.card.number, row.part, row.place]),
			[
				[1, false, 1],
				[2, false, 2],
				[4, true, 3],
				[6, true, 4],
				[3, false, 5],
				[5, false, 6],
			],
		);
	});

	test('carry the line below which the next sprint is full; lists and sums weigh nothing for it', () => {
		const rows = backlogRows([...list, card({ number: 7, sprint: 4, left: 90 })], all, null, 10, 12);
		assert.deepEqual(
			rows.flatMap((row) => (row.kind === 'card' && row.line ? [[row.card.number, row.line.sprint]] : [])),
			[
				[6, 1],
				[5, 2],
			],
		);
	});

	test('are arranged by initiative or by label; a card with two labels stands under both', () => {
		assert.deepEqual(shown(backlogRows(list, all, by('initiative'), 0, 10)), [
			'Winter: 2, 10',
			1,
			4,
			'No initiative: 4, 13',
			2,
			6,
			3,
			5,
		]);
		assert.deepEqual(shown(backlogRows(list, (one) => one.labels.length > 0, by('labels'), 0, 10)), [
			'mast: 1, 5',
			1,
			'quay: 1, 5',
			1,
		]);
	});

	test('keep their place in the whole list when some are hidden', () => {
		const [row] = backlogRows(list, (one) => one.number === 5, null, 0, null);
		assert.ok(row?.kind === 'card' && row.place === 6 && !row.part);
	});
});

test('the backlog says how much waits, how long it takes, what is not sized and what is ready', () => {
	const head = { unit: 'hours' as const, sprintDays: 14 };
	const cards = [
		card({ left: 10, ready: true }),
		card({ left: 20 }),
		card({ size: null, left: 0 }),
		card({ left: 40, sprint: 3, ready: true }),
		card({ parts: { cards: 1, done: 0, size: 1, left: 1 }, size: 0, left: 0 }),
	];
	// 30 h loose and one unsized card taken as 15 h make 45 h: two sprints of 30 h.
	assert.deepEqual(backlogSentence(head, cards, { usual: 30, next: null }), {
		waits: '5 cards wait, 70 h of work',
		takes:
			'the 3 on no sprint’s list hold 45 h, 1 without a size taken as the mean of the others: about 2 usual sprints of 30 h',
		unsized: 1,
		ready: 2,
	});
	assert.deepEqual(backlogSentence(head, [], { usual: 30, next: null }), {
		waits: 'Nothing waits',
		takes: '',
		unsized: 0,
		ready: 0,
	});
	assert.equal(backlogSentence({ ...head, unit: 'none' }, cards, { usual: null, next: null }).unsized, 0);
});

describe('the words of a plan', () => {
	const part = (more: Partial<Part> = {}): Part => ({
		person: 'p',
		raw: 80,
		give: 40,
		promise: 32,
		placed: 20,
		surprises: 0,
		load: 0.6,
		standing: 'room',
		...more,
	});

	test('name who is over and by how much', () => {
		assert.deepEqual(standingWords(part(), 'hours'), { text: '20 of 32 h', note: 'has room', over: false });
		assert.deepEqual(standingWords(part({ placed: 38.5, standing: 'over' }), 'hours'), {
			text: '38.5 of 32 h',
			note: '6.5 h over',
			over: true,
		});
		assert.deepEqual(standingWords(part({ promise: 0, placed: 0 }), 'points'), {
			text: '0 of 0 pt',
			note: 'nothing to give',
			over: false,
		});
	});

	test('say when someone is there, and when not', () => {
		const row = (days: number, away: string[]): PlanRow => ({
			person: null,
			hours: { person: 'p', raw: 1, whole: 1, after: 1, days, away },
			part: null,
			blocks: [],
			placed: 0,
		});
		const words = (days: number, ...away: string[]) =>
			presenceWords(row(days, away), '2026-11-30', '2026-12-11');
		assert.equal(words(10), '10 days');
		assert.equal(words(1), '1 day');
		assert.equal(words(8, '2026-12-03', '2026-12-04'), '8 days, away 3 Dec to 4 Dec');
		assert.equal(words(8, '2026-12-01', '2026-12-04'), '8 days, away 1 Dec and 4 Dec');
		assert.equal(words(7, '2026-12-01', '2026-12-03', '2026-12-08'), '7 days, away 3 times');
		assert.equal(words(0, '2026-11-30'), 'away all of it');
	});

	test('give the odds of a hundred, or say why there are none', () => {
		const past = {
			ratios: Array.from({ length: 20 }, () => 1),
			pairs: Array.from({ length: 3 }, () => ({ focus: 1, keepBack: 0 })),
		};
		const found = { trials: 1000, seed: 1, all: 714, each: [], nobodys: [], leftOver: 0 };
		const say = (...args: Parameters<typeof oddsWords>) => {
			const { before, strong, after } = oddsWords(...args);
			return before + strong + after;
		};
		assert.equal(
			say(found, past, 4, 0, '2026-12-11', 'hours'),
			'By how past cards turned out, all of it is done by Fri 11 Dec in 71 of 100 tries.',
		);
		assert.match(
			say({ ...found, all: 0, nobodys: ['4', '5'] }, past, 4, 2, '2026-12-11', 'hours'),
			/in 0 of 100 tries, since nobody has room for 2 cards without an owner\.$/,
		);
		assert.match(
			say(found, past, 4, 1, '2026-12-11', 'hours'),
			/tries, if the card without an owner is shared out\.$/,
		);
		assert.equal(say(null, past, 0, 0, '2026-12-11', 'hours'), 'Nothing is in it yet, so there are no odds.');
		assert.match(
			say(null, { ratios: [], pairs: [] }, 4, 0, '2026-12-11', 'hours'),
			/^No odds yet: 0 of 3 sprints/,
		);
		assert.match(say(found, past, 4, 0, '2026-12-11', 'points'), /boards sized in hours/);
	});
});

describe('the days of a person', () => {
	const person = {
		id: 'p',
		name: 'Ann',
		initials: 'A',
		title: '',
		role: 'member' as const,
		skills: [],
		working: [
			{ from: '2026-01-01', hours: [8, 8, 8, 8, 8, 0, 0] },
			{ from: '2026-12-01', hours: [6, 6, 6, 6, 0, 0, 0] },
		],
		shares: {},
		rate: null,
		absences: [
			{ id: '1', from: '2026-11-24', to: '2026-11-25', hours: null, note: 'Leave', waits: false },
			{ id: '2', from: '2026-11-26', to: '2026-11-26', hours: 3, note: '', waits: false },
		],
	};
	const holidays = [{ day: '2026-11-27', name: 'Founders’ day' }];
	const about = aboutDay(person, rotaOf(person, holidays), holidays);

	test('are worked, away, away for hours, holidays or free', () => {
		const days = ['23', '24', '26', '27', '28'].map((day) => about(`2026-11-${day}`));
		assert.deepEqual(
			days.map(({ kind, hours, note }) => `${kind} ${hours} ${note}`),
			[
				'work 8 ',
				'away 0 away, Leave',
				'part 5 3 h away',
				'holiday 0 holiday: Founders’ day',
				'free 0 no working day',
			],
		);
	});

	test('follow the working week that holds then', () => {
		assert.deepEqual(weekOn(person, '2026-11-30'), [8, 8, 8, 8, 8, 0, 0]);
		assert.deepEqual(weekOn(person, '2026-12-01'), [6, 6, 6, 6, 0, 0, 0]);
		assert.equal(about('2026-12-01').hours, 6);
		assert.deepEqual(weekOn({ ...person, working: [] }, '2026-12-01'), [0, 0, 0, 0, 0, 0, 0]);
	});
});

test('a card has its own address beside whatever is shown', () => {
	const here = new URL('http://harrow.example/boards/tide/backlog?text=bell&card=3');
	assert.equal(cardAddress(here, { number: 12 }), '/boards/tide/backlog?text=bell&card=12');
});
