import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { dayText, parseDay } from '../calendar/days.ts';
import type { InitiativeFigures, PanoramaPage, TimelineCard } from '../pages/panorama.ts';
import { readAsked, writeAsked } from './asked.ts';
import {
	barOf,
	broken,
	daysLate,
	isLate,
	linesOf,
	meantCards,
	meantInitiatives,
	overBudget,
	progressOf,
	rowsOf,
	stretchOf,
} from './rows.ts';

const TODAY = parseDay('2026-11-23')!;
const board = (id: string, unit: 'hours' | 'points' = 'hours') => ({
	...{ id, name: `Board ${id}`, slug: id.toLowerCase(), key: id, unit, role: 'member' as const },
});
let made = 0;
const card = (more: Partial<TimelineCard>): TimelineCard => ({
	...{
		id: `c${++made}`,
		board: 'A',
		number: made,
		title: 'A lamp',
		version: 1,
		start: null,
		due: '2026-12-01',
	},
	...{ clock: 'none', owners: [], initiative: null, class: 'standard', day: null, ...more },
});
const initiative = (more: Partial<InitiativeFigures>): InitiativeFigures => ({
	...{ id: 'i', name: 'Gauges', board: 'A', wide: true, retired: false, stage: null, letThrough: null },
	...{ lead: null, purpose: '', start: null, target: null, begun: null, hours: null, money: null },
	...{ cards: { all: 3, done: 1, undated: 0 }, parts: [], worked: 0, cost: null, finished: 0, doneBy: null },
	...more,
});
const page = (more: Partial<PanoramaPage>): PanoramaPage => ({
	...{
		team: { id: 't', name: 'T' },
		role: 'lead',
		me: 'p',
		today: dayText(TODAY),
		boards: [board('A'), board('B', 'points')],
	},
	people: [
		{ id: 'p', name: 'Ines', initials: 'IO', title: '', gone: false },
		{ id: 'q', name: 'Yuki', initials: 'YS', title: '', gone: false },
	],
	workdays: { week: [true, true, true, true, true, false, false], but: [] },
	...{
		holidays: [],
		sprints: [],
		milestones: [],
		stages: [],
		lenses: [],
		initiatives: [],
		cards: [],
		links: [],
	},
	...{ loose: 0, kinds: null, narrowed: null, ...more },
});
const all = readAsked(new URLSearchParams());

test('cards stand below what they are put together by, the earliest first; one of two owners in both rows', () => {
	const cards = [card({ owners: ['p', 'q'] }), card({ owners: [] }), card({ owners: ['q'] })];
	const of = page({ cards });
	const names = (rows: ReturnType<typeof rowsOf>) =>
		rows.map((row) => (row.kind === 'group' ? row.name : row.at));
	assert.deepEqual(names(rowsOf(of, { ...all, of: 'people' }, new Set())), [
		'Ines',
		0,
		'Yuki',
		0,
		2,
		'Nobody',
		1,
	]);
	assert.deepEqual(names(rowsOf(of, { ...all, of: 'people' }, new Set(['q']))), [
		'Ines',
		0,
		'Yuki',
		'Nobody',
		1,
	]);
	assert.deepEqual(names(rowsOf(of, { ...all, of: 'boards' }, new Set())), ['Board A', 0, 1, 2]);
	assert.deepEqual(names(rowsOf(of, { ...all, of: 'classes' }, new Set())), ['Standard', 0, 1, 2]);
});

test('to each row of what waits a line goes from the nearest row of what it waits for; what is folded has none', () => {
	const cards = [
		card({ owners: ['p', 'q'] }),
		card({ owners: ['q'] }),
		card({ owners: ['p'], due: '2026-12-20' }),
	];
	const of = page({
		cards,
		links: [
			[0, 1],
			[0, 2],
			[1, 2],
		],
	});
	const lines = (folded: string[]) => {
		const rows = rowsOf(of, { ...all, of: 'people' }, new Set(folded));
		return linesOf(of, rows).map(({ link, rows: [from, to], crossed }) => [...link, from, to, crossed]);
	};
	// Ines: 0 in row 1, 2 in row 2; Yuki: 0 in row 4, 1 in row 5.
	assert.deepEqual(lines([]), [
		[0, 1, 4, 5, true],
		[0, 2, 1, 2, false],
		[1, 2, 5, 2, false],
	]);
	assert.deepEqual(lines(['p']), [[0, 1, 2, 3, true]]);
});

