import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import type { CardView, ColumnView } from '../../core/pages/board.ts';
import { parseDay } from '../../core/calendar/days.ts';
import { parseInstant } from '../../core/calendar/instant.ts';
import { percentile } from '../../core/flow/percentile.ts';
import { flowOf } from '../../core/flow/fold.ts';
import { flowFigures } from '../../core/flow/figures.ts';
import { readVector } from '../../core/testing/vectors.ts';
import { boardSentence } from './board/sentence.ts';
import { dodge } from './chart/dodge.ts';
import {
	ageingWords,
	cycleWords,
	flowSentence,
	littlesWords,
	shapeMarks,
	shareOlder,
	spentWords,
	weeksWords,
} from './flow/sentences.ts';
import { amount, calledAmong, count, daysWords, dueWords, list } from './words.ts';

const today = parseDay('2026-11-23')!;
const card = (more: Partial<CardView> = {}): CardView => ({
	...{
		id: 'x',
		number: 7,
		title: 'Radio link',
		column: 'making',
		lane: null,
		rank: 'a0',
		type: '',
		class: 'standard',
		size: 8,
		left: 3,
		due: null,
		owners: [],
		sprint: null,
		start: null,
		labels: [],
		initiative: null,
		ready: false,
		parent: null,
		parts: null,
		checks: null,
		fields: {},
		waits: [],
		review: null,
		percent: null,
		files: 0,
		picture: null,
		private: false,
	},
	...{
		unplanned: false,
		clock: 'running',
		entered: null,
		started: '2026-11-20T09:00:00Z',
		finished: null,
		blocked: null,
		letThrough: null,
		archived: null,
		version: 1,
	},
	...more,
});

describe('words', () => {
	test('counts, amounts and lists', () => {
		assert.deepEqual([count(1, 'card'), count(0, 'card')], ['1 card', '0 cards']);
		assert.deepEqual(
			[amount(6.5, 'hours'), amount(3, 'points'), amount(12.04, 'hours')],
			['6.5 h', '3 pt', '12 h'],
		);
		assert.deepEqual(
			[daysWords(1), daysWords(1.04), daysWords(2.46), daysWords(0.4, 0)],
			['1 day', '1 day', '2.5 days', '0 days'],
		);
		assert.deepEqual([list([]), list(['a']), list(['a', 'b', 'c'])], ['', 'a', 'a, b and c']);
	});
	test('due dates', () => {
		assert.deepEqual(dueWords('2026-12-04', today, null), { text: 'by 4 Dec', tone: '' });
		assert.deepEqual(dueWords('2026-11-21', today, null), { text: 'late 2 days', tone: 'late' });
		assert.deepEqual(dueWords('2026-11-23', today, null), { text: 'due today', tone: 'soon' });
		assert.deepEqual(
			dueWords('2026-11-21', today, today - 1),
			{ text: '1 day late', tone: 'late' },
			'finished late stays late',
		);
		assert.deepEqual(dueWords('2026-11-21', today, today - 2), { text: 'by 21 Nov', tone: '' });
	});
});

describe('the sentence of a board', () => {
	const column = { id: 'making', name: 'Making', kind: 'work', limit: 1 } as ColumnView;
	const say = (cards: CardView[], more = {}) =>
		boardSentence({
			lanes: [],
			columns: [column],
			standing: new Map([['making', cards.length]]),
			cards,
			expectation: null,
			sprint: undefined,
			unit: 'hours',
			today,
			timeZone: 'UTC',
			backlog: 0,
			at: '/boards/small',
			invite: null,
			unstarted: false,
			mayEdit: true,
			...more,
		})
			.map((words) => words.text)
			.join('');

	test('of an empty board says what comes next, and only what one may do', () => {
		assert.match(say([]), /^This board is empty\. Next: add cards to the backlog, pull the first into /);
		assert.match(
			say([], { invite: '/teams/x', unstarted: true }),
			/^This board is empty\. Next: invite those you work with, add cards to the backlog, plan the first sprint, /,
		);
		assert.equal(say([], { mayEdit: false }).trim(), 'This board is empty.');
		assert.doesNotMatch(say([], { backlog: 1 }), /empty/);
	});

	test('counts slots, what is over, what is blocked and how old the oldest is', () => {
		const blocked = { since: '2026-11-21T09:00:00Z', reason: 'Part' };
		assert.equal(
			say([card(), card({ number: 9, started: '2026-11-13T09:00:00Z', blocked })], {
				expectation: { n: 12, median: 4, days: 8, percentile: 85 },
			}),
			'2 of 1 slots taken, Making 1 over. 1 blocked, for 3 days. 9 is on day 11; 85% of past cards took 8 days or fewer. ',
		);
	});
	test('says what is left in the sprint and what stands outside it', () => {
		const sprint = { number: 4, goal: '', starts: '', ends: '', startedAt: null, closedAt: null };
		assert.match(
			say([card({ sprint: 4 }), card()], { sprint }),
			/3 h left in sprint 4\. 1 card here is in no sprint\.$/,
		);
	});
	test('says so when there is nothing to say', () => {
		assert.equal(
			say([], { backlog: 3 }),
			'0 of 1 slots taken. Nothing is blocked. No card is being worked on. ',
		);
	});
});

