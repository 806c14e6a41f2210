import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { Problem } from '../src/lib/server/problem.ts';
import { checkLedgers } from '../src/lib/server/questions/check.ts';
import { useDatabase } from './support/database.ts';
import { addCard, cardRow, command, everything, refusal, smallBoard } from './support/small-board.ts';
import { at, ledgerOf, runningBoard, seen, sized, start } from './support/sprint.ts';

const db = await useDatabase('empty');
const TODAY = '2026-11-23';
const ref = ({ card, entry }: { card: string; entry: string }) => ({ card, entry });
const entryOf = async (id: string) =>
	(await db.query('select * from time_entry where id = $1', [id])).rows[0];

describe('logging time', () => {
	test('lowers what is left, counts as burned in the sprint, and is taken back whole', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		const [card] = board.cards as [string];
		const done = await command(board.member, 'LogTime', { card, day: TODAY, hours: 2.5, note: ' Wired it ' });
		assert.equal((await cardRow(db, card)).left, 5.5);
		const entry = await entryOf(done.result.entry as string);
		assert.deepEqual(
			[entry.hours, entry.note, entry.person_id, entry.billable],
			[2.5, 'Wired it', board.member.id, false],
		);
		assert.ok(entry.sprint_id, 'it belongs to the stint');
		const ledger = await ledgerOf(board, 1);
		assert.deepEqual([ledger.burned, ledger.worked, ledger.open], [2.5, 2.5, 5.5]);
		await command(board.member, 'UndoCommand', { of: done.id });
		assert.equal((await cardRow(db, card)).left, 8);
		assert.equal((await ledgerOf(board, 1)).worked, 0);
		assert.ok((await entryOf(done.result.entry as string)).withdrawn_at, 'it is kept, and counts nowhere');
	});

	test('what is left does not fall below nothing, and hours never change points', async () => {
		const board = await runningBoard(db, [['A', 2]]);
		await command(board.member, 'LogTime', { card: board.cards[0], day: TODAY, hours: 5 });
		assert.equal((await cardRow(db, board.cards[0]!)).left, 0);
		const { burned, worked } = await ledgerOf(board, 1);
		assert.deepEqual([burned, worked], [2, 5], 'that they differ can be seen');
		const points = await smallBoard(db);
		await db.query(`update board set unit = 'points' where id = $1`, [points.id]);
		const card = await sized(db, points, 5);
		await command(points.member, 'LogTime', { card, day: TODAY, hours: 3 });
		assert.equal((await cardRow(db, card)).left, 5);
	});

	test('correcting an entry puts what is left where it would be had it always been so', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		const [card] = board.cards as [string];
		const first = await command(board.member, 'LogTime', { card, day: TODAY, hours: 6 });
		await command(board.member, 'LogTime', { card, day: TODAY, hours: 1 });
		const entry = first.result.entry as string;
		await command(board.member, 'ChangeTime', { card, entry, version: 1, hours: 2, day: '2026-11-20' });
		assert.equal((await cardRow(db, card)).left, 5);
		assert.equal((await ledgerOf(board, 1)).worked, 3);
		assert.equal((await entryOf(entry)).day, '2026-11-20');
		const stale = await refusal(
			command(board.member, 'ChangeTime', { card, entry, version: 1, note: 'late' }),
		);
		assert.equal(stale.code, 'time.changed');
		await command(board.member, 'RemoveTime', { card, entry, version: 2 });
		assert.equal((await cardRow(db, card)).left, 7);
		assert.deepEqual((await checkLedgers()).wrong, []);
	});

	test('hours of a settled sprint stay; their note and day can still be put right', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		const [card] = board.cards as [string];
		const { result } = await command(board.member, 'LogTime', { card, day: TODAY, hours: 6 });
		const entry = result.entry as string;
		const decisions = [{ ...(await seen(db, card))[0], decision: 'carry', reason: 'bigger' }];
		await at('2026-11-23T14:30:00Z', () =>
			command(board.lead, 'SettleSprint', { board: board.id, sprint: 1, version: 2, decisions }),
		);
		await at('2026-11-23T14:40:00Z', () => start(board, 2));
		const change = (what: object) =>
			command(board.member, 'ChangeTime', { card, entry, version: 1, ...what });
		assert.equal((await refusal(change({ hours: 5 }))).code, 'time.frozen');
		assert.equal(
			(await refusal(command(board.member, 'RemoveTime', { card, entry, version: 1 }))).code,
			'time.frozen',
		);
		await change({ note: 'At the mast', billable: true });
		assert.equal((await ledgerOf(board, 1)).worked, 6);
		assert.equal((await entryOf(entry)).billable, true);
	});

	test('everyone logs their own, a lead for anyone', async () => {
		const board = await smallBoard(db);
		const card = await sized(db, board, 8);
		const time = { card, day: TODAY, hours: 1 };
		const own = await command(board.member, 'LogTime', time);
		const others = await refusal(command(board.member, 'LogTime', { ...time, person: board.lead.id }));
		assert.equal(others.code, 'right.missing');
		await command(board.lead, 'LogTime', { ...time, person: board.member.id });
		assert.equal((await refusal(command(board.viewer, 'LogTime', time))).code, 'right.missing');
		assert.equal(
			(await refusal(command(board.lead, 'LogTime', { ...time, person: board.outsider.id }))).code,
			'person.unknown',
		);
		const mine = await command(board.lead, 'LogTime', time);
		const theirs = { card, entry: mine.result.entry, version: 1, hours: 2 };
		assert.equal((await refusal(command(board.member, 'ChangeTime', theirs))).code, 'right.missing');
		await command(board.lead, 'ChangeTime', { ...theirs, entry: own.result.entry });
	});

	const wrong: [string, object, string][] = [
		['a future day', { day: '2026-11-24', hours: 1 }, 'time.future'],
		['25 hours', { day: TODAY, hours: 25 }, 'invalid.hours'],
		['no hours', { day: TODAY, hours: 0 }, 'invalid.hours'],
		['a day that is none', { day: '2026-02-30', hours: 1 }, 'invalid.day'],
		['a note that is too long', { day: TODAY, hours: 1, note: 'x'.repeat(501) }, 'invalid.note'],
	];
	for (const [what, time, code] of wrong)
		test(`${what} is refused in words, and changes nothing`, async () => {
			const board = await smallBoard(db);
			const card = await sized(db, board, 8);
			const before = await everything(db);
			assert.equal((await refusal(command(board.member, 'LogTime', { card, ...time }))).code, code);
			assert.equal(await everything(db), before);
		});

	test('a day has 24 hours over all cards, also when they are logged at once', async () => {
		const board = await smallBoard(db);
		const cards = [await sized(db, board, 8), await sized(db, board, 8)];
		await command(board.member, 'LogTime', { card: cards[0], day: TODAY, hours: 20 });
		const both = await Promise.allSettled(
			cards.map((card) => command(board.member, 'LogTime', { card, day: TODAY, hours: 3 })),
		);
		assert.deepEqual(both.map((one) => one.status).sort(), ['fulfilled', 'rejected']);
		const third = await refusal(command(board.member, 'LogTime', { card: cards[0], day: TODAY, hours: 1.5 }));
		assert.equal(third.code, 'time.too_much');
		assert.match(third.message, /24\.5 hours on 2026-11-23: a day has 24, and 23 are logged/);
	});

	test('a card with sub-cards has no time of its own', async () => {
		const board = await smallBoard(db);
		const parent = await sized(db, board, 8);
		await command(board.member, 'AddCards', { board: board.id, cards: [{ title: 'Part', partOf: parent }] });
		const problem = await refusal(command(board.member, 'LogTime', { card: parent, day: TODAY, hours: 1 }));
		assert.equal(problem.code, 'card.has_parts');
	});
});