test('an initiative with a card that passes is meant, whatever it is called; others only by their names', () => {
	const initiatives = [
		initiative({}),
		initiative({ id: 'j', name: 'Masts' }),
		initiative({ id: 'k', name: 'Buoys' }),
	];
	const of = page({ initiatives, narrowed: { initiatives: ['j'], words: [] } });
	const meant = (asked: Partial<typeof all>) =>
		meantInitiatives(of, { ...all, ...asked }).map(({ name }) => name);
	assert.deepEqual(meant({ q: 'gau' }), ['Gauges', 'Masts']);
	assert.deepEqual(meant({ where: [{ field: 'class', any: ['fixed'], not: false }] }), ['Masts']);
});

test('an initiative stands there without any card that has dates', () => {
	const of = page({ initiatives: [initiative({})], cards: [card({})] });
	assert.deepEqual(
		rowsOf(of, all, new Set()).map((row) => (row.kind === 'group' ? row.name : row.at)),
		['Gauges', 'No initiative', 0],
	);
});

test('owner, board and what is late narrow the picture', () => {
	const cards = [
		card({ title: 'Lamp on Curlew', due: '2026-11-20' }),
		card({ board: 'B', owners: ['q'], start: '2026-11-20', due: '2026-12-02' }),
		card({ due: '2026-11-20', clock: 'done' }),
	];
	const of = page({ cards, links: [[0, 1]] });
	assert.deepEqual(meantCards(of, { ...all, who: 'q' }), [1]);
	assert.deepEqual(meantCards(of, { ...all, boards: ['b'] }), [1]);
	assert.deepEqual(meantCards(of, { ...all, late: true }), [0, 1]);
	assert.deepEqual(broken(of), [[0, 1]]);
	assert.ok(isLate(cards[0]!, TODAY) && !isLate(cards[2]!, TODAY));
});

test('what an address says of it is read as it was written', () =>
	fc.assert(
		fc.property(
			fc.record({
				as: fc.constantFrom('timeline', 'kinds', 'stages'),
				of: fc.constantFrom('initiatives', 'boards', 'people', 'classes'),
				by: fc.constantFrom('days', 'weeks', 'months'),
				boards: fc.uniqueArray(fc.constantFrom('tide', 'buoy-yard', 'shore')),
				who: fc.constantFrom('', 'p'),
				q: fc.string().map((text) => text.trim()),
				where: fc.array(
					fc.record(
						{
							field: fc.constantFrom('class', 'own-1'),
							any: fc.array(fc.string(), { minLength: 1 }),
							not: fc.boolean(),
						},
						{ noNullPrototype: true },
					),
				),
				late: fc.boolean(),
			}),
			(asked) => {
				const written = writeAsked(new URLSearchParams('from=tide&as=kinds'), asked as typeof all);
				assert.deepEqual(readAsked(written), { ...asked });
				assert.equal(written.get('from'), 'tide');
			},
		),
	));

test('progress is what was burned of what there was, in the unit of its own board', () => {
	const parts = [
		{ board: 'A', cards: 2, done: 1, burned: 30, left: 10 },
		{ board: 'B', cards: 1, done: 0, burned: 0, left: 90 },
	];
	const of = page({});
	assert.equal(progressOf(of, initiative({ parts })), 0.75);
	assert.equal(progressOf(of, initiative({ parts: [] })), null);
	assert.equal(progressOf(of, initiative({ parts, cards: { all: 2, done: 2, undated: 0 } })), 1);
	assert.equal(overBudget(of, initiative({ parts, worked: 35, hours: 40 })), 5);
	assert.equal(overBudget(of, initiative({ parts, worked: 25, hours: 40 })), 0);
	assert.equal(overBudget(of, initiative({ parts, worked: 250 })), 0);
});

test('late is so many days after the target; without a target, or a forecast, nothing is said', () => {
	assert.equal(daysLate({ target: '2026-12-01', doneBy: '2026-12-10' }), 9);
	assert.equal(daysLate({ target: '2026-12-01', doneBy: '2026-11-30' }), -1);
	assert.equal(daysLate({ target: null, doneBy: '2026-11-30' }), null);
	const bar = barOf(initiative({ begun: '2026-11-02', target: '2026-12-01' }), TODAY);
	assert.deepEqual([dayText(bar.start), dayText(bar.end)], ['2026-11-02', '2026-12-01']);
});

test('the picture holds all its rows and today, and is not stretched for ever by a slip of the pen', () => {
	const cards = [card({ due: '2026-08-01' }), card({ due: '2027-02-01' }), card({ due: '2199-01-01' })];
	const of = page({ cards });
	const { start, end } = stretchOf(of, rowsOf(of, { ...all, of: 'boards' }, new Set()));
	assert.ok(start < parseDay('2026-08-01')! && end > parseDay('2027-02-01')! && end < TODAY + 1200);
});
