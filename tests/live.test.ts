import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { connect } from 'node:net';
import { test } from 'node:test';
import { useDatabase } from './support/database.ts';
import { listenTo } from './support/live.ts';
import { signIn, startServer } from './support/server.ts';

const db = await useDatabase('demo');
// Two processes against one database: what is done through one is told by the other.
const [one, two] = await Promise.all([startServer(), startServer()]);
const [here, there] = await Promise.all([signIn(one.url, 'Ines Okoro'), signIn(two.url, 'Bram Tolver')]);
const board = await (await fetch(`${one.url}/api/boards/tidewatch`, { headers: { cookie: here } })).json();
const ready = board.columns[0].id as string;

/** Reads the stream of the demo board. */
const listen = (url: string, cookie: string, headers: Record<string, string> = {}, query = '') =>
	listenTo(`${url}/api/boards/tidewatch/live${query}`, { cookie, ...headers });

async function add(url: string, cookie: string, title: string): Promise<{ seq: number; card: string }> {
	const response = await fetch(`${url}/api/commands`, {
		method: 'POST',
		headers: { cookie, origin: url, 'content-type': 'application/json' },
		body: JSON.stringify({
			id: randomUUID(),
			command: 'AddCard',
			input: { board: board.id, column: ready, title },
		}),
	});
	const answer = await response.json();
	return { seq: answer.seq, card: answer.result.card };
}

test('a change through one process is told by the other within a second', async () => {
	const stream = await listen(two.url, there);
	await add(one.url, here, 'The first one, which warms both');
	await stream.until((change) =>
		change.cards.some((card) => card.title === 'The first one, which warms both'),
	);
	const told = stream.until((change) => change.cards.some((card) => card.title === 'Across'));
	const began = performance.now();
	await add(one.url, here, 'Across');
	await told;
	assert.ok(performance.now() - began < 1000);
	stream.stop();
});

test('a page that was away is told all that it missed, by the number it last saw, through any process', async () => {
	const stream = await listen(two.url, there);
	const { seq } = await stream.until(() => true);
	stream.stop();
	const missed = [];
	for (let i = 0; i < 5; i++)
		missed.push(await add(i % 2 ? one.url : two.url, i % 2 ? here : there, `Missed ${i}`));
	for (const [url, cookie] of [
		[one.url, here],
		[two.url, there],
	] as const) {
		const back = await listen(url, cookie, { 'last-event-id': String(seq) });
		const change = await back.until(() => true);
		assert.deepEqual(change.cards.map((card) => card.title).sort(), [
			'Missed 0',
			'Missed 1',
			'Missed 2',
			'Missed 3',
			'Missed 4',
		]);
		assert.equal(change.seq, missed.at(-1)!.seq);
		back.stop();
	}
});

test('a number that no event has is taken for the present', async () => {
	for (const since of ['-5', 'x', '999999999', '1e400']) {
		const stream = await listen(one.url, here, {}, `?since=${since}`);
		assert.deepEqual((await stream.until(() => true)).cards, [], since);
		stream.stop();
	}
});

test('when the listening connection is lost it is made again, and nothing is missed', async () => {
	const stream = await listen(one.url, here);
	await stream.until(() => true);
	const { rows } = await db.query(
		`select pg_terminate_backend(pid) from pg_stat_activity where query = 'listen harrow' and datname = current_database()`,
	);
	assert.ok(rows.length >= 1);
	const told = stream.until((change) => change.cards.some((card) => card.title === 'After the cut'));
	await add(two.url, there, 'After the cut');
	await told;
	// The change that comes once the connection is back is told too, and so is the one after it.
	for (const title of ['The next one', 'And the one after']) {
		const next = stream.until((change) => change.cards.some((card) => card.title === title));
		await add(two.url, there, title);
		await next;
	}
	stream.stop();
});

