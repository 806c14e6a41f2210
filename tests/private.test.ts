import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { PRIVATE_TITLE } from '../src/core/board/private.ts';
import { keepUpload } from '../src/lib/server/files.ts';
import { openSession, SESSION_COOKIE, type Person } from '../src/lib/server/sign-in.ts';
import { useDatabase } from './support/database.ts';
import { pictureOf } from './support/files.ts';
import { PAGES } from './support/pages.ts';
import { scene, type Scene } from './support/scene.ts';
import { startServer } from './support/server.ts';
import { command, refusal } from './support/small-board.ts';
import { at, seen } from './support/sprint.ts';

const db = await useDatabase('empty');
const server = await startServer();

/** What a private card says, everywhere where it says something. */
const SECRET = 'Zebrafish';

/** A private card of the lead's in the running sprint, in work, late, with time logged and a file; the member knows nothing of it. */
async function hidden(): Promise<{
	s: Scene;
	card: string;
	number: number;
	file: string;
	secret: Person;
	outside: Person;
}> {
	const s = await scene(db);
	const { lead, member } = s.board;
	const card = s.working;
	const now = async () => (await seen(db, card))[0]!;
	const on = { board: s.board.id };
	await command(lead, 'RenameCard', { ...(await now()), title: `${SECRET} title` });
	await command(lead, 'DescribeCard', { ...(await now()), description: `${SECRET} words` });
	await command(lead, 'ChangeCards', {
		...on,
		cards: [await now()],
		label: [`${SECRET} label`],
		initiative: `${SECRET} plan`,
		owners: [lead.id],
	});
	const lines = [{ text: `${SECRET} line`, done: false }];
	await command(lead, 'ChecklistCard', { ...(await now()), lines });
	await command(lead, 'DateCard', { ...(await now()), due: '2026-11-20' });
	await command(lead, 'LogTime', { card, day: '2026-11-23', hours: 2, note: `${SECRET} note` });
	await command(lead, 'BlockCard', { ...(await now()), reason: `${SECRET} reason` });
	const made = await command(lead, 'AddField', { ...on, name: 'Asked by', kind: 'text' });
	await command(lead, 'SetField', { ...(await now()), field: made.result.field, value: `${SECRET} asker` });
	await command(lead, 'CommentCard', { card, text: `${SECRET} talk` });
	const { upload } = await keepUpload(lead, pictureOf(Buffer.from(SECRET)));
	const files = [{ upload, name: `${SECRET}.gif` }];
	const put = await command(lead, 'AttachFiles', { card, files });
	await command(lead, 'PrivateCard', { ...(await now()), private: true });
	const { rows } = await db.query<{ number: number }>('select number from card where id = $1', [card]);
	return {
		s,
		card,
		number: rows[0]!.number,
		file: (put.result.files as string[])[0]!,
		secret: lead,
		outside: member,
	};
}

/** What is read at an address, as far as it comes at once. */
async function bodyOf(path: string, person: Person): Promise<{ status: number; text: string }> {
	const leave = new AbortController();
	const headers = { cookie: `${SESSION_COOKIE}=${await openSession(person.id)}` };
	const answer = await fetch(server.url + path, { headers, redirect: 'manual', signal: leave.signal });
	if (!answer.headers.get('content-type')?.includes('event-stream'))
		return { status: answer.status, text: await answer.text() };
	const { value } = await answer.body!.getReader().read();
	leave.abort();
	return { status: answer.status, text: new TextDecoder().decode(value) };
}

