import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { cardPage } from '../src/lib/server/questions/card.ts';
import { boardCards } from '../src/lib/server/questions/board-cards.ts';
import { keepUpload } from '../src/lib/server/files.ts';
import { COMMANDS } from '../src/lib/server/commands/index.ts';
import type { Problem } from '../src/lib/server/problem.ts';
import { useDatabase } from './support/database.ts';
import { pictureOf } from './support/files.ts';
import { scene, type Scene } from './support/scene.ts';
import { command, refusal } from './support/small-board.ts';
import { seen } from './support/sprint.ts';

const db = await useDatabase('empty');

/** Another board of the same team, with what a lead chose for it. */
async function another(s: Scene, more: object = {}): Promise<{ id: string; key: string; slug: string }> {
	const key = `O${s.board.key}`;
	const made = await command(s.board.lead, 'MakeBoard', {
		team: s.board.team,
		name: `Other ${s.board.key}`,
		key,
		unit: 'hours',
		sprintDays: null,
		...more,
	});
	return { id: made.result.board as string, slug: made.result.slug as string, key };
}
const now = async (id: string) => (await seen(db, id))[0]!;
const numberOf = async (id: string) =>
	(await db.query<{ number: number }>('select number from card where id = $1', [id])).rows[0]!.number;

describe('a card that is moved to another board', () => {
	test('waits there with talk, files, links, checklist and history; its old key leads to it', async () => {
		const s = await scene(db);
		const to = await another(s);
		const { member } = s.board;
		await command(member, 'DescribeCard', { ...(await now(s.loose)), description: 'Words' });
		await command(member, 'ChecklistCard', {
			...(await now(s.loose)),
			lines: [{ text: 'Bolts', done: true, quantity: '12' }],
		});
		await command(member, 'CommentCard', { card: s.loose, text: 'Said before' });
		await command(member, 'LogTime', { card: s.loose, day: '2026-11-23', hours: 1 });
		const { upload } = await keepUpload(member, pictureOf(Buffer.from('moving')));
		await command(member, 'AttachFiles', { card: s.loose, files: [{ upload, name: 'quay.gif' }] });
		await command(member, 'LinkCard', {
			...(await now(s.lined)),
			to: await numberOf(s.loose),
			kind: 'blocks',
		});
		const old = `${s.board.key}-${await numberOf(s.loose)}`;
		const before = await cardPage(member, old);
		const sent = await command(member, 'SendCards', {
			board: s.board.id,
			cards: [await now(s.loose)],
			to: to.id,
		});
		const [key] = sent.result.keys as string[];
		assert.equal(sent.undoable, false);
		const card = await cardPage(member, old);
		assert.deepEqual([card.key, card.board, card.column, card.archived], [key, to.slug, null, null]);
		assert.deepEqual(
			[card.title, card.description, card.size, card.left],
			['Loose', 'Words', before.size, before.left],
		);
		assert.deepEqual(
			card.checklist.map(({ text, done, quantity }) => [text, done, quantity]),
			[['Bolts', true, '12']],
		);
		assert.deepEqual(
			card.attachments.map(({ name }) => name),
			['quay.gif'],
		);
		assert.deepEqual(
			card.links.map(({ kind, comes, title }) => [kind, comes, title]),
			[['blocks', true, 'Lined up, renamed']],
		);
		assert.deepEqual(card.waits, [`${s.board.key}-${await numberOf(s.lined)}`]);
		assert.deepEqual(
			card.time.map(({ hours }) => hours),
			[1],
		);
		assert.ok(card.history.some(({ kind, value }) => kind === 'comment' && value === 'Said before'));
		assert.ok(card.history.length > before.history.length);
		// Where it was, it is put away, and says where it went.
		const { rows } = await db.query('select archived_reason, clock from card where id = $1', [s.loose]);
		assert.deepEqual(rows[0], { archived_reason: `Moved to ${key}`, clock: 'dropped' });
		const problem = await refusal(command(member, 'RestoreCard', await now(s.loose)));
		assert.equal(problem.code, 'card.moved');
	});

	test('what does not fit there is asked for first, and nothing is moved until it is answered', async () => {
		const s = await scene(db);
		const to = await another(s, { unit: 'points' });
		const { lead, member } = s.board;
		await command(lead, 'ChangeType', { board: s.board.id, name: 'Repair', checklist: [] });
		const made = await command(lead, 'AddField', { board: s.board.id, name: 'Depth', kind: 'number' });
		await command(member, 'ChangeCards', { board: s.board.id, cards: [await now(s.loose)], type: 'Repair' });
		await command(member, 'SetField', { ...(await now(s.loose)), field: made.result.field, value: 3 });
		await command(member, 'BlockCard', { ...(await now(s.loose)), reason: 'Part' });
		const input = { board: s.board.id, cards: [await now(s.loose)], to: to.id };
		const problem = (await refusal(command(member, 'SendCards', input))) as Problem;
		assert.equal(problem.code, 'card.unfit');
		assert.deepEqual(problem.more.unfit, [
			'the type Repair',
			'its size (that board counts points)',
			'that it is blocked',
			'what Depth says',
		]);
		assert.match(problem.message, /Move it without, or leave it here/);
		const { rows } = await db.query('select archived_at from card where id = $1', [s.loose]);
		assert.equal(rows[0].archived_at, null);
		const done = await command(member, 'SendCards', { ...input, leave: true });
		assert.match(done.advice!, /Left behind: the type Repair/);
		const card = await cardPage(member, (done.result.keys as string[])[0]!);
		assert.deepEqual([card.type, card.size, card.fields], ['', null, {}]);
	});

	test('a family goes together, and stays one', async () => {
		const s = await scene(db);
		const to = await another(s);
		await command(s.board.member, 'AddCards', {
			board: s.board.id,
			cards: [
				{ title: 'Part one', partOf: s.loose, size: 1 },
				{ title: 'Part two', partOf: s.loose, size: 2 },
			],
		});
		const sent = await command(s.board.member, 'SendCards', {
			board: s.board.id,
			cards: [await now(s.loose)],
			to: to.id,
		});
		assert.equal((sent.result.keys as string[]).length, 3);
		const whole = await cardPage(s.board.member, (sent.result.keys as string[])[0]!);
		assert.deepEqual(whole.children.map(({ title }) => title).sort(), ['Part one', 'Part two']);
	});

	test('a board that one may not see, the same board, a done card and a board that is put away are refused', async () => {
		const s = await scene(db);
		const other = await scene(db);
		const cards = [await now(s.loose)];
		const send = (input: object) =>
			refusal(command(s.board.member, 'SendCards', { board: s.board.id, cards, ...input }));
		assert.deepEqual([(await send({ to: other.board.id })).code], ['board.not_found']);
		assert.equal((await send({ to: s.board.id })).code, 'board.same');
		const to = await another(s);
		await command(s.board.lead, 'ChangeBoard', { board: to.id, away: true });
		assert.equal((await send({ to: to.id })).code, 'board.away');
		await command(s.board.member, 'MoveCard', { ...(await now(s.working)), column: s.board.columns.Done });
		assert.equal((await send({ to: (await another(other)).id, cards: [await now(s.working)] })).status, 404);
	});

	test('two who move the same card at once: one of them does, and each board is as it says', async () => {
		const s = await scene(db);
		const to = await another(s);
		const cards = [await now(s.loose)];
		const input = { board: s.board.id, cards, to: to.id };
		const both = await Promise.allSettled([
			command(s.board.member, 'SendCards', input),
			command(s.board.lead, 'SendCards', input),
		]);
		assert.deepEqual(both.map(({ status }) => status).sort(), ['fulfilled', 'rejected']);
		const { rows } = await db.query('select count(*)::int as n from card where board_id = $1', [to.id]);
		assert.equal(rows[0].n, 1);
	});

	test('two that move cards to each other at once both come through', async () => {
		const s = await scene(db);
		const to = await another(s);
		const made = await command(s.board.member, 'AddCards', {
			board: to.id,
			cards: [{ title: 'From there' }],
		});
		const [there] = made.result.cards as { id: string }[];
		await Promise.all([
			command(s.board.member, 'SendCards', { board: s.board.id, cards: [await now(s.loose)], to: to.id }),
			command(s.board.lead, 'SendCards', { board: to.id, cards: [await now(there!.id)], to: s.board.id }),
		]);
		const open = await boardCards(s.board.member, s.board.slug);
		assert.equal(open.backlog, 1);
	});
});

