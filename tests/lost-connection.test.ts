import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { connect, createServer, type AddressInfo, type Socket } from 'node:net';
import { after, test } from 'node:test';
import { useDatabase } from './support/database.ts';
import { signIn, startServer } from './support/server.ts';

const db = await useDatabase('demo');
const real = new URL(process.env.DATABASE_URL!);

/** Ends a connection the moment that a question which says this passes by, before it reaches the database. */
let deadly: string | null = null;
const open = new Set<Socket>();
const line = createServer((from) => {
	const to = connect(Number(real.port), real.hostname);
	for (const [one, other] of [
		[from, to],
		[to, from],
	] as const) {
		open.add(one);
		one.on('error', () => undefined);
		one.on('close', () => (open.delete(one), other.destroy()));
	}
	from.on('data', (chunk) => {
		if (deadly !== null && chunk.includes(deadly)) return void from.resetAndDestroy();
		to.write(chunk);
	});
	to.on('data', (chunk) => from.write(chunk));
});
await new Promise<void>((resolve) => line.listen(0, '127.0.0.1', resolve));
after(() => {
	line.close();
	for (const socket of open) socket.destroy();
});

const through = new URL(real);
through.port = String((line.address() as AddressInfo).port);
const server = await startServer({ DATABASE_URL: through.href });
const cookie = await signIn(server.url, 'Ines Okoro');
const board = (await db.query(`select id from board where slug = 'tidewatch'`)).rows[0].id as string;

const add = async (title: string) => {
	const answer = await fetch(`${server.url}/api/commands`, {
		method: 'POST',
		headers: { cookie, origin: server.url, 'content-type': 'application/json' },
		body: JSON.stringify({ id: randomUUID(), command: 'AddCard', input: { board, column: null, title } }),
	});
	return [answer.status, (await answer.json()).code];
};

test('jobs whose timetable cannot be read begin again once the database is back, and take nobody along', async () => {
	await db.query('drop schema if exists graphile_worker cascade');
	deadly = '_private_known_crontabs as';
	const worker = await startServer({ DATABASE_URL: through.href, HARROW_JOBS: 'on' });
	const heard = async (words: string) => {
		const ended = once(worker.process, 'exit').then(() => assert.fail(worker.log()));
		while (!worker.log().includes(words)) await Promise.race([once(worker.process.stdout!, 'data'), ended]);
		ended.catch(() => undefined);
	};
	await heard('jobs wait for the database');
	assert.equal((await fetch(`${worker.url}/health`)).status, 200);
	deadly = null;
	await heard('jobs are done here');
	const { rowCount } = await db.query('select from graphile_worker._private_known_crontabs');
	assert.ok(rowCount! > 0);
	assert.equal(worker.process.exitCode, null, worker.log());
});

// A connection dies while it is made ready, at the start of its work, within, and at the end.
for (const moment of ['clock_timestamp() as now', 'begin', 'insert into card', 'commit'])
	test(`a connection that dies at “${moment}” costs one command a clear answer and nothing else`, async () => {
		const title = `Lost at ${moment}`;
		// Those at hand are used up: what is asked now makes new ones.
		await db.query(
			`select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()
				and application_name <> 'test'`,
		);
		deadly = moment;
		assert.deepEqual(await add(title), [503, 'database.away']);
		deadly = null;
		assert.deepEqual(await add(title), [200, undefined]);
		assert.equal(server.process.exitCode, null, 'the process is still there');
		const { rows } = await db.query('select count(*) as n from card where title = $1', [title]);
		assert.equal(Number(rows[0].n), 1);
	});
