import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Phase } from '../src/core/retrospective/phases.ts';
import { retrospectiveMarkdown } from '../src/core/retrospective/file.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { retrospectivePage, retrospectivesPage } from '../src/lib/server/questions/retrospective.ts';
import { openSession, SESSION_COOKIE, type Person } from '../src/lib/server/sign-in.ts';
import { useDatabase } from './support/database.ts';
import { listenTo } from './support/live.ts';
import { scene, type Scene } from './support/scene.ts';
import { startServer } from './support/server.ts';
import { command, refusal } from './support/small-board.ts';

const db = await useDatabase('empty');
const server = await startServer();
const COLUMNS = ['Went well', 'Held us up', 'To try'];

async function hold(s: Scene, more: object = {}) {
	const input = { board: s.board.id, columns: COLUMNS, anonymous: false, votes: 3, ...more };
	const { result } = await command(s.board.lead, 'HoldRetrospective', input);
	const of = { board: s.board.id, retrospective: result.retrospective as string };
	return {
		of,
		number: result.number as number,
		write: (person: Person, place: number, words: string, key?: string) =>
			command(person, 'WriteNote', { ...of, place, words, ...(key ? { key } : {}) }),
		on: (from: Phase) => command(s.board.lead, 'MoveRetrospective', { ...of, from }),
		seen: async (person: Person) =>
			retrospectivePage(await boardHead(person, s.board.slug), result.number as number),
	};
}
const noteOf = async (retro: Awaited<ReturnType<typeof hold>>, person: Person, words: string) =>
	(await retro.seen(person)).notes.find((note) => note.words === words)!;

