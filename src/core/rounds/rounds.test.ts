import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { weekday } from '../calendar/days.ts';
import type { Part } from '../capacity/promise.ts';
import type { HistoryEvent } from '../flow/history.ts';
import { workingDaysAfter } from './finding.ts';
import { findings } from './findings.ts';
import type { FindingKind, RoundsCard, RoundsState } from './state.ts';
import { lasting } from './since.ts';

/** Thursday 26 November 2026. */
const TODAY = 20783;
const works = (day: number) => weekday(day) < 5;

function card(change: Partial<RoundsCard> = {}): RoundsCard {
	return {
		id: 'id-7',
		number: 7,
		title: 'Mast',
		column: 1,
		lane: null,
		rank: 'a0',
		class: 'standard',
		clock: 'running',
		size: 5,
		left: 3,
		owners: ['ines'],
		sprint: 4,
		unplanned: false,
		hasParts: false,
		started: TODAY,
		due: null,
		blocked: null,
		touched: TODAY,
		carried: 0,
		...change,
	};
}
const column = (name: string, kind: 'queue' | 'work' | 'done', change: object = {}) => ({
	id: name,
	name,
	kind,
	limit: null,
	starvedSince: null,
	usual: null,
	...change,
});
const storm = (limit: number) => [{ id: 'storm', name: 'Storm damage', limit }];
function state(change: Partial<RoundsState> = {}): RoundsState {
	return {
		today: TODAY,
		works,
		unit: 'hours',
		columns: [column('Ready', 'queue'), column('Making', 'work'), column('Done', 'done')],
		lanes: [],
		cards: [],
		people: [{ id: 'ines', name: 'Ines', hours: 6, idleSince: null }],
		parts: [],
		personLimit: null,
		expectation: null,
		sprint: { number: 4, starts: TODAY - 10, ends: TODAY + 1 },
		next: null,
		odds: null,
		surprises: null,
		timers: [],
		questions: [],
		milestones: [],
		...change,
	};
}
const part = (placed: number, promise: number): Part => ({
	person: 'ines',
	raw: promise,
	give: promise,
	promise,
	placed,
	surprises: 0,
	load: promise > 0 ? placed / promise : null,
	standing: placed > promise ? 'over' : 'fits',
});
const making = (change: object) => [
	column('Ready', 'queue'),
	column('Making', 'work', change),
	column('Done', 'done'),
];
const cards = (n: number, change: Partial<RoundsCard> = {}) =>
	Array.from({ length: n }, (_, i) => card({ id: `id-${i}`, number: i + 1, ...change }));
const surprises = (worked: number, left: number) => ({ worked, left, kept: 10, cards: [7] });
const milestone = (day: number, days: number) => ({
	milestones: [
		{ id: 'm', name: 'Harbour day', day, late: days > 0 ? [{ what: 'TIDE-7', card: 7, days }] : [] },
	],
});
const next = (starts: number, placed: number) => ({ number: 5, starts, placed, promise: 100 });

