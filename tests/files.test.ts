import assert from 'node:assert/strict';
import { randomBytes } from 'node:crypto';
import { request } from 'node:http';
import { describe, test } from 'node:test';
import { cardPage } from '../src/lib/server/questions/card.ts';
import { openSession, SESSION_COOKIE, type Person } from '../src/lib/server/sign-in.ts';
import { useDatabase } from './support/database.ts';
import { pictureOf } from './support/files.ts';
import { scene, type Scene } from './support/scene.ts';
import { startServer } from './support/server.ts';
import { command, refusal } from './support/small-board.ts';

const db = await useDatabase('empty');
const server = await startServer({ HARROW_FILE_MB: '2', HARROW_CARD_FILES_MB: '3' });
// The commands of this process go by the same limits.
process.env.HARROW_CARD_FILES_MB = '3';

const cookieOf = async (person: Person) => `${SESSION_COOKIE}=${await openSession(person.id)}`;
async function send(
	person: Person,
	data: Uint8Array<ArrayBuffer>,
): Promise<{ status: number; json: Record<string, string> }> {
	const answer = await fetch(`${server.url}/api/uploads`, {
		method: 'POST',
		headers: {
			origin: server.url,
			cookie: await cookieOf(person),
			'content-type': 'application/octet-stream',
		},
		body: data,
	});
	return { status: answer.status, json: await answer.json() };
}
const bytes = (data: Buffer): Uint8Array<ArrayBuffer> => new Uint8Array(data);
async function attach(s: Scene, data: Buffer, name: string): Promise<string> {
	const { json } = await send(s.board.member, bytes(data));
	const done = await command(s.board.member, 'AttachFiles', {
		card: s.lined,
		files: [{ upload: json.upload, name }],
	});
	return (done.result.files as string[])[0]!;
}
const get = async (person: Person, file: string, headers: Record<string, string> = {}) =>
	fetch(`${server.url}/api/files/${file}`, { headers: { cookie: await cookieOf(person), ...headers } });
async function keyOf(s: Scene): Promise<string> {
	const { rows } = await db.query<{ number: number }>('select number from card where id = $1', [s.lined]);
	return `${s.board.key}-${rows[0]!.number}`;
}

