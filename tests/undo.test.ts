import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { lifetimes } from '../src/core/flow/lifetime.ts';
import { sprintAccounts } from '../src/core/sprint/accounts.ts';
import { Problem } from '../src/lib/server/problem.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { boardFile, boardHistory } from '../src/lib/server/questions/history.ts';
import { addCard, cardRow, command, refusal, smallBoard, type SmallBoard } from './support/small-board.ts';
import { useDatabase } from './support/database.ts';

const db = await useDatabase('empty');

/** What a card is, without the marks that every change leaves. */
async function face(card: string): Promise<string> {
	const { rows } = await db.query(
		`select to_jsonb(c) - 'version' as card,
			(select json_agg(s order by s.entered_at, s.left_at) from stay s where s.card_id = c.id) as stays,
			(select json_agg(b order by b.from_at) from blockage b where b.card_id = c.id) as blockages,
			(select json_agg(o.person_id order by o.person_id) from card_owner o where o.card_id = c.id) as owners
		from card c where c.id = $1`,
		[card],
	);
	return JSON.stringify(rows[0]);
}

describe('taking back', () => {
	const changes: [name: string, input: (board: SmallBoard) => object][] = [
		['MoveCard', (board) => ({ column: board.columns.Done })],
		['MoveCard', () => ({ column: null })],
		['RenameCard', () => ({ title: 'Other' })],
		['DescribeCard', () => ({ description: 'Words' })],
		['BlockCard', () => ({ reason: 'Part' })],
		['AssignCard', (board) => ({ owners: [board.lead.id] })],
		['SizeCard', () => ({ size: 5 })],
		['ClassifyCard', () => ({ class: 'expedite' })],
		['DateCard', () => ({ due: '2026-12-04' })],
		['ArchiveCard', () => ({ reason: 'No' })],
		['ChecklistCard', () => ({ lines: [{ text: 'Call', done: true }] })],
		['SplitCard', () => ({ title: 'Rest', part: 3 })],
	];
	for (const [name, input] of changes)
		test(`${name} ${JSON.stringify(Object.keys(input({ columns: {}, lead: {} } as SmallBoard)))} restores the card exactly`, async () => {
			const board = await smallBoard(db, { sprint: true });
			const card = await addCard(board, 'Making');
			await command(board.member, 'SizeCard', { card, version: 1, size: 8 });
			const before = await face(card);
			const done = await command(board.member, name, { card, version: 2, ...input(board) });
			assert.equal(done.undoable, true);
			assert.notEqual(await face(card), before);
			await command(board.member, 'UndoCommand', { of: done.id });
			assert.equal(await face(card), before);
			const { rows } = await db.query(`select kind from event where card_id = $1 order by seq desc limit 1`, [
				card,
			]);
			assert.equal(rows[0].kind, 'undone');
		});

	test('unblocking is taken back with its spell', async () => {
		const board = await smallBoard(db);
		const card = await addCard(board, 'Making');
		await command(board.member, 'BlockCard', { card, version: 1, reason: 'Part' });
		const before = await face(card);
		const done = await command(board.member, 'UnblockCard', { card, version: 2 });
		await command(board.member, 'UndoCommand', { of: done.id });
		assert.equal(await face(card), before);
	});

	test('whom it waits for is taken back on the card and in its spell', async () => {
		const board = await smallBoard(db);
		const card = await addCard(board, 'Making');
		await command(board.member, 'BlockCard', { card, version: 1, reason: 'Part' });
		await command(board.member, 'WaitFor', { card, version: 2, waitingFor: 'the boat' });
		const before = await face(card);
		const done = await command(board.member, 'WaitFor', { card, version: 3, waitingFor: 'the train' });
		await command(board.member, 'UndoCommand', { of: done.id });
		assert.equal(await face(card), before);
		const { rows } = await db.query('select waiting_for from blockage where card_id = $1', [card]);
		assert.equal(rows[0].waiting_for, 'the boat');
	});

	test('a made card is archived, not deleted', async () => {
		const board = await smallBoard(db);
		const done = await command(board.member, 'AddCard', {
			board: board.id,
			column: board.columns.Making,
			title: 'Mistake',
		});
		await command(board.member, 'UndoCommand', { of: done.id });
		const row = await cardRow(db, done.result.card as string);
		assert.deepEqual([row.title, row.clock, row.archived_reason], ['Mistake', 'dropped', 'Taken back']);
	});

	test('is refused once the card has changed, to others, and a second time', async () => {
		const board = await smallBoard(db);
		const card = await addCard(board, 'Ready');
		const done = await command(board.member, 'MoveCard', { card, version: 1, column: board.columns.Making });
		assert.equal((await refusal(command(board.lead, 'UndoCommand', { of: done.id }))).code, 'undo.not_yours');
		const later = await command(board.lead, 'SizeCard', { card, version: 2, size: 3 });
		assert.equal((await refusal(command(board.member, 'UndoCommand', { of: done.id }))).code, 'undo.changed');
		await command(board.lead, 'UndoCommand', { of: later.id });
		assert.equal((await refusal(command(board.lead, 'UndoCommand', { of: later.id }))).code, 'undo.already');
		assert.equal(
			(await refusal(command(board.outsider, 'UndoCommand', { of: done.id }))).code,
			'command.not_found',
		);
	});
});

