import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { dayText, weekday } from '../src/core/calendar/days.ts';
import { DAY_MS, zoneOf } from '../src/core/calendar/zone.ts';
import { sprintAccounts } from '../src/core/sprint/accounts.ts';
import type { HistoryEvent } from '../src/core/flow/history.ts';
import { checkLedgers } from '../src/lib/server/questions/check.ts';
import { lookBack } from '../src/lib/server/questions/look-back.ts';
import { boardByKey } from '../src/lib/server/questions/board-head.ts';
import { boardFile, boardHistory } from '../src/lib/server/questions/history.ts';
import { now } from '../src/lib/server/time.ts';
import { BOARDS } from '../demo/boards.ts';
import { PEOPLE } from '../demo/people.ts';
import { fileOf, historyOf } from '../demo/planning.ts';
import { typicalHistory } from '../demo/typical.ts';
import { median } from '../src/core/capacity/promise.ts';
import { carryOver } from '../src/core/sprint/carry-over.ts';
import { useDatabase } from './support/database.ts';

const db = await useDatabase('demo');
const zone = zoneOf('Europe/Dublin');

describe('whatever the day it is begun on', () => {
	for (let ahead = 0; ahead < 7; ahead++) {
		const at = Date.parse('2026-11-23T14:20:00Z') + ahead * DAY_MS;
		test(`on a ${['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'][weekday(zone.day(at))]}`, () => {
			for (const board of BOARDS) {
				const history = typicalHistory(board, PEOPLE, zone, at);
				const { events, sprints } = history;
				assert.ok(events.length > 1000, `${board.key}: ${events.length} events`);
				assert.ok(
					events.every((event) => event.at <= at),
					'nothing has happened in the future',
				);
				assert.deepEqual(typicalHistory(board, PEOPLE, zone, at).events, events, 'never random');
				if (!board.sprintDays) continue;
				const running = sprints.filter((sprint) => sprint.startedAt !== null && sprint.closedAt === null);
				assert.equal(running.length, 1, `${board.key} has one running sprint`);
				const [{ starts, ends }] = running as [(typeof running)[number]];
				const through = (zone.day(at) - starts) / (ends - starts + 1);
				assert.ok(
					through > 0.2 && through < 0.9,
					`${board.key} is ${through} through ${dayText(starts)} to ${dayText(ends)}`,
				);
				assert.ok(sprints.filter((sprint) => sprint.closedAt !== null).length >= 11);
				const { ledgers } = sprintAccounts(fileOf(board, history, zone), historyOf(history), at);
				const over = carryOver(ledgers.slice(0, -1), [], new Map());
				const carried = median(over.sprints.map((sprint) => sprint.bySize ?? 0))!;
				// A small team with one-week sprints swings more.
				const off = board.key === 'TIDE' ? 0.05 : 0.2;
				assert.ok(Math.abs(carried - 0.2) < off, `${board.key}: ${carried} carried in the middle sprint`);
				assert.ok(over.chronic.length >= 2, `${board.key}: cards that go round again and again`);
			}
		});
	}
});

