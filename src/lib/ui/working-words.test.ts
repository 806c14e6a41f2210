import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { LookBackPage, ReportPage } from '../../core/pages/look-back.ts';
import type { CardView } from '../../core/pages/board.ts';
import { parseDay } from '../../core/calendar/days.ts';
import type { FollowDay } from '../../core/sprint/follow.ts';
import type { Ledger, Stint } from '../../core/sprint/ledger.ts';
import {
	burndownWords,
	burnUpWords,
	byCard,
	carryOverWords,
	endedWords,
	reliabilityWords,
	lastSprintWords,
	movedWords,
	velocityWords,
} from './look-back/sentences.ts';
import { summaryText, walkOrder } from './rounds/walk.ts';
import { decisionWords, reasonWords } from './settle/words.ts';
import { blockedWords } from './words.ts';

const TODAY = parseDay('2026-11-26')!;
const head = {
	name: 'Tidewatch',
	key: 'TIDE',
	timeZone: 'Europe/Dublin',
	columns: ['Ready', 'Making', 'Check', 'Done'].map((id) => ({ id })) as never,
};
const card = (number: number, change: Partial<CardView> = {}): CardView =>
	({
		id: `id-${number}`,
		number,
		title: `Card ${number}`,
		column: 'Making',
		size: 8,
		left: 3,
		clock: 'running',
		archived: null,
		parts: null,
		blocked: null,
		started: '2026-11-24T09:00:00Z',
		entered: '2026-11-24T09:00:00Z',
		...change,
	}) as CardView;
const stint = (change: Partial<Stint> = {}): Stint => ({
	card: 'TIDE-1',
	kind: 'committed',
	planned: true,
	entry: 8,
	resized: 0,
	burned: 5,
	worked: 5,
	splitOff: 0,
	exit: 3,
	outcome: 'carried',
	opened: 1,
	ended: 2,
	...change,
});
const day = (change: Partial<FollowDay>): FollowDay => ({
	day: TODAY,
	left: 20,
	burned: 30,
	scope: 50,
	guide: 20,
	today: { added: 0, resized: 0, burned: 0, splitOff: 0, removed: 0, dropped: 0 },
	...change,
});
const report = (change: Partial<ReportPage> = {}): ReportPage =>
	({
		closed: false,
		ledger: { stints: [] },
		following: { committed: 50, days: [day({})], guide: [] },
		finished: [],
		unfinished: [],
		...change,
	}) as unknown as ReportPage;
const following = (change: Partial<FollowDay>) => ({ committed: 50, days: [day(change)], guide: [] });

describe('what a sprint’s charts say', () => {
	test('the burndown beside its guide', () => {
		assert.equal(burndownWords(report(), 'hours'), '20 h are left, as the guide has it.');
		assert.equal(
			burndownWords(report({ following: following({ left: 32.5 }) }), 'hours'),
			'32.5 h are left, 12.5 h more than the guide.',
		);
		assert.equal(
			burndownWords(report({ closed: true, following: following({ left: 4, guide: 9 }) }), 'points'),
			'4 pt were left at its close, 5 pt less than the guide.',
		);
		const none = { committed: 5, days: [], guide: [] };
		assert.equal(burndownWords(report({ following: none }), 'hours'), 'No day of it has ended yet.');
	});

	test('the burn-up and how its scope changed', () => {
		assert.equal(
			burnUpWords(report(), 'hours'),
			'30 h of 50 h burned; the scope is what it was at the start.',
		);
		assert.equal(
			burnUpWords(report({ following: following({ scope: 62 }) }), 'hours'),
			'30 h of 62 h burned; the scope is 12 h larger than at the start.',
		);
		assert.equal(
			burnUpWords(report({ following: following({ scope: 44.5 }) }), 'hours'),
			'30 h of 44.5 h burned; the scope is 5.5 h smaller than at the start.',
		);
	});

	test('what became of a stint, and why where that was said', () => {
		const open = stint({ outcome: null });
		assert.equal(endedWords(report({ ledger: { stints: [open] } as never }))(open), 'open');
		assert.equal(endedWords(report({ finished: [open] }))(open), 'done so far');
		const said = (one: Stint, reason: object) =>
			endedWords(
				report({
					ledger: { stints: [one] } as unknown as Ledger,
					unfinished: [
						{ sprint: 4, card: 'TIDE-1', words: '', decision: 'carry', left: 3, ...reason },
					] as never,
				}),
			)(one);
		assert.equal(said(stint(), { reason: 'waiting' }), 'carried: waiting on others');
		assert.equal(
			said(stint({ outcome: 'dropped' }), { reason: 'other', words: 'Not wanted' }),
			'dropped: Not wanted',
		);
		assert.equal(
			said(stint({ outcome: 'done', splitOff: 3 }), { reason: 'bigger' }),
			'split, the rest went on: bigger than it looked',
		);
		// A card that was taken out and came back was not unfinished the first time.
		const first = stint({ outcome: 'removed' });
		const both = report({
			ledger: { stints: [first, stint({ opened: 9 })] } as unknown as Ledger,
			unfinished: [{ sprint: 4, card: 'TIDE-1', words: '', reason: 'away', decision: 'carry', left: 3 }],
		});
		assert.equal(endedWords(both)(first), 'taken out');
	});
});

