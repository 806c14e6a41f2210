import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { describe, test } from 'node:test';
import { useDatabase } from './support/database.ts';
import { signIn, startServer } from './support/server.ts';
import { within } from './support/within.ts';

const db = await useDatabase('demo');
const server = await startServer();
const cookie = await signIn(server.url, 'Ines Okoro');
const board = await (await fetch(`${server.url}/api/boards/tidewatch`, { headers: { cookie } })).json();
const { rows: teams } = await db.query('select id, time_zone from team');
const team = teams[0].id as string;

interface Answered {
	status: number;
	json: { code?: string; title?: string; result?: Record<string, unknown> };
	retryAfter: string | null;
}

async function send(command: string, input: unknown, id = randomUUID(), who = cookie): Promise<Answered> {
	const response = await fetch(`${server.url}/api/commands`, {
		method: 'POST',
		headers: { cookie: who, origin: server.url, 'content-type': 'application/json' },
		body: JSON.stringify({ id, command, input }),
	});
	return {
		status: response.status,
		json: await response.json(),
		retryAfter: response.headers.get('retry-after'),
	};
}

test('connections that the database ends cost their commands a clear answer and nothing else', async () => {
	const ids = Array.from({ length: 60 }, () => randomUUID());
	const add = (id: ReturnType<typeof randomUUID>, i: number) =>
		send('AddCard', { board: board.id, column: null, title: `Through the storm ${i}` }, id);
	const first = Promise.all(ids.map(add));
	for (let cut = 0; cut < 3; cut++)
		await db.query(
			`select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()
				and application_name <> 'test'`,
		);
	for (const { status, json, retryAfter } of await first)
		if (status !== 200) {
			assert.deepEqual([status, json.code], [503, 'database.away'], JSON.stringify(json));
			assert.ok(Number(retryAfter) > 0);
		}
	// The same ids again: what was done answers as it did, what was not is done now.
	for (const [i, id] of ids.entries()) {
		let answer = await add(id, i);
		for (let tries = 0; answer.status === 503 && tries < 20; tries++) answer = await add(id, i);
		assert.equal(answer.status, 200, JSON.stringify(answer.json));
	}
	const { rows } = await db.query(`select count(*) as n from card where title like 'Through the storm %'`);
	assert.equal(Number(rows[0].n), 60, 'each exactly once');
	assert.equal(server.process.exitCode, null, 'the process is still there');
});

describe('calendar files from anybody', () => {
	const file = (rule: string, extra = '') =>
		`BEGIN:VCALENDAR\r\nVERSION:2.0\r\n${extra}BEGIN:VEVENT\r\nUID:r1\r\nDTSTART:20260101T090000\r\nDTEND:20260101T100000\r\nRRULE:${rule}\r\nEND:VEVENT\r\nEND:VCALENDAR`;

	for (const rule of [
		'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30',
		'FREQ=SECONDLY;BYMONTH=2;BYMONTHDAY=30',
		'FREQ=MINUTELY;BYMONTH=2;BYMONTHDAY=31',
	])
		test(`a rule that no day meets is refused in time, and holds nobody up: ${rule}`, async () => {
			const person = board.people.find((one: { name: string }) => one.name === 'Ines Okoro').id;
			const reading = send('ReadCalendar', { team, person, file: file(rule) });
			let answered = 0;
			const done = reading.then(() => true);
			// Others are answered all the while.
			while (!(await Promise.race([done, fetch(`${server.url}/health`).then(() => false)]))) answered++;
			const { status, json } = await reading;
			assert.deepEqual([status, json.code], [422, 'calendar.unreadable']);
			assert.match(json.title!, /takes too long to read/);
			assert.ok(answered > 20, `${answered} others were answered meanwhile`);
		});

	test('zones that a file brings along mean nothing to the next file', async () => {
		const person = board.people.find((one: { name: string }) => one.name === 'Ines Okoro').id;
		const zone = (offset: string) =>
			`BEGIN:VTIMEZONE\r\nTZID:Here\r\nBEGIN:STANDARD\r\nDTSTART:19700101T000000\r\nTZOFFSETFROM:${offset}\r\nTZOFFSETTO:${offset}\r\nEND:STANDARD\r\nEND:VTIMEZONE\r\n`;
		const event = (uid: string) =>
			`BEGIN:VEVENT\r\nUID:${uid}\r\nDTSTART;TZID=Here:20270301T233000\r\nDTEND;TZID=Here:20270302T003000\r\nEND:VEVENT\r\n`;
		const calendar = (uid: string, offset: string) =>
			`BEGIN:VCALENDAR\r\nVERSION:2.0\r\n${offset && zone(offset)}${event(uid)}END:VCALENDAR`;
		await send('ReadCalendar', { team, person, file: calendar('far', '+1300') });
		await send('ReadCalendar', { team, person, file: calendar('own', '') });
		const { rows } = await db.query(
			`select calendar_uid, from_day::text from absence where calendar_uid in ('far', 'own') order by calendar_uid, from_day`,
		);
		assert.deepEqual(
			rows.map((row) => [row.calendar_uid, row.from_day]),
			[
				['far', '2027-03-01'],
				['own', '2027-03-01'],
				['own', '2027-03-02'],
			],
			'the second file has no zone: its times are the team’s',
		);
	});
});