describe('a private card', () => {
	test('says nothing on any page or in any answer to whoever has nothing to do with it', async () => {
		const { s, number, secret, outside } = await hidden();
		const [key, slug] = [`${s.board.key}-${number}`, s.board.slug];
		const paths = [
			...Object.values(PAGES).map(([, address]) => address),
			() => `/cards/${key}`,
			() => `/api/cards/${key}`,
			() => `/boards/${slug}?card=${key}`,
			() => `/boards/${slug}?as=list`,
			() => `/boards/${slug}?as=month`,
			() => `/api/boards/${slug}/live?since=0`,
			() => `/api/find?q=${SECRET}`,
			() => `/api/find?q=${number}`,
			() => `/boards/${slug}/words?q=${SECRET}`,
			() => `/boards/${slug}/archive?q=${SECRET}`,
			() => `/teams/${s.board.team}/account/file?by=label`,
			() => `/teams/${s.board.team}/account?by=initiative`,
		];
		let told = 0;
		for (const address of paths) {
			if (!address) continue;
			const path = await address(s);
			const { text } = await bodyOf(path, outside);
			// Labels and initiatives are the board's: their names are no secret, nor is the person's own page.
			const rest = text.replaceAll(new RegExp(`${SECRET}( |%20)(label|plan)`, 'g'), '');
			assert.ok(
				!rest
					.replaceAll(`q=${SECRET}`, '')
					.replace(new RegExp(`"(text|q)":"${SECRET}"`, 'g'), '')
					.includes(SECRET),
				`${path}: ${rest.slice(Math.max(0, rest.indexOf(SECRET) - 120), rest.indexOf(SECRET) + 60)}`,
			);
			if ((await bodyOf(path, secret)).text.includes(SECRET)) told++;
		}
		assert.ok(told >= 10, `whoever has it reads of it on ${told} pages`);
	});

	test('counts for everyone: its column, what is left, and the figures are the same for both', async () => {
		const { s, card, secret, outside } = await hidden();
		const boardOf = async (person: Person) =>
			JSON.parse((await bodyOf(`/api/boards/${s.board.slug}`, person)).text) as {
				cards: { id: string; title: string; hidden?: true; left: number; column: string; owners: string[] }[];
			};
		const [mine, theirs] = [await boardOf(secret), await boardOf(outside)];
		const sums = ({ cards }: typeof mine) => cards.map(({ id, left, column }) => [id, left, column]);
		assert.deepEqual(sums(theirs), sums(mine));
		const masked = theirs.cards.find(({ id }) => id === card)!;
		assert.deepEqual([masked.title, masked.hidden, masked.owners], [PRIVATE_TITLE, true, [secret.id]]);
		const flow = async (person: Person) =>
			JSON.parse((await bodyOf(`/api/boards/${s.board.slug}/flow`, person)).text).figures;
		assert.deepEqual(await flow(outside), await flow(secret));
	});

	test('is not found, by its key, its file or a command; and comes back when it is private no more', async () => {
		const { s, card, number, file, secret, outside } = await hidden();
		const path = `/api/cards/${s.board.key}-${number}`;
		assert.equal((await bodyOf(path, outside)).status, 404);
		assert.equal((await bodyOf(`/api/files/${file}`, outside)).status, 404);
		const [now] = await seen(db, card);
		for (const [name, input] of [
			['MoveCard', { ...now, column: s.board.columns.Check }],
			['CommentCard', { card, text: 'Who is this?' }],
			['TickLine', { card, line: 'x', done: true }],
			['StartTimer', { card }],
			['ChangeCards', { board: s.board.id, cards: [now], class: 'expedite' }],
			['CopyCards', { board: s.board.id, cards: [now], with: ['description'] }],
			['LinkCard', { ...(await seen(db, s.lined))[0], to: number, kind: 'blocks' }],
		] as const) {
			const problem = await refusal(command(outside, name, input));
			assert.match(problem.code, /not_found|unknown/, name);
		}
		await command(secret, 'ReviewCard', { ...now, reviewer: outside.id });
		assert.equal((await bodyOf(path, outside)).status, 200, 'whoever reviews it sees it');
		await command(secret, 'ReviewCard', { ...(await seen(db, card))[0], reviewer: null });
		assert.equal((await bodyOf(path, outside)).status, 404);
		await command(secret, 'PrivateCard', { ...(await seen(db, card))[0], private: false });
		assert.equal((await bodyOf(path, outside)).status, 200);
	});

	test('is settled with its sprint by a lead who does not see it', async () => {
		const s = await scene(db);
		const { lead, member } = s.board;
		await command(member, 'AssignCard', { ...(await seen(db, s.working))[0], owners: [member.id] });
		await command(member, 'PrivateCard', { ...(await seen(db, s.working))[0], private: true });
		assert.equal(
			(await refusal(command(lead, 'SizeCard', { ...(await seen(db, s.working))[0], size: 3 }))).status,
			404,
		);
		const decisions = (await seen(db, s.working, s.lined)).map((one) => ({
			...one,
			decision: 'carry',
			reason: 'bigger',
		}));
		await at('2026-11-27T17:00:00Z', () =>
			command(lead, 'SettleSprint', { board: s.board.id, sprint: 1, version: s.sprint.one, decisions }),
		);
		const { rows } = await db.query('select sprint_id is not null as on_list from card where id = $1', [
			s.working,
		]);
		assert.equal(rows[0].on_list, true);
	});
});
