import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { after, describe, test } from 'node:test';
import pg from 'pg';
import { closeDatabase } from '../src/lib/server/database.ts';
import { migrate } from '../src/lib/server/migrate.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { boardFold } from '../src/lib/server/questions/fold.ts';
import { boardHistory } from '../src/lib/server/questions/history.ts';
import { scene, type Scene } from './support/scene.ts';
import { command } from './support/small-board.ts';

const name = `replica-${process.pid}`;
const clusters = (what: string) =>
	execFileSync('bash', ['tests/support/replica.sh', what, name], { encoding: 'utf8' }).trim().split('\n');
after(async () => {
	await closeDatabase();
	await Promise.all([db.end(), replica.end()]);
	clusters('down');
});
const [first, second] = clusters('up') as [string, string];
await migrate(first);
Object.assign(process.env, { DATABASE_URL: first, DATABASE_READ_URL: second });
const db = new pg.Pool({ connectionString: first });
const replica = new pg.Pool({ connectionString: second });
for (const pool of [db, replica]) pool.on('error', () => undefined);

const head = (s: Scene) => boardHead(s.board.lead, s.board.slug);
const seqOn = async (pool: pg.Pool, s: Scene) =>
	(await pool.query<{ seq: number }>('select last_seq as seq from board where id = $1', [s.board.id])).rows[0]
		?.seq;
async function caughtUp(s: Scene): Promise<void> {
	while ((await seqOn(replica, s)) !== (await seqOn(db, s)));
}
/** How often the connections to a cluster have asked for histories last. */
const asked = async (pool: pg.Pool) =>
	(
		await pool.query<{ n: number }>(
			`select count(*)::int as n from pg_stat_activity
			where pid <> pg_backend_pid() and query like '%from event e%' and query like '%stands_for%'`,
		)
	).rows[0]!.n;
const cardsOf = async (s: Scene) =>
	[...new Set((await boardHistory(await head(s))).map(({ card }) => card))].sort();
const folded = async (s: Scene) =>
	Array.from((await boardFold(await head(s))).flow.lives.byCard.values(), ({ card }) => card).sort();
const numbered = (s: Scene, ...numbers: number[]) => numbers.map((n) => `${s.board.key}-${n}`).sort();

describe('a read replica', () => {
	test('answers for the past of a board, where it has all of it', async () => {
		const s = await scene(db);
		await caughtUp(s);
		assert.equal(await asked(replica), 0);
		const cards = await cardsOf(s);
		assert.ok(cards.length >= 3, `${cards.length} cards`);
		assert.equal(await asked(replica), 1, 'the replica was asked');
		assert.equal(await asked(db), 0, 'and the database was not');
		assert.deepEqual(await folded(s), cards);
	});

	test('is passed over while it is behind: what somebody has written they read', async () => {
		const s = await scene(db);
		await caughtUp(s);
		await replica.query('select pg_wal_replay_pause()');
		while ((await replica.query('select pg_get_wal_replay_pause_state() as is')).rows[0].is !== 'paused');
		const before = await cardsOf(s);
		await command(s.board.lead, 'AddCards', { board: s.board.id, cards: [{ title: 'Written now' }] });
		const { rows } = await db.query('select max(number) as n from card where board_id = $1', [s.board.id]);
		const now = [...before, ...numbered(s, rows[0].n as number)].sort();
		assert.deepEqual(await cardsOf(s), now);
		assert.deepEqual(await folded(s), now);
		assert.notEqual(await seqOn(replica, s), await seqOn(db, s), 'it is still behind');
		// A board that it has never heard of, too.
		const other = await scene(db);
		assert.equal(await seqOn(replica, other), undefined);
		assert.deepEqual(await folded(other), await cardsOf(other));
		await replica.query('select pg_wal_replay_resume()');
		await caughtUp(other);
	});

	test('that fails while it is asked changes nothing for those who ask, then and afterwards', async () => {
		const boards = [await scene(db), await scene(db), await scene(db)];
		for (const s of boards) await caughtUp(s);
		const expected = await Promise.all(boards.map(cardsOf));
		const asking = boards.map(async (s) => {
			const answers: string[][] = [];
			for (let i = 0; i < 40; i++) answers.push(await cardsOf(s));
			return answers;
		});
		clusters('stop');
		for (const [i, answers] of (await Promise.all(asking)).entries())
			for (const answer of answers) assert.deepEqual(answer, expected[i]);
		await assert.rejects(replica.query('select 1'));
		for (const [i, s] of boards.entries()) assert.deepEqual(await folded(s), expected[i]);
	});
});