describe('the timer', () => {
	test('logs as long as it ran, on the day it was started', async () => {
		const board = await smallBoard(db);
		const card = await at('2026-11-23T12:00:00Z', () => sized(db, board, 8));
		await at('2026-11-23T13:00:00Z', () => command(board.member, 'StartTimer', { card }));
		const second = await refusal(command(board.member, 'StartTimer', { card: await addCard(board, null) }));
		assert.equal(second.code, 'timer.running');
		assert.match(second.message, new RegExp(`runs on ${board.key}-1\\.`));
		const { result } = await command(board.member, 'StopTimer', { card, note: 'Splicing' });
		assert.equal(result.hours, 1.33);
		assert.equal((await cardRow(db, card)).left, 6.67);
		assert.equal((await refusal(command(board.member, 'StopTimer', { card }))).code, 'timer.not_running');
	});

	test('one that was left on asks how much of it was work; nothing is logged where that is none', async () => {
		const board = await smallBoard(db);
		const card = await at('2026-11-22T15:00:00Z', () => sized(db, board, 8));
		await at('2026-11-22T16:00:00Z', () => command(board.member, 'StartTimer', { card }));
		const before = await everything(db);
		const problem = await refusal(command(board.member, 'StopTimer', { card }));
		assert.deepEqual([problem.code, problem.field], ['timer.left_on', 'hours']);
		assert.equal(await everything(db), before);
		await command(board.member, 'StopTimer', { card, hours: 1.5 });
		const { rows } = await db.query('select day, hours from time_entry where card_id = $1', [card]);
		assert.deepEqual(rows, [{ day: '2026-11-22', hours: 1.5 }]);
		await command(board.member, 'StartTimer', { card });
		await command(board.member, 'StopTimer', { card, hours: 0 });
		assert.equal((await db.query('select from timer where card_id = $1', [card])).rowCount, 0);
		assert.equal((await cardRow(db, card)).left, 6.5);
	});
});

