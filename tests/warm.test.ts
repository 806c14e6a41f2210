import assert from 'node:assert/strict';
import { once } from 'node:events';
import { test } from 'node:test';
import { useDatabase } from './support/database.ts';
import { launch, signIn, startServer } from './support/server.ts';

const db = await useDatabase('demo');
const WARM = { HARROW_WARM: '' };

interface Line {
	msg: string;
	pages?: number;
	path?: string;
}

/** What a server has logged, line by line. */
const logged = (log: string): Line[] =>
	log
		.split('\n')
		.filter((line) => line.startsWith('{'))
		.map((line) => JSON.parse(line));

/** How many rows each table has, and what was written to it. */
async function written(): Promise<object[]> {
	const { rows } = await db.query(
		`select relname, (xpath('/row/n/text()', query_to_xml(format('select count(*) as n from %I', relname), false, true, '')))[1]::text as n,
			(xpath('/row/n/text()', query_to_xml(format('select max(xmin::text::bigint) as n from %I', relname), false, true, '')))[1]::text as last
		from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace order by relname`,
	);
	return rows;
}

test('boards are looked at before anybody can, in nobody’s name: nothing is written, and no request is logged', async () => {
	const before = await written();
	const { url, log } = await startServer(WARM);
	const lines = logged(log());
	const warm = lines.find(({ msg }) => msg === 'pages are warm');
	assert.ok(warm!.pages! >= 6, JSON.stringify(warm));
	assert.ok(log().indexOf('pages are warm') < log().indexOf('Listening on'));
	assert.deepEqual(
		lines.filter(({ path }) => path),
		[],
	);
	assert.deepEqual(await written(), before);

	// Whoever comes from outside is nobody, and then who they say they are.
	const nobody = await fetch(`${url}/boards/tidewatch`, { redirect: 'manual' });
	assert.equal(nobody.status, 303);
	const page = await fetch(`${url}/boards/tidewatch`, {
		headers: { cookie: await signIn(url, 'Della Marsh') },
	});
	assert.match(await page.text(), /Della Marsh/);
});

test('where the database keeps it waiting, a server listens all the same; told to stop before, it ends', async () => {
	const holder = await db.connect();
	try {
		await holder.query('begin');
		await holder.query('lock table event in access exclusive mode');
		const waiting = async () => {
			const { rows } = await db.query(
				`select count(*)::int as n from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'`,
			);
			return rows[0].n as number;
		};
		const stopped = await launch(WARM);
		stopped.ready.catch(() => undefined);
		while (!(await waiting()));
		stopped.process.kill('SIGTERM');
		assert.equal((await once(stopped.process, 'exit'))[0], 0, stopped.log());
		assert.doesNotMatch(stopped.log(), /Listening on/);

		const { url, log } = await startServer(WARM);
		assert.equal(logged(log()).find(({ msg }) => msg === 'pages are warm')!.pages, 0);
		await holder.query('rollback');
		const page = await fetch(`${url}/boards/tidewatch`, {
			headers: { cookie: await signIn(url, 'Ines Okoro') },
		});
		assert.equal(page.status, 200);
	} finally {
		holder.release();
	}
});
