import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { checkLedgers } from '../src/lib/server/questions/check.ts';
import { here, otherProcess, queued, type Outcome, type Sent } from './support/at-once.ts';
import { useDatabase } from './support/database.ts';
import { asSeen as card, scene, type Scene } from './support/scene.ts';
import { addCard, cardRow } from './support/small-board.ts';
import { at, runningBoard, seen, type SprintBoard } from './support/sprint.ts';

const db = await useDatabase('empty');
const there = await otherProcess();
const TODAY = '2026-11-23';

/** Commands that touch the same things; `once`: of two with the same sight of things only one can have its way. */
const ACTS: Record<string, { send: (s: Scene) => Sent; once?: true; removes?: true }> = {
	settle: {
		once: true,
		send: (s) => [
			s.board.lead,
			'SettleSprint',
			{
				board: s.board.id,
				sprint: 1,
				version: s.sprint.one,
				decisions: [s.working, s.lined].map((id) => ({
					...card(s, id),
					decision: 'carry',
					reason: 'bigger',
				})),
			},
		],
	},
	start: {
		once: true,
		send: (s) => [s.board.lead, 'StartSprint', { board: s.board.id, sprint: 2, version: s.sprint.two }],
	},
	move: {
		once: true,
		send: (s) => [s.board.member, 'MoveCard', { ...card(s, s.working), column: s.board.columns.Check }],
	},
	finish: {
		once: true,
		send: (s) => [s.board.member, 'MoveCard', { ...card(s, s.working), column: s.board.columns.Done }],
	},
	add: {
		send: (s) => [
			s.board.member,
			'AddCard',
			{ board: s.board.id, column: s.board.columns.Making, title: 'New' },
		],
	},
	'change column': {
		once: true,
		send: (s) => [
			s.board.lead,
			'ChangeColumn',
			{ column: s.board.columns.Check, version: s.column, limit: 3, mode: 'hold', policy: 'Mine' },
		],
	},
	plan: {
		once: true,
		send: (s) => [s.board.member, 'PlanCards', { board: s.board.id, cards: [card(s, s.loose)], sprint: 1 }],
	},
	'take off': {
		once: true,
		send: (s) => [
			s.board.member,
			'PlanCards',
			{ board: s.board.id, cards: [card(s, s.lined)], sprint: null },
		],
	},
	'remove member': {
		once: true,
		removes: true,
		send: (s) => [s.board.lead, 'RemoveMember', { team: s.board.team, person: s.board.member.id }],
	},
	undo: { once: true, send: (s) => [s.board.member, 'UndoCommand', { of: s.undoable }] },
	'log time': {
		send: (s) => [s.board.member, 'LogTime', { card: s.working, day: TODAY, hours: 1 }],
	},
	timer: { once: true, send: (s) => [s.board.member, 'StartTimer', { card: s.working }] },
	archive: {
		once: true,
		send: (s) => [s.board.member, 'ArchiveCard', { ...card(s, s.lined), reason: 'No' }],
	},
	size: { once: true, send: (s) => [s.board.member, 'SizeCard', { ...card(s, s.working), size: 13 }] },
	cadence: { send: (s) => [s.board.lead, 'ChangeCadence', { board: s.board.id, days: 7, weekday: 2 }] },
	week: {
		send: (s) => [
			s.board.lead,
			'ChangeWeek',
			{ team: s.board.team, person: s.board.member.id, from: TODAY, hours: [6, 6, 6, 6, 6, 0, 0] },
		],
	},
};

/** What holds on a board whatever was done to it. */
async function sound(board: SprintBoard): Promise<void> {
	assert.deepEqual((await checkLedgers(board.key)).wrong, []);
	const { rows } = await db.query(
		`select
			(select count(*) from event where board_id = $1) = (select last_seq from board where id = $1) as numbered,
			(select count(*) from card c join sprint s on s.id = c.sprint_id
				where c.board_id = $1 and s.closed_at is not null) as left_behind,
			(select count(*) from card c left join stay s on s.card_id = c.id and s.left_at is null
				where c.board_id = $1 and s.column_id is distinct from c.column_id) as astray,
			(select count(*) from card c join board_column k on k.id = c.column_id
				where c.board_id = $1 and k.limit_mode = 'hold' and c.archived_at is null and c.let_through is null
				and k.wip_limit < (select count(*) from card o where o.column_id = k.id and o.archived_at is null)) as squeezed,
			(select count(*) from sprint where board_id = $1 and started_at is not null and closed_at is null) as running`,
		[board.id],
	);
	const { numbered, left_behind, astray, squeezed, running } = rows[0];
	assert.equal(numbered, true, 'events are numbered without gaps');
	assert.equal(Number(left_behind), 0, 'no card is on the list of a closed sprint');
	assert.equal(Number(astray), 0, 'every card stands where its open stay is');
	assert.equal(Number(squeezed), 0, 'no limit that holds is exceeded without a reason');
	assert.ok(Number(running) <= 1);
}