test('labels keep their distance and their order, inside their room', () => {
	fc.assert(
		fc.property(fc.array(fc.integer({ min: -50, max: 250 }), { maxLength: 12 }), (wanted) => {
			const placed = dodge(wanted, 14, 0, 200);
			const order = wanted.map((_, i) => i).sort((a, b) => wanted[a]! - wanted[b]! || a - b);
			for (const [n, i] of order.entries()) {
				assert.ok(placed[i]! >= -1e-9 && placed[i]! <= 200 + 1e-9);
				if (n) assert.ok(placed[i]! - placed[order[n - 1]!]! >= 14 - 1e-9);
			}
		}),
	);
});

describe('what the flow page says', () => {
	const figures = (vector: string, asOf: string) => {
		const { board, events } = readVector(vector);
		const at = parseInstant(asOf)!;
		return flowFigures(board, flowOf(board, events, at), at, board.zone.day(at) - 90, board.zone.day(at));
	};
	const large = figures('large', '2026-05-12T09:00:00Z');

	test('agrees with the figures that it is made from', () => {
		const { cycle } = large.report;
		assert.equal(
			flowSentence(large).finished,
			`${cycle!.n} cards finished, ${Number((cycle!.n / 13).toFixed(1))} a week`,
		);
		assert.match(
			cycleWords(large),
			new RegExp(
				`^Half of ${cycle!.n} cards took ${cycle!.p50} days or fewer, 85% took ${cycle!.p85} or fewer\\.$`,
			),
		);
		assert.equal(flowSentence(large).steady, 'a steady process');
		const old = large.report.ageing.filter((age) => age.ageDays > large.expectation!.days).length;
		assert.match(ageingWords(large), new RegExp(`^${old} of ${large.report.ageing.length} in hand `));
	});

	test('says “steady” only when no week signals a change', () => {
		const edge = figures('edge', '2026-05-25T09:00:00Z');
		assert.ok(edge.report.xmr!.signals.length > 0);
		assert.match(flowSentence(edge).steady, /^not steady: .+ that something changed$/);
		assert.match(littlesWords(edge), /work piles up or grows old/);
	});

	test('says so when there is nothing to say', () => {
		const { board } = readVector('small');
		const nothing = flowFigures(board, flowOf(board, [], 0), 0, 0, 6);
		assert.equal(cycleWords(nothing), 'No card was finished in this range.');
		assert.equal(ageingWords(nothing), 'Nothing is in hand.');
		assert.equal(littlesWords(nothing), 'No card was finished in this range.');
		assert.equal(spentWords(nothing), 'No finished card has spent time here yet.');
		assert.match(weeksWords(nothing), /six are needed/);
		const { finished, balance } = flowSentence(nothing);
		assert.deepEqual([finished, balance], [null, 'None came']);
		// Of one card nothing is steady, and there is no half.
		const { report } = large;
		const one = { ...large, report: { ...report, cycle: { ...report.cycle!, n: 1, p50: 2 } } };
		assert.equal(flowSentence(one).steady, 'too few to say whether that is steady');
		assert.equal(cycleWords(one), 'The one card took 2 days.');
	});

	test('the past shape narrows with age, from everyone to nobody', () => {
		for (const ages of large.shapes.filter((known) => known.length > 4)) {
			const shape = [...new Set(ages)].map(
				(age) => [age, ages.filter((other) => other === age).length] as const,
			);
			const widths = Array.from({ length: 60 }, (_, age) => shareOlder(shape, age));
			assert.ok(widths.every((width, i) => i === 0 || width <= widths[i - 1]!));
			assert.deepEqual([widths[0], shareOlder(shape, ages.at(-1)!)], [1, 0]);
			const [half, most] = shapeMarks(shape);
			assert.deepEqual([half!.days, most!.days], [percentile(ages, 50), percentile(ages, 85)]);
			assert.ok(shareOlder(shape, half!.days) <= 0.5 && shareOlder(shape, most!.days) <= 0.15 + 1e-9);
		}
	});
});

test('people are called by their first names, and by more where two share it', () => {
	const called = calledAmong([
		{ id: 'a', name: 'Sam Pike', title: 'Schools' },
		{ id: 'b', name: 'Sam Pike', title: 'Boatman' },
		{ id: 'c', name: 'Sam Onslow', title: 'Boatman' },
		{ id: 'd', name: 'Mara Coyle', title: '' },
	]);
	assert.deepEqual(
		['a', 'b', 'c', 'd', 'e', null].map((id) => called(id)),
		['Sam Pike (Schools)', 'Sam Pike (Boatman)', 'Sam Onslow', 'Mara', 'somebody', 'somebody'],
	);
});