test('a loop of links is found however many ways lead to it, and named by the shortest', async () => {
	const layers = 13;
	const made = await send('AddCards', {
		board: board.id,
		cards: Array.from({ length: layers * 3 }, (_, i) => ({ title: `Layer ${Math.floor(i / 3)}` })),
	});
	const cards = made.json.result!.cards as { id: string; number: number }[];
	await db.query(
		`insert into card_link (from_id, to_id, kind)
		select a.id, b.id, 'blocks' from jsonb_to_recordset($1) a(id uuid, layer int)
		join jsonb_to_recordset($1) b(id uuid, layer int) on b.layer = a.layer + 1`,
		[JSON.stringify(cards.map(({ id }, i) => ({ id, layer: Math.floor(i / 3) })))],
	);
	const last = cards.at(-1)!;
	let json: Awaited<ReturnType<typeof send>>['json'] = {};
	await within(500, 'ms', async () => {
		const began = performance.now();
		const to = cards[0]!.number;
		({ json } = await send('LinkCard', { card: last.id, version: 1, to, kind: 'blocks' }));
		return performance.now() - began;
	});
	assert.equal(json.code, 'link.loop');
	assert.equal(json.title!.split(' blocks ').length, layers + 1, json.title);
});

describe('what is wrong is said in words, whatever it is', () => {
	const card = board.cards.find((one: { clock: string }) => one.clock === 'running');
	const WRONG: [what: string, command: string, input: unknown, code: string][] = [
		[
			'a list inside a list',
			'ChecklistCard',
			{ card: card.id, version: card.version, lines: [[]] },
			'invalid.lines',
		],
		[
			'a list where an object belongs',
			'PlanCards',
			{ board: board.id, cards: [[]], sprint: null },
			'invalid.cards',
		],
		[
			'a list of lists of shares',
			'ChangeShares',
			{ team, person: randomUUID(), from: '2026-11-20', shares: [[]] },
			'invalid.shares',
		],
		['names that every object has', 'RenameCard', { constructor: 1 }, 'field.unknown'],
		['the same deep inside', 'UndoCommand', { of: { constructor: 1 } }, 'field.unknown'],
		['a very small number', 'SizeCard', { card: card.id, version: card.version, size: 1e-7 }, 'invalid.size'],
		[
			'null in a field that may be left out',
			'LogTime',
			{ card: card.id, day: '2026-11-20', hours: 1, note: null },
			'invalid.note',
		],
		[
			'null for a mark',
			'LogTime',
			{ card: card.id, day: '2026-11-20', hours: 1, billable: null },
			'invalid.billable',
		],
		[
			'null for a goal',
			'ChangeSprint',
			{ board: board.id, sprint: 14, version: 1, goal: null },
			'invalid.goal',
		],
	];
	for (const [what, command, input, code] of WRONG)
		test(what, async () => {
			const { status, json } = await send(command, input);
			assert.deepEqual([status, json.code], [422, code], JSON.stringify(json));
		});

	for (const path of [
		'/teams/00000000-0000-0000-0000-00000000000-/timesheet',
		'/teams/------------------------------------/people',
		'/teams/------------------------------------/account/file',
		`/teams/${team}/timesheet?week=0000-01-01`,
		`/teams/${team}/timesheet?week=9999-12-31`,
		`/teams/${team}/account?from=0001-01-01&to=9999-12-31`,
		`/teams/${team}/account?by=constructor`,
		'/boards/tidewatch/flow/figures?of=__proto__',
		'/boards/tidewatch/flow?from=9999-12-31&to=9999-12-31',
		'/boards/tidewatch/plan?sprint=99999999999',
		'/boards/tidewatch/look-back/1e300',
		'/sign-in?next=/%0A',
	])
		test(`no address fails: ${path}`, async () => {
			const { status } = await fetch(`${server.url}${path}`, { headers: { cookie }, redirect: 'manual' });
			assert.ok(status < 500, String(status));
		});

	test('forms at sign-in that cannot be read, and actions that are none', async () => {
		for (const [path, type, body] of [
			['?/password', 'multipart/form-data', ''],
			['?/password', 'text/plain', 'x'],
			['?/__proto__', 'application/x-www-form-urlencoded', ''],
			['?/constructor', 'application/x-www-form-urlencoded', ''],
		] as const) {
			const { status } = await fetch(`${server.url}/sign-in${path}`, {
				method: 'POST',
				headers: { origin: server.url, 'content-type': type },
				body,
			});
			assert.ok(status < 500, `${path} ${type}: ${status}`);
		}
	});
});