test('what happened to cards on a day is said of each card once, every kind with its sum', () => {
	const cards = [
		{ card: 'T-1', title: 'Lamp', amount: 5, kind: 'added' },
		{ card: 'T-2', title: 'Buoy', amount: 3, kind: 'burned' },
		{ card: 'T-1', title: 'Lamp', amount: 2, kind: 'added' },
		{ card: 'T-1', title: 'Lamp', amount: -1.5, kind: 'resized' },
	] as const;
	assert.deepEqual(byCard(cards, 'hours'), [
		{ card: 'T-1', amount: null, note: '7 h added, −1.5 h re-sized' },
		{ card: 'T-2', amount: null, note: '3 h burned' },
	]);
	assert.deepEqual(byCard([{ card: 'T-3', title: 'Rope', amount: 4 }], 'hours'), [
		{ card: 'T-3', amount: 4 },
	]);
	assert.equal(
		movedWords({ burned: 2, resized: 0.5, dropped: 0 }, 'points'),
		'2 pt burned, +0.5 pt re-sized',
	);
});

describe('what looking back says', () => {
	const sprint = (number: number, delivered: number, reliability: number | null) => ({
		number,
		committed: 100,
		delivered,
		kept: delivered - 10,
		cards: 9,
		keptCards: 8,
		committedCards: 12,
		reliability,
		scopeChange: 0.1,
		mean3: null,
		mean6: null,
	});
	const limits = (signals: object[] = []) => ({
		mean: 80,
		averageRange: 10,
		upper: 106.6,
		lower: 53.4,
		signals,
	});
	const page = (change: object): LookBackPage =>
		({
			velocity: { sprints: [sprint(1, 80, 0.8), sprint(2, 90, 0.6)], limits: null, cardLimits: null },
			carryOver: { sprints: [], reasons: [], needed: [], chronic: [] },
			...change,
		}) as never;

	test('velocity, steady or not', () => {
		assert.equal(
			lastSprintWords(page({}), 'hours'),
			'In sprint 2, 80 of the 100 h committed were delivered, and 10 h that came in later.',
		);
		assert.equal(velocityWords(page({}), 'hours'), 'Limits are drawn once six sprints are closed.');
		const both = page({ velocity: { sprints: [sprint(1, 80, 1)], limits: limits(), cardLimits: null } });
		assert.equal(
			lastSprintWords(both, 'hours'),
			'In sprint 1, 70 of the 100 h committed were delivered, and 10 h that came in later; between 53.4 and 106.6 is usual here.',
		);
		assert.doesNotMatch(lastSprintWords(both, 'none'), /usual/, 'hours are not said of cards');
		assert.equal(velocityWords(both, 'hours'), 'The mean of 1 sprint is 80 h. It is steady.');
		const three = { ...sprint(1, 80, 1), mean3: 75 };
		assert.equal(
			velocityWords(page({ velocity: { sprints: [three], limits: limits() } }), 'points'),
			'The mean of 1 sprint is 80 pt, 75 pt of the last three. It is steady.',
		);
		const with6 = (signals: object[]) =>
			velocityWords(
				page({ velocity: { sprints: [sprint(1, 80, 1), sprint(2, 20, 1)], cardLimits: limits(signals) } }),
				'none',
			);
		assert.equal(with6([]), 'The mean of 2 sprints is 80 cards. It is steady.');
		assert.match(with6([{ index: 1, rule: 'outside' }]), /sprint 2 lies outside the limits\.$/);
		assert.match(with6([{ index: 1, rule: 'run' }]), /It has been shifting: see the figures\.$/);
	});

	test('reliability is that of the middle sprint of the last six', () => {
		assert.equal(
			reliabilityWords(page({})),
			'Of what was committed, 70% was delivered in the middle one of the last 2 sprints.',
		);
		assert.equal(
			reliabilityWords(page({ velocity: { sprints: [sprint(1, 80, 0.8)] } })),
			'Of what was committed, 80% was delivered.',
		);
		assert.equal(
			reliabilityWords(page({ velocity: { sprints: [sprint(1, 0, null)] } })),
			'Nothing was committed yet.',
		);
	});

	test('carry-over, what it takes, and mostly why', () => {
		const sprints = [0.1, 0.2, 0.3].map((bySize, i) => ({
			number: i + 1,
			bySize,
			takenOfPromise: bySize / 2,
		}));
		assert.equal(carryOverWords(page({})), 'Nothing has been carried over yet.');
		assert.equal(
			carryOverWords(page({ carryOver: { sprints, reasons: [{ reason: 'blocked', count: 4, size: 9 }] } })),
			'In the middle sprint 20% of its work went over into later ones, taking 13% of the next promise. Mostly it was blocked (4 times).',
		);
		const one = { sprints: sprints.slice(0, 1), reasons: [{ reason: 'blocked', count: 1, size: 9 }] };
		assert.equal(
			carryOverWords(page({ carryOver: one })),
			'10% of its work went over into later ones. Mostly it was blocked (once).',
		);
	});
});

