import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { parseDay } from '../calendar/days.ts';
import { zoneOf } from '../calendar/zone.ts';
import { inOrder, type HistoryEvent } from '../flow/history.ts';
import { carryOver, type Unfinished } from './carry-over.ts';
import { follow, guideOf } from './follow.ts';
import { sprintAccounts } from './accounts.ts';
import type { Ledger } from './ledger.ts';
import { sidesOf } from './settle.ts';
import { velocity } from './velocity.ts';

const zone = zoneOf('Europe/Lisbon');
const day = (text: string) => parseDay(text)!;
const at = (text: string) => Date.parse(`${text}:00Z`);

/** Two closed sprints and a running one; each line is `card event value instant`. */
function ledgersOf(lines: string): Ledger[] {
	const events = lines
		.trim()
		.split('\n')
		.map((line): HistoryEvent => {
			const [card, event, value, when] = line.trim().split(' ');
			return {
				card: card!,
				at: at(when!),
				event: event as HistoryEvent['event'],
				value: value === '-' ? '' : value!,
			};
		});
	return sprintAccounts(board, inOrder(events), at('2026-06-18T12:00')).ledgers;
}
const board = {
	columns: [
		{ name: 'Ready', kind: 'queue' as const },
		{ name: 'Making', kind: 'work' as const },
		{ name: 'Done', kind: 'done' as const },
	],
	commitment: 1,
	unit: 'hours' as const,
	sprints: [1, 2, 3].map((number) => {
		const starts = day('2026-06-01') + 7 * (number - 1);
		const text = (offset: number, hour: string) =>
			at(`${new Date((starts + offset) * 86_400_000).toISOString().slice(0, 10)}T${hour}`);
		return {
			number,
			starts,
			ends: starts + 4,
			startedAt: text(0, '08:00'),
			closedAt: number < 3 ? text(4, '17:00') : null,
		};
	}),
};

const HISTORY = `
	A sized 10 2026-05-30T09:00
	B sized 6 2026-05-30T09:00
	C sized 4 2026-05-30T09:00
	A sprint 1 2026-05-31T09:00
	B sprint 1 2026-05-31T09:00
	C sprint 1 2026-05-31T09:00
	A column Making 2026-06-01T09:00
	A worked 4 2026-06-02T09:00
	D sized 3 2026-06-03T08:00
	D sprint 1 2026-06-03T09:00
	B left 9 2026-06-03T10:00
	C column Done 2026-06-04T09:00
	D split 1 2026-06-04T10:00
	A sprint 2 2026-06-05T17:00
	B sprint 2 2026-06-05T17:00
	D sprint - 2026-06-05T17:00
	A worked 2 2026-06-09T09:00
	B column Done 2026-06-10T09:00
	A sprint 3 2026-06-12T17:00
	A column Done 2026-06-16T09:00
`;

describe('following a sprint', () => {
	test('each day has what was left, what was burned and the scope; steps of their own say what changed it', () => {
		const [first] = ledgersOf(HISTORY);
		const sprint = { from: day('2026-06-01'), to: day('2026-06-05'), ...starting(1) };
		const { days, committed } = follow(zone, sprint, first!, [8, 8, 8, 8, 8], at('2026-06-18T12:00'));
		assert.equal(committed, 20);
		assert.deepEqual(
			days.map(({ left, burned, scope, guide }) => [left, burned, scope, guide]),
			[
				[20, 0, 20, 16],
				[16, 4, 20, 12],
				[22, 4, 26, 8],
				[17, 8, 25, 4],
				[17, 8, 25, 0],
			],
		);
		assert.deepEqual(days[2]!.today, {
			added: 3,
			resized: 3,
			burned: 0,
			splitOff: 0,
			removed: 0,
			dropped: 0,
		});
		assert.equal(days[3]!.today.splitOff, 1);
	});

	test('what leaves at the close stays in the last day; a running sprint ends today', () => {
		const [, , third] = ledgersOf(HISTORY);
		const sprint = { from: day('2026-06-15'), to: day('2026-06-19'), ...starting(3) };
		const { days, guide } = follow(zone, sprint, third!, [8, 8, 8, 8, 8], at('2026-06-18T12:00'));
		assert.deepEqual(
			days.map((one) => one.left),
			[4, 0, 0, 0],
		);
		assert.equal(guide.length, 6);
	});

	test('the guide bends with the hours, and is straight where there are none', () => {
		const shown = (hours: number[]) => guideOf(12, day('2026-06-01'), hours).map((point) => point.left);
		assert.deepEqual(shown([6, 0, 0, 6]), [12, 6, 6, 6, 0]);
		assert.deepEqual(shown([0, 0, 0]), [12, 8, 4, 0]);
	});
});

function starting(number: number) {
	const { startedAt, closedAt } = board.sprints[number - 1]!;
	return { startedAt, closedAt };
}