const done = (outcome: Outcome) => outcome.result !== undefined;

describe('two commands at once, through two processes', () => {
	for (const [first, a] of Object.entries(ACTS))
		test(`${first}, then each of the others`, async () => {
			for (const [second, b] of Object.entries(ACTS)) {
				const s = await scene(db);
				const [sentA, sentB] = [a.send(s), b.send(s)];
				const outcomes = await queued(db, [s.board.id], [() => here(sentA), () => there(sentB)]);
				const what = `${first}, then ${second}: ${JSON.stringify(outcomes)}`;
				for (const { failed, refused } of outcomes) {
					assert.equal(failed, undefined, what);
					if (refused) assert.ok(refused.status < 500 && refused.sentence.endsWith('.'), what);
				}
				if (first === second && a.once) assert.ok(outcomes.filter(done).length <= 1, what);
				// Whoever was removed while waiting has no right any more.
				if (a.removes && done(outcomes[0]!) && sentB[0] === s.board.member)
					assert.ok(outcomes[1]!.refused && [403, 404].includes(outcomes[1]!.refused.status), what);
				await sound(s.board);
			}
		});
});

test('two timers of one person, started on two boards at once: one runs, the other is refused in words', async () => {
	const one = await runningBoard(db, [['A', 3]]);
	const two = await runningBoard(db, [['B', 3]]);
	await db.query(`insert into membership (team_id, person_id, role) values ($1, $2, 'member')`, [
		two.team,
		one.member.id,
	]);
	const outcomes = await queued(
		db,
		[one.id, two.id],
		[
			() => here([one.member, 'StartTimer', { card: one.cards[0] }]),
			() => there([one.member, 'StartTimer', { card: two.cards[0] }]),
		],
	);
	assert.deepEqual(
		outcomes.map((outcome) => outcome.refused?.code ?? 'started').sort(),
		['started', 'timer.running'],
		JSON.stringify(outcomes),
	);
});

test('an id in capitals names the same card', async () => {
	const { board, lined } = await scene(db);
	const version = (await cardRow(db, lined)).version;
	const twice = await here([
		board.member,
		'PlanCards',
		{
			board: board.id,
			cards: [
				{ card: lined, version },
				{ card: lined.toUpperCase(), version },
			],
			sprint: null,
		},
	]);
	assert.equal(twice.refused?.code, 'invalid.cards');
	const once = await here([board.member, 'MoveCard', { card: lined.toUpperCase(), version, column: null }]);
	assert.ok(once.result);
});

test('many that wait for one board do not hold up what has nothing to do with it', async () => {
	const board = await runningBoard(db, [['A', 3]]);
	const other = await runningBoard(db, [['B', 3]]);
	const holder = await db.connect();
	await holder.query('begin');
	await holder.query('select from board where id = $1 for update', [board.id]);
	const many = Array.from({ length: 30 }, (_, i) => addCard(board, null, `Card ${i}`));
	// Another board and a read are answered while thirty wait.
	await addCard(other, null, 'Not held up');
	assert.equal((await db.query('select from card where title = $1', ['Not held up'])).rowCount, 1);
	const { rows } = await db.query(
		`select count(*) as n from card where board_id = $1 and title like 'Card %'`,
		[board.id],
	);
	assert.equal(Number(rows[0].n), 0);
	await holder.query('commit');
	holder.release();
	assert.equal(new Set(await Promise.all(many)).size, 30);
});

test('what waits too long is refused in words and changes nothing', async () => {
	const board = await runningBoard(db, [['A', 3]]);
	const holder = await db.connect();
	await holder.query('begin');
	await holder.query('select from board where id = $1 for update', [board.id]);
	const waited = await here([board.member, 'AddCard', { board: board.id, column: null, title: 'Too late' }]);
	assert.deepEqual([waited.refused?.status, waited.refused?.code], [503, 'board.busy']);
	await holder.query('commit');
	holder.release();
	assert.equal((await db.query(`select from card where title = 'Too late'`)).rowCount, 0);
});

test('time follows the board: a clock that is behind never writes before what has happened', async () => {
	const board = await runningBoard(db, [['A', 3]]);
	const [id] = board.cards as [string];
	const move = async (column: string) =>
		here([board.member, 'MoveCard', { ...(await seen(db, id))[0], column, reason: 'clock' }]);
	await at('2026-11-23T15:00:02Z', () => move(board.columns.Making));
	// This process is two seconds behind the one that moved the card last.
	assert.ok((await at('2026-11-23T15:00:00Z', () => move(board.columns.Check))).result);
	await sound(board);
});