describe('copies', () => {
	test('wait in the backlog with what was chosen of them, and nothing in them is begun', async () => {
		const s = await scene(db);
		const { member } = s.board;
		await command(member, 'DescribeCard', { ...(await now(s.working)), description: 'Words' });
		await command(member, 'ChecklistCard', {
			...(await now(s.working)),
			lines: [{ text: 'Bolts', done: true }],
		});
		const done = await command(member, 'CopyCards', {
			board: s.board.id,
			cards: [await now(s.working)],
			with: ['description', 'checklist'],
		});
		const [copy] = done.result.cards as { number: number }[];
		const card = await cardPage(member, `${s.board.key}-${copy!.number}`);
		assert.deepEqual(
			[card.title, card.description, card.size, card.clock, card.column, card.sprint],
			['Working', 'Words', null, 'none', null, null],
		);
		assert.deepEqual(
			card.checklist.map(({ done }) => done),
			[false],
		);
	});
});

describe('many changes that are one', () => {
	test('all of them happen or none', async () => {
		const s = await scene(db);
		const steps = [
			{ command: 'SizeCard', input: { ...(await now(s.lined)), size: 9 } },
			{ command: 'SizeCard', input: { ...(await now(s.loose)), size: -1 } },
		];
		const problem = await refusal(command(s.board.member, 'DoTogether', { board: s.board.id, steps }));
		assert.equal(problem.code, 'invalid.size');
		const { rows } = await db.query('select size from card where id = $1', [s.lined]);
		assert.equal(rows[0].size, 5);
	});

	test('one card may be changed by several steps, as it was seen before all of them', async () => {
		const s = await scene(db);
		const card = await now(s.lined);
		await command(s.board.member, 'DoTogether', {
			board: s.board.id,
			steps: [
				{ command: 'SizeCard', input: { ...card, size: 9 } },
				{ command: 'RenameCard', input: { ...card, title: 'Both' } },
			],
		});
		const { rows } = await db.query('select size, title from card where id = $1', [s.lined]);
		assert.deepEqual(rows[0], { size: 9, title: 'Both' });
		// Seen by somebody who does not know of it, it is refused as ever.
		const late = { board: s.board.id, steps: [{ command: 'SizeCard', input: { ...card, size: 3 } }] };
		assert.equal((await refusal(command(s.board.lead, 'DoTogether', late))).code, 'card.changed');
	});

	test('only commands about cards of the board that can be taken back are steps', async () => {
		const s = await scene(db);
		const other = await scene(db);
		const ask = (one: { command: string; input: object }) =>
			refusal(command(s.board.member, 'DoTogether', { board: s.board.id, steps: [one] }));
		for (const { name, about } of COMMANDS.values())
			if (about !== 'board')
				assert.equal((await ask({ command: name, input: {} })).code, 'step.unknown', name);
		for (const name of ['DoTogether', 'UndoCommand', 'SendCards', 'Nothing'])
			assert.equal((await ask({ command: name, input: {} })).code, 'step.unknown', name);
		assert.equal(
			(await ask({ command: 'SizeCard', input: { ...(await now(other.lined)), size: 1 } })).status,
			404,
		);
		const elsewhere = { board: other.board.id, cards: [await now(other.lined)], ready: true };
		assert.equal((await ask({ command: 'ChangeCards', input: elsewhere })).code, 'step.elsewhere');
		assert.equal(
			(await ask({ command: 'AddField', input: { board: s.board.id, name: 'X', kind: 'text' } })).status,
			403,
		);
	});

	test('a reason is given once for every step that a limit holds', async () => {
		const s = await scene(db);
		await db.query('update board_column set wip_limit = 1 where id = $1', [s.board.columns.Making]);
		const steps = [
			{ command: 'MoveCard', input: { ...(await now(s.lined)), column: s.board.columns.Making } },
		];
		const input = { board: s.board.id, steps };
		assert.equal((await refusal(command(s.board.member, 'DoTogether', input))).code, 'limit.held');
		const { rows } = await db.query('select let_through from card where id = $1', [s.lined]);
		assert.equal(rows[0].let_through, null);
		await command(s.board.member, 'DoTogether', { ...input, reason: 'Storm' });
		const after = await db.query('select let_through from card where id = $1', [s.lined]);
		assert.equal(after.rows[0].let_through, 'Storm');
	});
});
