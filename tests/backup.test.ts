import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import pg from 'pg';
import { templateUrl, useDatabase } from './support/database.ts';

const db = await useDatabase('demo');
const from = process.env.DATABASE_URL!;
const folder = mkdtempSync(join(tmpdir(), 'harrow-'));
const file = join(folder, 'harrow.backup');
const made: string[] = [];

async function asServer(work: (client: pg.Client) => Promise<unknown>): Promise<void> {
	const client = new pg.Client({ connectionString: templateUrl('postgres') });
	await client.connect();
	await work(client).finally(() => client.end());
}
after(async () => {
	rmSync(folder, { recursive: true });
	await asServer(async (client) => {
		for (const name of made) await client.query(`drop database if exists ${name} with (force)`);
	});
});

/** An empty database of its own, by its address. */
async function emptyDatabase(): Promise<string> {
	const name = `harrow_restored_${process.pid}_${made.length}`;
	made.push(name);
	await asServer((client) => client.query(`create database ${name} template template0`));
	return templateUrl(name);
}
function harrow(url: string, ...args: string[]) {
	const { status, stdout, stderr } = spawnSync(
		process.execPath,
		[`${process.env.HARROW_BUILD}/harrow.js`, ...args],
		{
			encoding: 'utf8',
			env: { ...process.env, DATABASE_URL: url, ORIGIN: 'https://harrow.example' },
		},
	);
	return { status, stdout, stderr };
}

/** Every table with the sum of its rows. */
async function sums(pool: { query: pg.Pool['query'] }): Promise<Record<string, string>> {
	const { rows } = await pool.query<{ name: string }>(
		`select relname as name from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace order by 1`,
	);
	const found: Record<string, string> = {};
	for (const { name } of rows) {
		const sum = await pool.query(
			`select count(*) || ' ' || coalesce(md5(string_agg(md5(t::text), '' order by t::text)), '') as sum from "${name}" t`,
		);
		found[name] = sum.rows[0].sum;
	}
	return found;
}

test('what is restored into an empty database is equal table by table, and so are its figures', async () => {
	const written = harrow(from, 'backup', file);
	assert.equal(written.status, 0, written.stderr);
	assert.match(written.stdout, /\d+ people, \d+ cards, \d+ events, \d+ time entries, \d+ kB/);
	assert.match(harrow(from, 'backup', file).stderr, /is there already/);
	const before = await sums(db);

	const to = await emptyDatabase();
	const restored = harrow(to, 'restore', file);
	assert.equal(restored.status, 0, restored.stderr);
	assert.match(restored.stdout, /all ledgers add up/);
	const pool = new pg.Pool({ connectionString: to });
	assert.deepEqual(await sums(pool), before);
	await pool.end();
	for (const url of [from, to])
		assert.equal(
			harrow(url, 'export', '--board', 'TIDE', '--out', join(folder, url === from ? 'a' : 'b')).status,
			0,
		);
	for (const name of ['tidewatch.json', 'tidewatch.csv'])
		assert.equal(
			readFileSync(join(folder, 'a', name), 'utf8'),
			readFileSync(join(folder, 'b', name), 'utf8'),
		);
});

test('a full database, a file that is cut and one that is none are refused, and nothing is kept', async () => {
	const full = harrow(from, 'restore', file);
	assert.equal(full.status, 2);
	assert.match(full.stderr, /not empty/);
	const whole = readFileSync(file);
	for (const [name, bytes] of [
		['cut.backup', whole.subarray(0, whole.length / 2)],
		['head.backup', whole.subarray(0, 300)],
		['none.backup', Buffer.from('no backup')],
	] as const) {
		writeFileSync(join(folder, name), bytes);
		const to = await emptyDatabase();
		const refused = harrow(to, 'restore', join(folder, name));
		assert.equal(refused.status, 2, name);
		assert.match(refused.stderr, /could not be restored, and nothing was kept of it/);
		const pool = new pg.Pool({ connectionString: to });
		assert.deepEqual(await sums(pool), {});
		await pool.end();
	}
	assert.match(harrow(from, 'restore', join(folder, 'nowhere')).stderr, /There is no file/);
	assert.match(harrow('', 'restore', file).stderr, /Set DATABASE_URL/);
});

test('a link to set a new password is printed for the last lead', () => {
	const printed = harrow(from, 'reset', 'INES@tidewatch.example');
	assert.equal(printed.status, 0, printed.stderr);
	assert.match(printed.stdout, /^Ines Okoro .*\nhttps:\/\/harrow\.example\/reset\/[\w-]{40,}\n$/s);
	assert.match(harrow(from, 'reset', 'nobody@example.org').stderr, /Nobody has an account/);
});