describe('settling in words', () => {
	const draft = {
		decision: null,
		reason: '',
		words: '',
		finished: '',
		title: '',
		lines: [],
		to: 'next',
	} as const;
	test('what was decided of a card', () => {
		const say = (change: object, of = card(1)) =>
			decisionWords(of, { ...draft, ...change } as never, 'hours');
		assert.equal(say({}), '');
		assert.equal(say({ decision: 'carry' }), 'Carried, 3 h');
		assert.equal(say({ decision: 'split' }), 'Split, 3 h to the next sprint');
		assert.equal(say({ decision: 'split', to: 'backlog' }), 'Split, 3 h to the backlog');
		assert.equal(say({ decision: 'backlog' }), 'Back to the backlog, 3 h');
		assert.equal(say({ decision: 'drop' }, card(1, { size: null })), 'Dropped');
	});
	test('and why', () => {
		assert.equal(reasonWords({ ...draft, lines: [] }), '');
		assert.equal(reasonWords({ ...draft, lines: [], reason: 'surprises' }), 'pushed out by surprises');
		assert.equal(reasonWords({ ...draft, lines: [], reason: 'other', words: 'A wedding' }), 'A wedding');
	});
});

describe('walking the board', () => {
	test('goes from the last column backwards, the oldest first, and leaves out what is done or has sub-cards', () => {
		const order = walkOrder(head, [
			card(1, { column: 'Ready', started: null, entered: '2026-11-20T09:00:00Z' }),
			card(2),
			card(3, { started: '2026-11-20T09:00:00Z' }),
			card(4, { column: 'Check' }),
			card(5, { column: 'Done', clock: 'done' }),
			card(6, { column: null }),
			card(7, { parts: { done: 0, all: 2 } as never }),
		]);
		assert.deepEqual(
			order.map(({ number }) => number),
			[4, 3, 2, 1],
		);
	});

	test('leaves a summary of what is blocked, what was said, and who was not heard', () => {
		const stuck = card(3, { blocked: { since: '2026-11-24T09:00:00Z', reason: 'Permit' } });
		assert.equal(
			summaryText(head, {
				cards: [card(2), stuck],
				notes: [{ card: card(2), text: 'Ready tomorrow' }],
				silent: ['Petra', 'Yuki'],
				today: TODAY,
			}),
			[
				'**Tidewatch, Thu 26 Nov**: 2 cards walked.',
				'',
				'Blocked:',
				'- TIDE-3 Card 3: Permit (3 days)',
				'',
				'Said:',
				'- TIDE-2 Card 2: Ready tomorrow',
				'',
				'Not heard: Petra and Yuki.',
			].join('\n'),
		);
		assert.equal(
			summaryText(head, { cards: [card(2)], notes: [], silent: [], today: TODAY }),
			'**Tidewatch, Thu 26 Nov**: 1 card walked.',
		);
	});

	test('a blocked card says whom it waits for where that is known', () => {
		assert.equal(blockedWords({ reason: 'Part on order' }), 'Part on order');
		assert.equal(
			blockedWords({ reason: 'Part on order', waitingFor: 'the boat' }),
			'Part on order, waiting for the boat',
		);
	});
});