describe('what it holds', () => {
	test('at least 250 different cards with words of their own', async () => {
		const { rows } = await db.query(
			`select title, description from card where title not like '%, the rest%'`,
		);
		assert.ok(new Set(rows.map((row) => row.title)).size >= 250);
		assert.ok(new Set(rows.map((row) => row.description)).size >= 250);
		assert.ok(rows.every((row) => row.description.length > 30));
	});

	test('nine people and more, on three boards, with reasons for what is blocked', async () => {
		const { rows } =
			await db.query(`select (select count(*) from person) as people, (select count(*) from board) as boards,
			(select count(distinct reason) from blockage) as reasons, (select count(*) from card where blocked_since is not null) as blocked`);
		assert.ok(Number(rows[0].people) >= 9);
		assert.equal(Number(rows[0].boards), 3);
		assert.ok(Number(rows[0].reasons) >= 8);
		assert.ok(Number(rows[0].blocked) >= 1);
	});

	test('what the tables say of every card is what its history says', async () => {
		for (const { key } of BOARDS) {
			const head = (await boardByKey(key))!;
			const { cards } = sprintAccounts(boardFile(head), await boardHistory(head), now().getTime());
			const { rows } = await db.query(`select number, size, "left", clock from card where board_id = $1`, [
				head.id,
			]);
			assert.equal(rows.length, cards.size);
			for (const row of rows)
				assert.equal(Number(row.left), row.clock === 'done' ? 0 : cards.get(`${key}-${row.number}`)!.left);
		}
	});

	test('sprints carry work over, and both sides of every ledger agree', async () => {
		assert.deepEqual((await checkLedgers()).wrong, []);
		const head = (await boardByKey('TIDE'))!;
		const { ledgers } = sprintAccounts(boardFile(head), await boardHistory(head), now().getTime());
		const ends = ledgers.slice(0, -1).flatMap((l) => l.stints.map((stint) => stint.outcome));
		for (const outcome of ['done', 'carried', 'returned', 'dropped'] as const)
			assert.ok(ends.includes(outcome), outcome);
		assert.ok(ledgers.some((l) => l.splitOff > 0));
	});

	test('every unfinished card has its reason, some were carried again and again, storms eat the keep-back', async () => {
		const head = (await boardByKey('TIDE'))!;
		const back = await lookBack(head);
		assert.ok(back.carryOver.reasons.length >= 4, 'several reasons');
		assert.ok(back.carryOver.chronic.length >= 2, 'chronic cards');
		const unfinished = back.carryOver.reasons.reduce((sum, reason) => sum + reason.count, 0);
		assert.ok(unfinished >= 30, `${unfinished} reasons`);
		assert.ok(back.closed.some((sprint) => sprint.unplanned > sprint.worked * 0.1));
	});

	test('what was said to be left at a close is what the ledger has', async () => {
		for (const key of ['TIDE', 'SHORE']) {
			const head = (await boardByKey(key))!;
			const { ledgers } = sprintAccounts(boardFile(head), await boardHistory(head), now().getTime());
			const { rows } = await db.query(
				`select c.number, (e.after ->> 'sprint')::int as sprint, (e.after ->> 'left')::float as "left", e.after ->> 'decision' as decision
				from event e join card c on c.id = e.card_id
				where e.board_id = $1 and e.kind = 'unfinished'`,
				[head.id],
			);
			assert.ok(rows.length > 20);
			for (const row of rows) {
				const stint = ledgers
					.find((ledger) => ledger.number === row.sprint)!
					.stints.findLast((known) => known.card === `${key}-${row.number}`)!;
				assert.equal(
					row.left,
					row.decision === 'split' ? stint.splitOff : stint.exit,
					`${key}-${row.number}, sprint ${row.sprint}, ${row.decision}`,
				);
			}
		}
	});

	test('two people share a name, and two initiatives do', async () => {
		for (const [table, where] of [
			['person', ''],
			['initiative', 'where budget_hours is not null'],
		])
			assert.equal(
				(await db.query(`select from ${table} ${where} group by name having count(*) = 2`)).rowCount,
				1,
				table,
			);
	});

	test('a quarter has hours of everyone, with rates, marks and budgets', async () => {
		const { rows } = await db.query(
			`select count(distinct person_id) as people, sum(hours) as hours, count(*) filter (where billable) as billable,
				(select count(distinct person_id) from hourly_rate) as rates, (select count(*) from timer) as timers,
				(select count(*) from initiative where budget_hours is not null) as budgets
			from time_entry where day > '2026-08-24'`,
		);
		const [found] = rows;
		assert.ok(Number(found.people) >= 8 && Number(found.hours) > 800 && Number(found.billable) > 50);
		assert.ok(Number(found.rates) >= 8 && Number(found.timers) === 2 && Number(found.budgets) >= 3);
	});

	test('the history holds sprints as events, in the words of the history file', async () => {
		const head = (await boardByKey('TIDE'))!;
		const kinds = new Set((await boardHistory(head)).map((event: HistoryEvent) => event.event));
		for (const kind of [
			'created',
			'sized',
			'sprint',
			'column',
			'worked',
			'left',
			'split',
			'blocked',
			'unblocked',
			'owner',
			'class',
			'label',
		] as const)
			assert.ok(kinds.has(kind), kind);
	});
});