/** Of each finding: a state that just triggers it with its severity, and one that falls just short of it. */
const EDGES: [
	what: string,
	kind: FindingKind,
	severity: number,
	just: RoundsState,
	short: RoundsState | null,
][] = [
	[
		'blocked for three days',
		'blocked',
		3,
		state({ cards: [card({ blocked: { since: TODAY - 2, reason: 'Permit' } })] }),
		null,
	],
	[
		'blocked for two',
		'blocked',
		2,
		state({ cards: [card({ blocked: { since: TODAY - 1, reason: 'Permit' } })] }),
		state({ cards: [card()] }),
	],
	[
		'blocked though urgent',
		'blocked',
		3,
		state({ cards: [card({ class: 'expedite', blocked: { since: TODAY, reason: 'Permit' } })] }),
		null,
	],
	[
		'a day older than expected',
		'too-old',
		2,
		state({ expectation: { days: 8, percentile: 85 }, cards: [card({ started: TODAY - 8 })] }),
		state({ expectation: { days: 8, percentile: 85 }, cards: [card({ started: TODAY - 7 })] }),
	],
	[
		'far older than expected',
		'too-old',
		3,
		state({ expectation: { days: 8, percentile: 85 }, cards: [card({ started: TODAY - 12 })] }),
		null,
	],
	[
		'one over the limit',
		'over-limit',
		2,
		state({ columns: making({ limit: 4 }), cards: cards(5) }),
		state({ columns: making({ limit: 4 }), cards: cards(4) }),
	],
	[
		'a person with one more in hand than one may have',
		'over-limit',
		2,
		state({ personLimit: 2, cards: cards(3, { owners: ['ines'] }) }),
		state({ personLimit: 3, cards: cards(3, { owners: ['ines'] }) }),
	],
	[
		'one over the limit of a lane, done and waiting ones not counted',
		'over-limit',
		2,
		state({ lanes: storm(2), cards: cards(3, { lane: 'storm' }) }),
		state({
			lanes: storm(2),
			cards: [...cards(2, { lane: 'storm' }), card({ id: 'x', number: 9, column: null, lane: 'storm' })],
		}),
	],
	['far over the limit', 'over-limit', 3, state({ columns: making({ limit: 4 }), cards: cards(7) }), null],
	[
		'free slots and nothing to pull since yesterday',
		'starved',
		1,
		state({ columns: making({ limit: 4, starvedSince: TODAY - 1 }) }),
		state({ columns: making({ limit: 4, starvedSince: TODAY }) }),
	],
	[
		'a queue fuller than usual',
		'piling-up',
		1,
		state({
			columns: [column('Ready', 'queue', { usual: 2 }), ...making({}).slice(1)],
			cards: cards(3, { column: 0, clock: 'none' }),
		}),
		state({
			columns: [column('Ready', 'queue', { usual: 3 }), ...making({}).slice(1)],
			cards: cards(3, { column: 0, clock: 'none' }),
		}),
	],
	[
		'three cards where there were none',
		'piling-up',
		1,
		state({
			columns: [column('Ready', 'queue', { usual: 0 }), ...making({}).slice(1)],
			cards: cards(3, { column: 0, clock: 'none' }),
		}),
		state({
			columns: [column('Ready', 'queue', { usual: 0 }), ...making({}).slice(1)],
			cards: cards(2, { column: 0, clock: 'none' }),
		}),
	],
	[
		'a little over the promise',
		'over-promise',
		2,
		state({ parts: [part(10.1, 10)] }),
		state({ parts: [part(10, 10)] }),
	],
	['far over the promise', 'over-promise', 3, state({ parts: [part(12.6, 10)] }), null],
	[
		'cards with no hours to give',
		'over-promise',
		3,
		state({ parts: [part(1, 0)] }),
		state({ parts: [{ ...part(0, 0), standing: 'room' }] }),
	],
	[
		'nothing to do since yesterday',
		'nothing-to-do',
		2,
		state({ people: [{ id: 'ines', name: 'Ines', hours: 6, idleSince: TODAY - 1 }] }),
		state({ people: [{ id: 'ines', name: 'Ines', hours: 6, idleSince: TODAY }] }),
	],
	[
		'nothing to do, on a day off',
		'nothing-to-do',
		2,
		state({ people: [{ id: 'ines', name: 'Ines', hours: 0.5, idleSince: TODAY - 9 }] }),
		state({ people: [{ id: 'ines', name: 'Ines', hours: 0, idleSince: TODAY - 9 }] }),
	],
	[
		'worked on by nobody',
		'no-owner',
		2,
		state({ cards: [card({ owners: [] })] }),
		state({ cards: [card({ owners: [], column: 0 })] }),
	],
	[
		'nobody’s in the sprint that starts tomorrow',
		'no-owner',
		2,
		state({
			sprint: null,
			next: next(TODAY + 1, 90),
			cards: [card({ owners: [], column: null, clock: 'none', sprint: 5 })],
		}),
		state({
			sprint: null,
			next: next(TODAY + 2, 90),
			cards: [card({ owners: [], column: null, clock: 'none', sprint: 5 })],
		}),
	],
	[
		'worked on without a size',
		'not-sized',
		1,
		state({ cards: [card({ size: null })] }),
		state({ unit: 'none', cards: [card({ size: null })] }),
	],
	[
		'due yesterday',
		'late',
		3,
		state({ cards: [card({ due: TODAY - 1 })] }),
		state({ cards: [card({ due: TODAY })] }),
	],
	[
		'due in two working days',
		'due-soon',
		1,
		state({ cards: [card({ due: TODAY + 4 })] }),
		state({ cards: [card({ due: TODAY + 5 })] }),
	],
	[
		'unlikely to fit, half way through',
		'will-not-fit',
		3,
		state({ odds: 0.49, sprint: { number: 4, starts: TODAY - 3, ends: TODAY + 5 }, cards: [card()] }),
		state({ odds: 0.5, sprint: { number: 4, starts: TODAY - 3, ends: TODAY + 5 }, cards: [card()] }),
	],
	[
		'unlikely to fit, but early',
		'will-not-fit',
		3,
		state({ odds: 0.1, sprint: { number: 4, starts: TODAY - 3, ends: TODAY + 6 }, cards: [card()] }),
		state({ odds: 0.1, sprint: { number: 4, starts: TODAY - 3, ends: TODAY + 8 }, cards: [card()] }),
	],
	[
		'surprises over the keep-back',
		'surprises-over',
		2,
		state({ surprises: surprises(6, 4.5) }),
		state({ surprises: surprises(6, 4) }),
	],
	[
		'carried twice',
		'carried-again',
		2,
		state({ cards: [card({ carried: 2 })] }),
		state({ cards: [card({ carried: 1 })] }),
	],
	[
		'a timer that was left on',
		'timer-left-on',
		1,
		state({ timers: [{ person: 'ines', card: 7, hours: 11 }] }),
		state(),
	],
	[
		'a question that nobody has answered for a working day',
		'unanswered',
		1,
		state({
			questions: [{ person: 'ines', name: 'Ines', card: 7, asker: 'Bram', comment: 9, since: TODAY - 1 }],
		}),
		state({
			questions: [{ person: 'ines', name: 'Ines', card: 7, asker: 'Bram', comment: 9, since: TODAY }],
		}),
	],
	[
		'quiet for three whole working days',
		'quiet',
		2,
		state({ cards: [card({ touched: TODAY - 4 })] }),
		state({ cards: [card({ touched: TODAY - 3 })] }),
	],
	[
		'a sprint past its end',
		'sprint-over',
		3,
		state({ sprint: { number: 4, starts: TODAY - 10, ends: TODAY - 1 } }),
		state({ sprint: { number: 4, starts: TODAY - 10, ends: TODAY } }),
	],
	[
		'a next sprint that is hardly planned',
		'next-not-planned',
		2,
		state({ next: next(TODAY + 4, 49) }),
		state({ next: next(TODAY + 4, 50) }),
	],
	[
		'one that starts later',
		'next-not-planned',
		2,
		state({ next: next(TODAY + 1, 0) }),
		state({ next: next(TODAY + 5, 0) }),
	],
	[
		'a milestone that will not be met',
		'milestone-late',
		2,
		state(milestone(TODAY + 20, 3)),
		state(milestone(TODAY + 20, 0)),
	],
	['a milestone near by that will not be met', 'milestone-late', 3, state(milestone(TODAY + 4, 1)), null],
];

