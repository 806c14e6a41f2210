import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { describe, test } from 'node:test';
import type { FlowPage } from '../src/core/pages/flow.ts';
import type { Person } from '../src/lib/server/sign-in.ts';
import { useDatabase } from './support/database.ts';
import { manySprints } from './support/many-sprints.ts';
import { signIn, startServer, type Running } from './support/server.ts';
import { command } from './support/small-board.ts';

const db = await useDatabase('demo');
const slug = await manySprints(db);
const { rows: people } = await db.query<Person>(
	`select id, name, initials, email, 'write' as scope from person where email = 'ines@tidewatch.example'`,
);
const lead = people[0]!;
const { rows: boards } = await db.query<{ id: string }>('select id from board where slug = $1', [slug]);
const board = boards[0]!.id;

/** Cards that are open, the last ones first. */
const { rows: open } = await db.query<{ id: string }>(
	`select id from card where board_id = $1 and clock = 'running' order by number desc`,
	[board],
);
/** Does something to one of them, as it is now. */
const on = async (name: string, id: string, input: object) => {
	const { rows } = await db.query<{ version: number }>('select version from card where id = $1', [id]);
	return command(lead, name, { card: id, version: rows[0]!.version, ...input });
};
const columnNamed = async (name: string) =>
	(
		await db.query<{ id: string }>('select id from board_column where board_id = $1 and name = $2', [
			board,
			name,
		])
	).rows[0]!.id;

/** What pages say that are computed from the whole history of the board. */
const FIGURES = ['', '/flow', '/look-back', '/look-back/60', '/look-back/17'].map(
	(place) => `/api/boards/${slug}${place}`,
);
const ROUNDS = `/boards/${slug}/rounds/__data.json`;
/** The page's own data: the ribbon above it, of the layout, may come later, on a line of its own. */
const ofItsOwn = (lines: string) =>
	(JSON.parse(lines.split('\n')[0]!) as { nodes: { data: unknown }[] }).nodes.at(-1)!.data;
async function said({ url }: Running, paths = [...FIGURES, ROUNDS]): Promise<Record<string, unknown>> {
	const cookie = await signIn(url, 'Ines Okoro');
	const found: Record<string, unknown> = {};
	for (const path of paths) {
		const answer = await fetch(url + path, { headers: { cookie } });
		assert.equal(answer.status, 200, path);
		found[path] = path === ROUNDS ? ofItsOwn(await answer.text()) : await answer.json();
	}
	return found;
}

const kept = async () =>
	(await db.query<{ seq: number }>('select seq::int as seq from fold_snapshot where board_id = $1', [board]))
		.rows[0]?.seq;
const now = async () =>
	(await db.query<{ seq: number }>('select last_seq::int as seq from board where id = $1', [board])).rows[0]!
		.seq;

describe('a board with a long history', () => {
	test('is kept as it is folded: a process that starts goes on from there', async () => {
		const done = await columnNamed('Done');
		const before = await on('MoveCard', open[0]!.id, { column: done });
		// Nobody has to ask: whoever begins looks at what was worked on last.
		const first = await startServer({ HARROW_WARM: '' });
		while ((await kept()) === undefined);
		assert.equal(await kept(), await now(), 'up to its last event');

		// What happens afterwards is added by whoever goes on.
		await on('MoveCard', open[1]!.id, { column: done });
		const sized = await on('SizeCard', open[2]!.id, { size: 13 });
		const afterwards = await said(first);

		// Of the other cards nothing can be read any more: whatever is still known of them was kept.
		await db.query('alter table event disable trigger user');
		const { rowCount } = await db.query(
			'delete from event where board_id = $1 and card_id <> all($2) and seq <= $3',
			[board, open.slice(0, 3).map(({ id }) => id), await kept()],
		);
		assert.ok(rowCount! > 5000, `${rowCount} events`);
		const second = await startServer();
		assert.deepEqual(await said(second), afterwards);
		// What proves ledgers reads the history, whatever is kept.
		const check = spawnSync(process.execPath, [`${process.env.HARROW_BUILD}/harrow.js`, 'check'], {
			encoding: 'utf8',
		});
		assert.equal(check.status, 1, check.stdout);
		assert.match(check.stderr, /SPRINTS-\d+: it has a row, but no history\./);

		// What was taken back of what happened since asks no more than that: pages with the whole past say the same.
		await command(lead, 'UndoCommand', { of: sized.id });
		const [flow, rounds] = [FIGURES[1]!, ROUNDS];
		const again = [await said(first, [rounds, flow]), await said(second, [rounds, flow])];
		for (const one of again)
			assert.deepEqual((one[flow] as FlowPage).dots, (afterwards[flow] as FlowPage).dots);
		assert.deepEqual(again[0], again[1]);
		assert.deepEqual(again[0], await said(await startServer(), [rounds, flow]));

		// So is what is taken back of before. How long something has lasted is read anew then, by all processes alike.
		await command(lead, 'UndoCommand', { of: before.id });
		const taken = await said(first, FIGURES);
		assert.notDeepEqual(taken[FIGURES[0]!], afterwards[FIGURES[0]!]);
		assert.deepEqual(await said(second, FIGURES), taken);
		assert.deepEqual(await said(await startServer(), FIGURES), taken);
		assert.equal(await kept(), (await now()) - 4, 'and nothing is kept again for so little');

		// Whoever asks meanwhile for what has lasted, or for anything else, is answered.
		const cookie = await signIn(first.url, 'Ines Okoro');
		const places = Array.from({ length: 8 }, (_, i) => first.url + (i % 2 ? rounds : flow));
		for (const { status } of await Promise.all(places.map((url) => fetch(url, { headers: { cookie } }))))
			assert.equal(status, 200);
	});

	test('is folded anew by another version of the application, and where what was kept cannot be read', async () => {
		const marks = async () =>
			((await said(await startServer(), FIGURES))[`/api/boards/${slug}/flow`] as FlowPage).dots.length;
		const was = await marks();
		await db.query(`update fold_snapshot set version = version || ' before'`);
		const anew = await marks();
		assert.ok(anew < was / 2, `${anew} of ${was} marks: it has read what there is to be read`);
		await db.query(`update fold_snapshot set version = replace(version, ' before', ''), lines = 'nothing'`);
		assert.equal(await marks(), anew);
	});
});