describe('velocity', () => {
	test('what was delivered, how reliably, and how far the scope moved', () => {
		const { sprints, limits } = velocity(ledgersOf(HISTORY).slice(0, 2));
		const [first, second] = sprints;
		assert.deepEqual(
			[first!.committed, first!.delivered, first!.cards, first!.committedCards],
			[20, 4, 1, 3],
		);
		assert.equal(first!.reliability, 4 / 20);
		assert.equal(first!.scopeChange, (3 + 3) / 20);
		assert.deepEqual([second!.committed, second!.delivered], [15, 9]);
		assert.equal(limits, null);
	});

	test('rolling means count the sprint itself; limits need six', () => {
		const one = ledgersOf(HISTORY)[0]!;
		const six = [4, 8, 6, 10, 2, 6].map((delivered, i) => ({ ...one, number: i + 1, delivered }));
		const { sprints, limits } = velocity(six);
		assert.deepEqual(
			sprints.map((sprint) => sprint.mean3),
			[null, null, 6, 8, 6, 6],
		);
		assert.equal(sprints[5]!.mean6, 6);
		assert.equal(limits!.mean, 6);
		assert.equal(velocity([{ ...one, committed: 0 }]).sprints[0]!.reliability, null);
	});
});

describe('carry-over', () => {
	const said: Unfinished[] = [
		{ sprint: 1, card: 'A', reason: 'waiting', words: '', left: 6 },
		{ sprint: 1, card: 'B', reason: 'bigger', words: '', left: 9 },
		{ sprint: 1, card: 'D', reason: 'bigger', words: '', left: 1 },
		{ sprint: 2, card: 'A', reason: 'waiting', words: '', left: 4 },
	];
	const found = carryOver(ledgersOf(HISTORY), said, new Map([[2, 30]]));

	test('its rate by cards and by size, and what it takes from the next promise', () => {
		const [first, second, third] = found.sprints;
		assert.deepEqual([first!.byCards, first!.bySize], [3 / 4, (6 + 9 + 1) / 23]);
		assert.deepEqual(first!.cards, [
			{ card: 'A', amount: 6 },
			{ card: 'B', amount: 9 },
			{ card: 'D', amount: 1 },
		]);
		assert.equal(second!.takenOfPromise, 15 / 30);
		assert.deepEqual(
			second!.brought.map(({ card, amount }) => [card, amount]),
			[
				['A', 6],
				['B', 9],
			],
		);
		assert.equal(third!.takenOfPromise, null);
		assert.equal(third!.broughtSize, 4);
	});

	test('why, the most frequent reason first, with its size', () => {
		assert.deepEqual(
			found.reasons.map(({ reason, count, size }) => [reason, count, size]),
			[
				['bigger', 2, 9 + 2],
				['waiting', 2, 6 + 4],
			],
		);
		assert.deepEqual(found.reasons[1]!.cards, [{ card: 'A', amount: 10 }]);
	});

	test('how many sprints finished cards needed, and which were carried again and again', () => {
		const needed = ledgersOf(`${HISTORY} A worked 1 2026-06-17T09:00`);
		assert.deepEqual(
			carryOver(needed.slice(0, 2), said, new Map()).needed.map(({ sprints, cards }) => [sprints, cards]),
			[
				[1, ['C']],
				[2, ['B']],
				[3, []],
				[4, []],
			],
		);
		assert.deepEqual(found.chronic, [{ card: 'A', carried: 2, sprints: 3, done: false }]);
	});

	test('a rest that was split off at the close counts as brought in', () => {
		const ledgers = ledgersOf(`${HISTORY} R sized 2 2026-06-05T17:00\n R sprint 2 2026-06-05T17:00`);
		const [, second] = carryOver(ledgers, [], new Map(), new Set(['R'])).sprints;
		assert.deepEqual(
			second!.brought.map(({ card }) => card),
			['A', 'B', 'R'],
		);
	});
});

describe('the sides of a ledger', () => {
	test('decisions that have not been carried out move what is open to where it would go', () => {
		const third = ledgersOf(`
			A sized 5 2026-06-14T09:00
			B sized 3 2026-06-14T09:00
			A sprint 3 2026-06-14T10:00
			B sprint 3 2026-06-14T10:00
			A worked 2 2026-06-16T09:00
		`)[2]!;
		const amounts = (...decisions: [string, 'carry' | 'split' | 'backlog' | 'drop'][]) =>
			Object.fromEntries(sidesOf(third, new Map(decisions)).became.map(({ kind, amount }) => [kind, amount]));
		assert.deepEqual(amounts(), { burned: 2, open: 6 });
		assert.deepEqual(amounts(['A', 'carry']), { burned: 2, carried: 3, open: 3 });
		assert.deepEqual(amounts(['A', 'split'], ['B', 'drop']), { burned: 2, splitOff: 3, dropped: 3 });
		assert.deepEqual(sidesOf(third).came[0]!.cards, [
			{ card: 'A', amount: 5 },
			{ card: 'B', amount: 3 },
		]);
	});
});