describe('files on cards', () => {
	test('a picture is shown, the first one in front, and another file is only downloaded', async () => {
		const s = await scene(db);
		const picture = pictureOf(randomBytes(6));
		const file = await attach(s, picture, 'quay.gif');
		await attach(s, Buffer.from('Depths: 3, 4, 5'), 'depths.txt');
		const { attachments, picture: front } = await cardPage(s.board.viewer, await keyOf(s));
		assert.deepEqual(
			attachments.map(({ name, media, front }) => [name, media, front]),
			[
				['quay.gif', 'image/gif', true],
				['depths.txt', null, false],
			],
		);
		assert.equal(front, file);
		const shown = await get(s.board.viewer, file);
		assert.deepEqual(Buffer.from(await shown.arrayBuffer()), picture);
		assert.equal(shown.headers.get('content-type'), 'image/gif');
		assert.match(shown.headers.get('content-disposition')!, /^inline/);
		const again = await get(s.board.viewer, file, { 'if-none-match': shown.headers.get('etag')! });
		assert.equal(again.status, 304);
		const text = await get(s.board.viewer, attachments[1]!.id);
		assert.equal(text.headers.get('content-type'), 'application/octet-stream');
		assert.match(text.headers.get('content-disposition')!, /^attachment; filename="depths.txt"/);
	});

	for (const [what, name, data] of [
		[
			'a script in an SVG',
			'plan.svg',
			'<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>',
		],
		['a page', 'index.html', '<!doctype html><script>alert(1)</script>'],
		['a picture that lies about its kind', 'quay.png', '<script>alert(1)</script>'],
	] as const)
		test(`${what} is downloaded, and nothing in it runs`, async () => {
			const s = await scene(db);
			const answer = await get(s.board.member, await attach(s, Buffer.from(data), name));
			assert.equal(answer.headers.get('content-type'), 'application/octet-stream');
			assert.match(answer.headers.get('content-disposition')!, /^attachment/);
			assert.equal(answer.headers.get('x-content-type-options'), 'nosniff');
			assert.match(answer.headers.get('content-security-policy')!, /default-src 'none'; sandbox/);
		});

	test('of a path only the name is kept, without what no name has', async () => {
		const s = await scene(db);
		for (const name of ['../../etc/passwd', 'C:\\Users\\quay.txt', '/', 'a\u202egnp.exe', '  ..  '])
			await attach(s, randomBytes(4), name);
		const { attachments } = await cardPage(s.board.member, await keyOf(s));
		assert.deepEqual(
			attachments.map(({ name }) => name).sort(),
			['..', 'agnp.exe', 'file', 'passwd', 'quay.txt'].sort(),
		);
	});

	test('a file over the limit, an empty one, and more than a card holds are refused in words', async () => {
		const s = await scene(db);
		const large = await send(s.board.member, new Uint8Array(2_000_001));
		assert.deepEqual([large.status, large.json.code], [413, 'file.too_large']);
		assert.match(large.json.title!, /at most 2 MB/);
		const empty = await send(s.board.member, new Uint8Array(0));
		assert.deepEqual([empty.status, empty.json.code], [422, 'file.empty']);
		await attach(s, randomBytes(1_900_000), 'one');
		const { json } = await send(s.board.member, bytes(randomBytes(1_900_000)));
		const files = [{ upload: json.upload, name: 'two' }];
		const full = await refusal(command(s.board.member, 'AttachFiles', { card: s.lined, files }));
		assert.deepEqual([full.status, full.code], [413, 'card.files_full']);
		assert.match(full.message, /3 MB together; with these there would be 3\.8 MB/);
	});

	test('one that is cut off in the middle leaves nothing behind', async () => {
		const s = await scene(db);
		const before = await db.query('select count(*)::int as n from blob');
		const cookie = await cookieOf(s.board.member);
		await new Promise<void>((resolve) => {
			const cut = request(`${server.url}/api/uploads`, {
				method: 'POST',
				headers: {
					origin: server.url,
					cookie,
					'content-type': 'application/octet-stream',
					'content-length': 1_000_000,
				},
			});
			cut.on('error', () => resolve());
			cut.write(randomBytes(1000), () => cut.destroy());
		});
		// Whatever comes after it is answered after it.
		assert.equal((await send(s.board.member, bytes(Buffer.from('whole')))).status, 200);
		const after = await db.query('select count(*)::int as n from blob');
		assert.equal(after.rows[0].n, before.rows[0].n + 1);
	});

	test('what somebody else sent cannot be put on a card', async () => {
		const s = await scene(db);
		const { json } = await send(s.board.lead, bytes(Buffer.from('Not yours')));
		const files = [{ upload: json.upload, name: 'x' }];
		const problem = await refusal(command(s.board.member, 'AttachFiles', { card: s.lined, files }));
		assert.equal(problem.code, 'upload.unknown');
	});

	test('whoever may only look, may not read a card or is not signed in sends and reads nothing', async () => {
		const s = await scene(db);
		const other = await scene(db);
		const file = await attach(s, Buffer.from('Ours'), 'ours.txt');
		assert.equal((await get(other.board.lead, file)).status, 404);
		assert.equal((await fetch(`${server.url}/api/files/${file}`)).status, 401);
		assert.equal(
			(
				await fetch(`${server.url}/api/uploads`, {
					method: 'POST',
					headers: { origin: server.url },
					body: 'x',
				})
			).status,
			401,
		);
		await command(s.board.member, 'RemoveFile', { card: s.lined, file });
		assert.equal((await get(s.board.member, file)).status, 404);
	});

	test('the same file on two cards is kept once, and stays with the one when the other lets it go', async () => {
		const s = await scene(db);
		const data = randomBytes(500);
		const first = await attach(s, data, 'a');
		const second = await attach(s, data, 'b');
		const { rows } = await db.query(
			'select count(distinct sha256)::int as n from attachment where card_id = $1',
			[s.lined],
		);
		assert.equal(rows[0].n, 1);
		await command(s.board.member, 'RemoveFile', { card: s.lined, file: first });
		assert.equal((await get(s.board.member, second)).status, 200);
	});
});