describe('each finding comes just when it should', () => {
	for (const [what, kind, severity, just, short] of EDGES)
		test(what, () => {
			const found = findings(just).filter((one) => one.kind === kind);
			assert.deepEqual(
				found.map((one) => one.severity),
				[severity],
			);
			assert.match(found[0]!.sentence, /\.$|\?$/);
			assert.ok(found[0]!.remedies.length);
			if (short)
				assert.deepEqual(
					findings(short).filter((one) => one.kind === kind),
					[],
				);
		});
});

test('whoever has nothing to do is told what to pull: nobody else’s, not blocked, the most urgent first', () => {
	const idle = [{ id: 'ines', name: 'Ines', hours: 6, idleSince: TODAY - 1 }];
	const waits = (number: number, change: Partial<RoundsCard> = {}) =>
		card({ id: String(number), number, column: 0, clock: 'none', owners: [], rank: `a${number}`, ...change });
	const pulled = (...all: RoundsCard[]) =>
		findings(state({ people: idle, cards: all })).find((one) => one.kind === 'nothing-to-do')!;
	const others = [
		waits(1, { owners: ['bram'] }),
		waits(2, { blocked: { since: TODAY, reason: 'Permit' } }),
		waits(3, { sprint: 9 }),
		waits(4, { hasParts: true }),
	];
	assert.deepEqual(pulled(...others).cards, []);
	assert.deepEqual(pulled(...others).remedies, ['board', 'replenish']);
	assert.deepEqual(pulled(...others, waits(5), waits(6, { class: 'expedite' })).cards, [6]);
	assert.deepEqual(pulled(...others, waits(5), waits(6, { owners: ['ines'] })).cards, [5]);
	assert.match(pulled(waits(5)).sentence, /This one waits in Ready\./);
});

