import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import { test } from 'node:test';
import { migrate } from '../src/lib/server/migrate.ts';
import { useDatabase } from './support/database.ts';

const db = await useDatabase('demo');
const folder = 'db/migrations';

test('migrating a database full of data again changes nothing, and several at once wait for each other', async () => {
	const counts = async () =>
		(
			await db.query(
				'select (select count(*) from card) as cards, (select count(*) from event) as events, (select count(*) from migration) as migrations',
			)
		).rows[0];
	const before = await counts();
	assert.deepEqual(await Promise.all([1, 2, 3].map(() => migrate(process.env.DATABASE_URL!))), [[], [], []]);
	assert.deepEqual(await counts(), before);
	assert.equal(Number(before.migrations), readdirSync(folder).length);
});

test('migrations go forward only', () => {
	for (const file of readdirSync(folder))
		assert.doesNotMatch(
			readFileSync(`${folder}/${file}`, 'utf8'),
			/-- Down Migration|drop table|truncate/i,
			file,
		);
});

test('what must hold is held by the database itself', async () => {
	const { rows } = await db.query(
		`select id, board_id, column_id, rank, number from card where column_id is not null and archived_at is null limit 1`,
	);
	const [card] = rows;
	const refused = (text: string, values: unknown[], rule: RegExp) =>
		assert.rejects(db.query(text, values), rule);
	await refused('insert into stay (card_id, entered_at) values ($1, now())', [card.id], /stay_open|exclu/);
	await refused(
		`insert into stay (card_id, entered_at, left_at) values ($1, '2020-01-02', '2020-01-01')`,
		[card.id],
		/check/,
	);
	await refused(
		`insert into stay (card_id, entered_at, left_at) select card_id, entered_at, left_at from stay where left_at > entered_at limit 1`,
		[],
		/exclu/,
	);
	await refused('update card set size = -1 where id = $1', [card.id], /check/);
	await refused(`update card set title = '' where id = $1`, [card.id], /check/);
	await refused(`update card set clock = 'done', finished_at = null where id = $1`, [card.id], /check/);
	await refused(
		`insert into card (board_id, number, title, rank, created_at) values ($1, $2, 'Twice', 'zz', now())`,
		[card.board_id, card.number],
		/unique/,
	);
	await refused(
		`insert into card (board_id, number, title, column_id, rank, created_at) values ($1, 99999, 'Same place', $2, $3, now())`,
		[card.board_id, card.column_id, card.rank],
		/card_place/,
	);
	await refused(
		`insert into sprint (board_id, number, starts, ends, started_at) select board_id, 999, '2027-01-01', '2027-01-02', now() from sprint where closed_at is null and started_at is not null limit 1`,
		[],
		/sprint_running/,
	);
	await refused('delete from card where id = $1', [card.id], /foreign key/);
});

test('every key that is followed has an index that begins with it', async () => {
	const { rows } = await db.query(
		`select c.conrelid::regclass::text as "table", array_agg(a.attname::text order by x.n) as columns
		from pg_constraint c
		cross join lateral unnest(c.conkey) with ordinality x(attnum, n)
		join pg_attribute a on a.attrelid = c.conrelid and a.attnum = x.attnum
		where c.contype = 'f' and not exists (select from pg_index i
			where i.indrelid = c.conrelid and (i.indkey::int2[])[0:array_length(c.conkey, 1) - 1] @> c.conkey)
		group by c.oid, c.conrelid
		order by 1`,
	);
	assert.deepEqual(
		rows.map((row) => `${row.table}(${row.columns.join(', ')})`),
		[],
	);
});