test('a page that does not read is let go, and catches up by its number when it is back', async () => {
	const ended = new AbortController();
	const asleep = await fetch(`${one.url}/api/boards/tidewatch/live`, {
		headers: { cookie: here },
		signal: ended.signal,
	});
	const send = async (command: string, input: object) => {
		const response = await fetch(`${one.url}/api/commands`, {
			method: 'POST',
			headers: { cookie: here, origin: one.url, 'content-type': 'application/json' },
			body: JSON.stringify({ id: randomUUID(), command, input }),
		});
		assert.equal(response.status, 200);
		return (await response.json()).result;
	};
	const { cards } = await send('AddCards', {
		board: board.id,
		cards: Array.from({ length: 500 }, (_, i) => ({ title: `${i} ${'a long story '.repeat(22)}` })),
	});
	// Far more than waits for one page, and than a connection holds by itself.
	for (let version = 1; version <= 40; version++)
		await send('ChangeCards', {
			board: board.id,
			cards: cards.map(({ id }: { id: string }) => ({ card: id, version })),
			ready: version % 2 === 1,
		});
	let bytes = 0;
	const reader = asleep.body!.getReader();
	for (let part = await reader.read(); !part.done; part = await reader.read()) bytes += part.value.byteLength;
	assert.ok(bytes > 0, 'it ended by itself');
	ended.abort();
	const back = await listen(one.url, here, {}, '?since=1');
	assert.ok((await back.until(() => true)).cards.some((card) => card.id === cards[0].id));
	back.stop();
});

test('signing out ends the streams of that session within a second', async () => {
	const cookie = await signIn(one.url, 'Sam Pike');
	const stream = await listen(one.url, cookie);
	await stream.until(() => true);
	const began = performance.now();
	const over = assert.rejects(
		stream.until(() => false),
		/The stream ended/,
	);
	await fetch(`${two.url}/sign-out`, {
		method: 'POST',
		redirect: 'manual',
		headers: { cookie, origin: two.url },
	});
	await over;
	assert.ok(performance.now() - began < 1000);
});

test('a stream ends with the session it belongs to, and with the right to see the board', async () => {
	const quick = await startServer({ HARROW_HEARTBEAT_MS: '50' });
	const signedOut = await signIn(quick.url, 'Sam Pike');
	const stream = await listen(quick.url, signedOut);
	await stream.until(() => true);
	const stays = await listen(quick.url, await signIn(quick.url, 'Sam Pike'));
	await stays.until(() => true);
	await fetch(`${quick.url}/sign-out`, {
		method: 'POST',
		redirect: 'manual',
		headers: { cookie: signedOut, origin: quick.url },
	});
	await add(one.url, here, 'After the door was closed');
	await assert.rejects(
		stream.until((change) => change.cards.some((card) => card.title === 'After the door was closed')),
		/The stream ended/,
		'and nothing is told to it meanwhile',
	);
	// The same person's other window goes on, and misses nothing.
	await stays.until((change) => change.cards.some((card) => card.title === 'After the door was closed'));
	stays.stop();

	const removed = await signIn(quick.url, 'Leila Farrow');
	const other = await listen(quick.url, removed);
	await other.until(() => true);
	await db.query(
		`delete from working_week where person_id = (select id from person where name = 'Leila Farrow')`,
	);
	await db.query(
		`update membership set left_at = now() where person_id = (select id from person where name = 'Leila Farrow')`,
	);
	await assert.rejects(
		other.until(() => false),
		/The stream ended/,
	);
});

test('pages that go before they are answered do no harm', async () => {
	const { hostname, port } = new URL(one.url);
	const go = (afterMs: number) =>
		new Promise<void>((resolve, reject) => {
			const socket = connect(Number(port), hostname, () => {
				socket.write(`GET /api/boards/tidewatch/live HTTP/1.1\r\nhost: x\r\ncookie: ${here}\r\n\r\n`);
				setTimeout(() => socket.destroy(), afterMs);
			});
			socket.on('close', () => resolve());
			socket.on('error', reject);
		});
	for (let round = 0; round < 10; round++)
		await Promise.all(Array.from({ length: 20 }, (_, i) => go(i % 10)));
	assert.equal((await fetch(`${one.url}/health`)).status, 200);
	assert.equal(one.process.exitCode, null, one.log());
});