test('a healthy board has nothing to say', () => {
	assert.deepEqual(findings(state({ cards: [card()], parts: [part(5, 10)] })), []);
});

test('the worst stands first, and of one severity the larger figure', () => {
	const old = (number: number, since: number) =>
		card({ id: String(number), number, blocked: { since: TODAY - since, reason: 'Parts' } });
	const found = findings(
		state({ cards: [old(1, 1), old(2, 5), old(3, 9), card({ number: 4, size: null })] }),
	);
	assert.deepEqual(
		found.map((one) => one.key),
		['blocked:3', 'blocked:2', 'blocked:1', 'not-sized:4'],
	);
});

test('working days leave out those on which nobody works', () => {
	assert.equal(workingDaysAfter(works, TODAY, TODAY + 4), 2, 'Friday and Monday');
	assert.equal(workingDaysAfter(works, TODAY, TODAY), 0);
});

test('what is due on a day off is due before the next working day', () => {
	const friday = TODAY + 1;
	const due = (day: number) =>
		findings(state({ today: friday, cards: [card({ due: day })] })).find((one) => one.kind === 'due-soon')
			?.sentence;
	assert.equal(due(friday), 'It is due today.');
	assert.equal(due(friday + 1), 'It is due before the next working day.');
	assert.equal(due(friday + 3), 'It is due in one working day.');
});

describe('since when something has lasted', () => {
	const layout = {
		columns: [
			{ name: 'Ready', kind: 'queue' as const },
			{ name: 'Making', kind: 'work' as const },
			{ name: 'Done', kind: 'done' as const },
		],
		commitment: 1,
	};
	const read = (...lines: [card: string, at: number, event: HistoryEvent['event'], value?: string][]) =>
		lasting(
			layout,
			[null, 2, null],
			lines.map(([card, at, event, value = '']) => ({ card, at, event, value })),
			100,
		);

	test('a column starves from when its queue has nothing ready while it has room', () => {
		const pulled = read(['A', 1, 'column', 'Ready'], ['A', 5, 'column', 'Making']);
		assert.deepEqual(pulled.starved, [null, 5, null]);
		const blocked = read(['A', 1, 'column', 'Ready'], ['A', 7, 'blocked', 'Parts']);
		assert.deepEqual(blocked.starved, [null, 7, null], 'what is blocked cannot be pulled');
		const full = read(['A', 1, 'column', 'Making'], ['B', 2, 'column', 'Making']);
		assert.deepEqual(full.starved, [null, null, null]);
		const fed = read(['A', 1, 'column', 'Making'], ['B', 9, 'column', 'Ready']);
		assert.deepEqual(fed.starved, [null, null, null]);
	});

	test('a person is idle from when the last card in hand left it, or was given away', () => {
		const done = read(['A', 1, 'owner', 'Ines'], ['A', 2, 'column', 'Making'], ['A', 6, 'column', 'Done']);
		assert.equal(done.idle.get('Ines'), 6);
		const given = read(['A', 1, 'column', 'Making'], ['A', 2, 'owner', 'Ines'], ['A', 8, 'unowner', 'Ines']);
		assert.equal(given.idle.get('Ines'), 8);
		const busy = read(['A', 1, 'owner', 'Ines'], ['A', 2, 'column', 'Making'], ['B', 3, 'owner', 'Ines']);
		assert.equal(busy.idle.has('Ines'), false);
	});
});