describe('a retrospective', () => {
	test('face down everybody reads their own notes only; turned over all of them; laid together, voted on, counted', async () => {
		const s = await scene(db);
		const { lead, member, viewer } = s.board;
		const retro = await hold(s, { sprint: 1 });
		await retro.write(lead, 0, 'The crane came in time');
		await retro.write(member, 1, 'Permits');
		await retro.write(viewer, 1, 'Waiting for permits');
		const own = await retro.seen(member);
		assert.deepEqual(
			[own.notes.map(({ words }) => words), own.down, own.notes[0]!.mine],
			[['Permits'], [1, 2, 0], true],
		);
		assert.equal(
			(await refusal(command(lead, 'ChangeNote', { ...retro.of, note: own.notes[0]!.id, words: 'Mine' })))
				.code,
			'note.not_found',
		);
		await command(member, 'ChangeNote', { ...retro.of, note: own.notes[0]!.id, words: 'Late permits' });

		// Two who lead on at once: one does.
		const moves = await Promise.allSettled([retro.on('write'), retro.on('write')]);
		assert.deepEqual(moves.map(({ status }) => status).sort(), ['fulfilled', 'rejected']);
		const turned = await retro.seen(viewer);
		assert.deepEqual(turned.notes.map(({ words }) => words).sort(), [
			'Late permits',
			'The crane came in time',
			'Waiting for permits',
		]);
		assert.equal(turned.notes.find(({ words }) => words === 'Late permits')!.author!.name, member.name);

		const [late, waiting, crane] = await Promise.all(
			['Late permits', 'Waiting for permits', 'The crane came in time'].map((words) =>
				noteOf(retro, lead, words),
			),
		);
		await command(member, 'LayNote', { ...retro.of, note: waiting!.id, on: late!.id });
		// On a note of a pile, and a pile on a note: one pile that is one deep, and nothing lies on itself.
		await command(member, 'LayNote', { ...retro.of, note: crane!.id, on: waiting!.id });
		assert.deepEqual(
			(await retro.seen(lead)).notes
				.filter(({ on }) => on === late!.id)
				.map(({ id, place }) => [id, place])
				.sort(),
			[
				[waiting!.id, 1],
				[crane!.id, 1],
			].sort(),
		);
		await command(member, 'LayNote', { ...retro.of, note: crane!.id, on: null, place: 0 });
		assert.equal(
			(await refusal(command(member, 'LayNote', { ...retro.of, note: late!.id, on: late!.id }))).code,
			'note.itself',
		);
		await command(lead, 'LayNote', { ...retro.of, note: late!.id, on: waiting!.id });
		assert.equal(
			(await noteOf(retro, lead, 'Late permits')).on,
			null,
			'a pile does not lie on what lies on it',
		);

		assert.equal(
			(await refusal(command(lead, 'VoteNote', { ...retro.of, note: late!.id, votes: 1 }))).code,
			'retrospective.phase',
		);
		await retro.on('lay');
		const vote = (person: Person, note: string, votes: number) =>
			command(person, 'VoteNote', { ...retro.of, note, votes });
		// Many at once: nobody has more than three.
		const given = await Promise.allSettled([
			vote(lead, late!.id, 2),
			vote(lead, crane!.id, 2),
			vote(member, late!.id, 3),
		]);
		assert.equal(given.filter(({ status }) => status === 'rejected').length, 1);
		assert.equal(
			(await refusal(vote(viewer, waiting!.id, 1))).code,
			'note.not_found',
			'votes go to whole piles',
		);
		const voting = await retro.seen(lead);
		assert.deepEqual(
			[voting.given, voting.voters, voting.notes.every(({ votes }) => votes === 0)],
			[2, 2, true],
		);
		await retro.on('vote');
		const counted = await retro.seen(viewer);
		assert.equal(
			counted.notes.reduce((sum, { votes }) => sum + votes, 0),
			5,
		);
		assert.deepEqual((await db.query('select * from retro_vote')).rows, [], 'who gave them is kept nowhere');
	});

	test('what is agreed becomes a card, stands on top next time as it is then, and in the report and the file', async () => {
		const s = await scene(db);
		const { lead, member } = s.board;
		const retro = await hold(s, { sprint: 1 });
		await retro.write(lead, 2, 'Ask *before* we sail');
		await retro.on('write');
		await retro.on('lay');
		await retro.on('vote');
		const agree = (words: string, more: object = {}) =>
			command(member, 'AgreeAction', { ...retro.of, words, owner: null, due: null, asCard: false, ...more });
		const carded = await agree('Ask the harbour a week before', {
			owner: member.id,
			due: '2026-12-04',
			asCard: true,
		});
		await agree('Look at the radio');
		const card = (
			await db.query(`select title, due::text, column_id from card where id = $1`, [carded.result.card])
		).rows[0];
		assert.deepEqual(card, { title: 'Ask the harbour a week before', due: '2026-12-04', column_id: null });
		assert.equal((await refusal(agree('So', { owner: s.board.outsider.id }))).code, 'owner.unknown');
		assert.equal((await refusal(agree('So', { due: '2026-02-31' }))).field, 'due');
		await retro.on('agree');
		assert.equal((await refusal(agree('Too late'))).code, 'retrospective.phase');

		const next = await hold(s);
		const before = async () => (await next.seen(lead)).before;
		assert.deepEqual(
			(await before()).map(({ words, done, card }) => [words, done, card?.stands]),
			[
				['Ask the harbour a week before', false, 'in the backlog'],
				['Look at the radio', false, undefined],
			],
		);
		const [first, second] = await before();
		const change = (person: Person, action: typeof first, more: object) =>
			command(person, 'ChangeAction', {
				board: s.board.id,
				action: action!.id,
				version: action!.version,
				...more,
			});
		assert.equal((await refusal(change(member, first, { done: true }))).code, 'action.card');
		await change(member, second, { done: true });
		assert.equal((await refusal(change(lead, second, { done: false }))).code, 'action.changed');
		// A card that one may not see tells that it is one, and how it fares, and nothing else.
		await db.query(`update card set private = true where id = $1`, [carded.result.card]);
		const hidden = (await next.seen(s.board.viewer)).before[0]!;
		assert.deepEqual([hidden.card, hidden.carded], [null, true]);
		await db.query(`update card set private = false where id = $1`, [carded.result.card]);

		const cookie = `${SESSION_COOKIE}=${await openSession(lead.id)}`;
		const get = async (path: string) =>
			(await fetch(`${server.url}/boards/${s.board.slug}/${path}`, { headers: { cookie } })).text();
		const agreed = new RegExp(
			`- \\[ \\] Ask the harbour a week before \\(${member.name}, by 2026-12-04, ${s.board.key}-\\d+, in the backlog\\)`,
		);
		const file = await get(`retrospectives/${retro.number}/file`);
		assert.match(file, agreed);
		assert.match(file, /- Ask \\\*before\\\* we sail, Lead/);
		assert.match(await get('look-back/1/file?as=md'), agreed);
		assert.match(await get('look-back/1'), /Look at the radio/);
		const list = await retrospectivesPage(await boardHead(lead, s.board.slug));
		assert.deepEqual(
			list.lines.map(({ number, sprint, actions, done }) => [number, sprint, actions, done]),
			[
				[2, null, 0, 0],
				[1, 1, 2, 1],
			],
		);
		assert.equal((await refusal(hold(s))).code, 'retrospective.open');
		assert.equal((await refusal(hold(s, { columns: ['One', 'one '] }))).code, 'invalid.columns');
		assert.equal((await refusal(hold(s, { sprint: 99 }))).code, 'sprint.not_found');
	});
});