describe('signing in', () => {
	const attempt = (email: string, password: string) =>
		fetch(`${server.url}/sign-in?/password`, {
			method: 'POST',
			redirect: 'manual',
			headers: {
				origin: server.url,
				accept: 'text/html',
				'content-type': 'application/x-www-form-urlencoded',
			},
			body: new URLSearchParams({ email, password }),
		});

	test('of sixty tries at once for one address no more are tried than ten', async () => {
		const statuses = await Promise.all(
			Array.from(
				{ length: 60 },
				async (_, i) => (await attempt('bram@tidewatch.example', `wrong ${i}`)).status,
			),
		);
		assert.equal(statuses.filter((status) => status === 401).length, 10, String(statuses));
		assert.equal(statuses.filter((status) => status === 429).length, 50);
		// Wrong tries for one address hold up nobody else.
		assert.equal((await attempt('yuki@tidewatch.example', 'harrow demo')).status, 303);
	});

	test('goes on to nowhere but Harrow', async () => {
		for (const next of [
			'/%09/host.example',
			'/\\host.example',
			'//host.example',
			'/%0A/host.example',
			'http://host.example',
			'/./\\host.example',
		]) {
			const answer = await fetch(`${server.url}/sign-in?next=${next}`, {
				headers: { cookie },
				redirect: 'manual',
			});
			assert.equal(answer.status, 303, next);
			const to = new URL(answer.headers.get('location')!, server.url);
			assert.equal(to.origin, server.url, next);
		}
		const answer = await fetch(
			`${server.url}/sign-in?next=${encodeURIComponent('/boards/tidewatch?card=1')}`,
			{
				headers: { cookie },
				redirect: 'manual',
			},
		);
		assert.equal(answer.headers.get('location'), '/boards/tidewatch?card=1');
	});
});

describe('who was removed', () => {
	test('sees no board that named them, keeps no session, and their timer is stopped and kept', async () => {
		const { rows } = await db.query(
			`insert into person (name, initials, email, created_at) values ('Lee Gone', 'LG', 'lee@tidewatch.example', now()) returning id`,
		);
		const lee = rows[0].id as string;
		await db.query(`insert into membership (team_id, person_id, role) values ($1, $2, 'member')`, [
			team,
			lee,
		]);
		await db.query(
			`with hidden as (
				insert into board (team_id, name, slug, key, visible_to) values ($1, 'Hidden', 'hidden', 'HIDE', 'named') returning id
			), named as (insert into board_person select id, $2 from hidden)
			insert into board_column (board_id, name, kind, position) select id, 'Only', 'work', 0 from hidden`,
			[team, lee],
		);
		const theirs = await signIn(server.url, 'Lee Gone');
		const see = (path: string) => fetch(`${server.url}${path}`, { headers: { cookie: theirs } });
		assert.equal((await see('/api/boards/hidden')).status, 200);
		const made = await send('MakeToken', { name: 'Script', scope: 'write' }, randomUUID(), theirs);
		const bearer = { authorization: `Bearer ${(made.json as { secret?: string }).secret}` };
		const running = board.cards.find((one: { clock: string }) => one.clock === 'running').id;
		assert.equal((await send('StartTimer', { card: running }, randomUUID(), theirs)).status, 200);
		await db.query(`update timer set started_at = $2 where person_id = $1`, [lee, '2026-11-23T12:20:00Z']);
		const stream = (await see('/api/boards/hidden/live')).body!.getReader();
		await stream.read();

		assert.equal((await send('RemoveMember', { team, person: lee })).status, 200);
		const began = performance.now();
		for (let part = await stream.read(); !part.done; part = await stream.read());
		assert.ok(performance.now() - began < 1000, 'the stream ends at once, not at the next heartbeat');
		assert.equal((await see('/api/boards/hidden')).status, 401);
		for (const path of ['/api/boards/hidden', '/api/boards/tidewatch'])
			assert.equal((await fetch(`${server.url}${path}`, { headers: bearer })).status, 404, path);
		const { rows: timers } = await db.query('select from timer where person_id = $1', [lee]);
		assert.equal(timers.length, 0);
		const { rows: kept } = await db.query('select hours from time_entry where person_id = $1', [lee]);
		assert.deepEqual(
			kept.map((row) => Number(row.hours)),
			[2],
		);
	});

	test('the page of people tells nobody of a board that they do not see', async () => {
		const other = await signIn(server.url, 'Bram Tolver');
		const { rows } = await db.query(`select id from board where slug = 'hidden'`);
		const page = await (
			await fetch(`${server.url}/teams/${team}/people`, { headers: { cookie: other } })
		).text();
		assert.ok(page.includes('Bram Tolver'));
		assert.ok(!page.includes(rows[0].id));
	});
});