test('after any commands, what the tables say of a card is what its history says', async () => {
	const act = fc.record({
		card: fc.nat(3),
		what: fc.constantFrom(
			'Ready',
			'Making',
			'Check',
			'Done',
			'backlog',
			'block',
			'unblock',
			'size',
			'left',
			'archive',
			'restore',
			'undo',
		),
		amount: fc.nat(12),
	});
	await fc.assert(
		fc.asyncProperty(fc.array(act, { minLength: 5, maxLength: 40 }), async (acts) => {
			const board = await smallBoard(db, { sprint: true });
			const cards: string[] = [];
			for (let i = 0; i < 4; i++) cards.push(await addCard(board, i % 2 ? 'Ready' : null));
			let last: string | undefined;
			for (const { card: index, what, amount } of acts) {
				const card = cards[index]!;
				const { version } = await cardRow(db, card);
				const on = (name: string, input: object = {}) =>
					command(board.member, name, { card, version, ...input });
				const work = () => {
					if (what === 'block') return on('BlockCard', { reason: 'Part' });
					if (what === 'unblock') return on('UnblockCard');
					if (what === 'size') return on('SizeCard', { size: amount });
					if (what === 'left') return on('CorrectLeft', { left: amount });
					if (what === 'archive') return on('ArchiveCard');
					if (what === 'restore') return on('RestoreCard');
					if (what === 'undo') return command(board.member, 'UndoCommand', { of: last ?? board.id });
					return on('MoveCard', {
						column: what === 'backlog' ? null : board.columns[what],
						reason: 'Property',
					});
				};
				try {
					const { id, undoable } = await work();
					last = undoable ? id : undefined;
				} catch (error) {
					// A refusal is an answer too; it must leave nothing behind, which the comparison below shows.
					if (!(error instanceof Problem)) throw error;
				}
			}
			const head = await boardHead(board.lead, board.slug);
			const file = boardFile(head);
			const history = await boardHistory(head);
			const lives = lifetimes(file, history, Infinity);
			const work = sprintAccounts(file, history, Infinity).cards;
			const instant = (date: unknown) => (date === null ? null : (date as Date).getTime());
			for (const card of cards) {
				const row = await cardRow(db, card);
				const life = lives.find((known) => known.card === `${board.key}-${row.number}`)!;
				assert.equal(row.clock, life.state);
				assert.equal(row.column_id, life.column === null ? null : head.columns[life.column]!.id);
				assert.equal(instant(row.started_at), life.started);
				assert.equal(instant(row.finished_at), life.finished);
				assert.equal(Number(row.left), work.get(life.card)!.left);
				assert.equal(row.size === null ? null : Number(row.size), work.get(life.card)!.size);
				assert.equal(
					row.blocked_since !== null,
					life.blockages.some((blockage) => blockage.until === null),
				);
			}
		}),
		{ numRuns: 25 },
	);
});