describe('without authors', () => {
	/** Every row of the database that names a person, as text. */
	async function rowsThatName(person: Person): Promise<string[]> {
		const { rows: tables } = await db.query<{ name: string }>(
			`select quote_ident(nspname) || '.' || quote_ident(relname) as name from pg_class c join pg_namespace n on n.oid = c.relnamespace
			where relkind = 'r' and nspname in ('public', 'graphile_worker')`,
		);
		const found: string[] = [];
		for (const { name } of tables)
			found.push(
				...(
					await db.query<{ row: string }>(
						`select to_jsonb(t)::text as row from ${name} t where to_jsonb(t)::text like $1`,
						[`%${person.id}%`],
					)
				).rows.map(({ row }) => row),
			);
		return found;
	}

	test('no table, event, log or stream says who wrote a note; with its key its writer changes it, until it is turned over', async () => {
		const s = await scene(db);
		const { lead, member } = s.board;
		const cookie = `${SESSION_COOKIE}=${await openSession(lead.id)}`;
		const stream = await listenTo(
			`${server.url}/api/boards/${s.board.slug}/live`,
			{ cookie },
			'retrospective',
		);
		const retro = await hold(s, { anonymous: true });
		const keys = ['a'.repeat(40), 'b'.repeat(40)];
		const words = ['We drift in meetings', 'Nobody answers the radio'];
		assert.equal((await refusal(retro.write(member, 0, 'Keyless'))).code, 'invalid.key');
		// As a page sends them, so that the log has its say too.
		const session = `${SESSION_COOKIE}=${await openSession(member.id)}`;
		for (const [i, key] of keys.entries()) {
			const answer = await fetch(`${server.url}/api/commands`, {
				method: 'POST',
				headers: { cookie: session, origin: server.url, 'content-type': 'application/json' },
				body: JSON.stringify({
					id: crypto.randomUUID(),
					command: 'WriteNote',
					input: { ...retro.of, place: 1, words: words[i], key },
				}),
			});
			assert.equal(answer.status, 200);
		}
		assert.deepEqual((await retro.seen(member)).notes, [], 'not even to whoever wrote them');
		assert.deepEqual((await retro.seen(lead)).down, [0, 2, 0]);
		await command(member, 'ChangeNote', { ...retro.of, key: keys[0], words: 'We drift' });
		assert.equal(
			(await refusal(command(lead, 'ChangeNote', { ...retro.of, key: 'c'.repeat(40), words: 'Mine' }))).code,
			'note.not_found',
		);
		await retro.on('write');
		const notes = (await retro.seen(lead)).notes;
		assert.deepEqual(notes.map(({ words, author, mine }) => [words, author, mine]).sort(), [
			['Nobody answers the radio', null, false],
			['We drift', null, false],
		]);
		assert.equal(
			(
				await refusal(
					command(member, 'ChangeNote', { ...retro.of, key: keys[1], words: 'Not mine any more' }),
				)
			).code,
			'note.not_found',
		);

		for (const row of await rowsThatName(member))
			for (const said of ['We drift', 'Nobody answers', ...keys, ...notes.map(({ id }) => id)])
				assert.ok(!row.includes(said), row);
		const { rows } = await db.query(`select xmin::text from retro_note n where retrospective_id = $1`, [
			retro.of.retrospective,
		]);
		assert.equal(
			new Set(rows.map(({ xmin }) => xmin)).size,
			1,
			'all were written by one transaction, that of whoever turned them',
		);
		const { rows: events } = await db.query(
			`select kind from event where board_id = $1 and kind like '%note%'`,
			[s.board.id],
		);
		assert.deepEqual(events, []);
		for (const said of [...words, ...keys]) assert.ok(!server.log().includes(said));
		// Held, written twice, changed, turned over: each time it only says to look again.
		let told = 0;
		await stream.until(({ cards }) => {
			assert.deepEqual(cards, []);
			return ++told >= 5;
		});
		stream.stop();
	});
});

test('nobody reads a retrospective of a board that they may not see', async () => {
	const s = await scene(db);
	const retro = await hold(s);
	await assert.rejects(retro.seen(s.board.outsider), { code: 'board.not_found' });
	assert.match(retrospectiveMarkdown(await retro.seen(s.board.lead), 'Small'), /^# Small: retrospective 1\n/);
});