describe('correcting what is left', () => {
	test('a reason is asked for when it is over half the size or over 8 hours, and is kept', async () => {
		const board = await smallBoard(db);
		const small = await sized(db, board, 4);
		const large = await sized(db, board, 40);
		const correct = async (card: string, left: number, more: object = {}) =>
			command(board.member, 'CorrectLeft', { ...(await seen(db, card))[0], left, ...more });
		await correct(small, 2);
		await correct(large, 32);
		assert.equal((await refusal(correct(small, 4.5))).code, 'left.reason');
		assert.equal((await refusal(correct(large, 41))).code, 'left.reason');
		assert.equal((await refusal(correct(large, -1))).code, 'invalid.left');
		await correct(large, 41, { reason: 'The mast is gone' });
		const { rows } = await db.query(
			`select value, after ->> 'reason' as reason from event where card_id = $1 and kind = 'left' order by seq desc limit 1`,
			[large],
		);
		assert.deepEqual(rows, [{ value: '41', reason: 'The mast is gone' }]);
	});
});

test('hours that are corrected stay in their stint, also when the card has left the sprint since', async () => {
	const board = await runningBoard(db, [
		['A', 8],
		['B', 3],
	]);
	const [card] = board.cards as [string];
	const done = await command(board.member, 'LogTime', { card, day: TODAY, hours: 4 });
	await command(board.member, 'PlanCards', { board: board.id, cards: await seen(db, card), sprint: null });
	const entry = done.result.entry as string;
	await command(board.member, 'ChangeTime', { card, entry, version: 1, hours: 3 });
	const ledger = await ledgerOf(board, 1);
	assert.deepEqual([ledger.worked, ledger.burned, ledger.removed], [3, 3, 5]);
	assert.equal((await cardRow(db, card)).left, 5);
	// Corrected once more it still stands where it was first.
	await command(board.member, 'ChangeTime', { card, entry, version: 2, hours: 2 });
	assert.deepEqual([(await ledgerOf(board, 1)).worked, (await ledgerOf(board, 1)).removed], [2, 6]);
	assert.deepEqual((await checkLedgers(board.key)).wrong, []);
	await command(board.member, 'RemoveTime', { card, entry, version: 3 });
	assert.equal((await ledgerOf(board, 1)).worked, 0);
	assert.deepEqual((await checkLedgers(board.key)).wrong, []);
});

test('however time is logged, corrected and taken back, tables, history and ledgers agree', async () => {
	const act = fc.record({
		what: fc.constantFrom('log', 'change', 'remove', 'left', 'undo', 'out', 'in'),
		card: fc.nat(1),
		which: fc.nat(5),
		hours: fc.integer({ min: 1, max: 500 }),
	});
	await fc.assert(
		fc.asyncProperty(fc.array(act, { minLength: 4, maxLength: 14 }), async (acts) => {
			const board = await runningBoard(db, [
				['A', 8],
				['B', 3],
			]);
			const logged: { card: string; entry: string; command: string }[] = [];
			for (const { what, card, which, hours } of acts) {
				const id = board.cards[card]!;
				const one = logged[which % Math.max(1, logged.length)];
				const day = TODAY;
				const version = async () => (await entryOf(one!.entry)).version as number;
				try {
					if (what === 'log') {
						const done = await command(board.member, 'LogTime', { card: id, day, hours: hours / 100 });
						logged.push({ card: id, entry: done.result.entry as string, command: done.id });
					} else if (what === 'left')
						await command(board.member, 'CorrectLeft', {
							...(await seen(db, id))[0],
							left: hours / 100,
							reason: 'Seen anew',
						});
					else if (one && what === 'change')
						await command(board.member, 'ChangeTime', {
							...ref(one),
							version: await version(),
							hours: hours / 100,
						});
					else if (one && what === 'remove')
						await command(board.member, 'RemoveTime', { ...ref(one), version: await version() });
					else if (what === 'out' || what === 'in')
						await command(board.member, 'PlanCards', {
							board: board.id,
							cards: await seen(db, id),
							sprint: what === 'in' ? 1 : null,
						});
					else if (one) await command(board.member, 'UndoCommand', { of: one.command });
				} catch (error) {
					if (!(error instanceof Problem)) throw error;
				}
			}
			assert.deepEqual((await checkLedgers(board.key)).wrong, []);
		}),
		{ numRuns: 15 },
	);
});
