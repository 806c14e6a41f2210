import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { here, otherProcess } from './support/at-once.ts';
import { useDatabase } from './support/database.ts';
import { addCard, cardRow, command, refusal, smallBoard } from './support/small-board.ts';

const db = await useDatabase('empty');
const asSeen = async (card: string) => ({ card, version: (await cardRow(db, card)).version });

describe('lenses of a board', () => {
	test('are one’s own or shared, are replaced by one of the same name, and are let go', async () => {
		const board = await smallBoard(db);
		const on = { board: board.id };
		const keep = async (by: typeof board.lead, name: string, query: string, shared: boolean) =>
			(await command(by, 'KeepLens', { ...on, name, query, shared })).result.lens as string;
		const names = async (who: typeof board.lead) =>
			(await boardHead(who, board.slug)).lenses.map(
				({ name, query, shared, mine }) =>
					`${name} ${query} ${shared ? 'shared' : 'own'} ${mine ? 'mine' : ''}`,
			);
		await keep(board.member, 'Late', 'where=due:~late&card=3&month=2026-11', false);
		await keep(board.member, 'Late', 'by=owners', false);
		const shared = await keep(board.member, 'By class', 'lanes=class&as=list', true);
		assert.deepEqual(await names(board.member), [
			'Late by=owners own mine',
			'By class lanes=class&as=list shared mine',
		]);
		assert.deepEqual(await names(board.lead), ['By class lanes=class&as=list shared ']);
		// A viewer keeps their own, and lets go of no one else's.
		await keep(board.viewer, 'Mine', 'by=type', false);
		for (const [by, name, input, code] of [
			[board.viewer, 'KeepLens', { name: 'X', query: 'by=type', shared: true }, 'right.missing'],
			[board.viewer, 'DropLens', { lens: shared }, 'right.missing'],
			[board.member, 'KeepLens', { name: 'X', query: 'card=3', shared: false }, 'lens.empty'],
			[board.member, 'KeepLens', { name: ' ', query: 'by=type', shared: false }, 'invalid.name'],
			[board.member, 'KeepLens', { name: 'X', query: 'x'.repeat(4001), shared: false }, 'invalid.query'],
			[board.outsider, 'KeepLens', { name: 'X', query: 'by=type', shared: false }, 'board.not_found'],
		] as const)
			assert.equal((await refusal(command(by, name, { ...on, ...input }))).code, code, JSON.stringify(input));
		await command(board.lead, 'DropLens', { ...on, lens: shared });
		assert.deepEqual(await names(board.lead), []);
		assert.equal(
			(await refusal(command(board.lead, 'DropLens', { ...on, lens: shared }))).code,
			'lens.unknown',
		);
	});
});

describe('many cards in one step', () => {
	test('move as far as limits let them, and are taken back together', async () => {
		const board = await smallBoard(db);
		const cards = [await addCard(board, 'Ready'), await addCard(board, 'Ready'), await addCard(board, null)];
		const input = async (column: string | null) => ({
			board: board.id,
			cards: await Promise.all(cards.map(asSeen)),
			column,
		});
		const held = await refusal(command(board.member, 'MoveCards', await input(board.columns.Making)));
		assert.equal(held.code, 'limit.held');
		assert.match(held.message, /^Making has room for 2 more \(0 of 2\), and 3 would come\./);
		const done = await command(board.member, 'MoveCards', {
			...(await input(board.columns.Making)),
			reason: 'All at once',
		});
		const { rows } = await db.query(
			'select id from card where column_id = $1 and archived_at is null order by rank',
			[board.columns.Making],
		);
		assert.deepEqual(
			rows.map(({ id }) => id),
			cards,
		);
		assert.equal((await cardRow(db, cards[0]!)).let_through, 'All at once');
		await command(board.member, 'UndoCommand', { of: done.id });
		assert.deepEqual(await Promise.all(cards.map(async (card) => (await cardRow(db, card)).column_id)), [
			board.columns.Ready,
			board.columns.Ready,
			null,
		]);
	});

	test('one that stands there already stays, and the step is taken back all the same', async () => {
		const board = await smallBoard(db);
		const cards = [await addCard(board, 'Check'), await addCard(board, 'Ready')];
		const done = await command(board.member, 'MoveCards', {
			board: board.id,
			cards: await Promise.all(cards.map(asSeen)),
			column: board.columns.Check,
		});
		assert.equal(done.advice, 'Check is now over its limit (2 of 1).');
		await command(board.member, 'UndoCommand', { of: done.id });
		assert.equal((await cardRow(db, cards[1]!)).column_id, board.columns.Ready);
		assert.equal((await cardRow(db, cards[0]!)).column_id, board.columns.Check);
	});

	test('are archived with one reason, all or none', async () => {
		const board = await smallBoard(db);
		const cards = [await addCard(board, 'Ready'), await addCard(board, 'Making')];
		const seen = await Promise.all(cards.map(asSeen));
		await command(board.member, 'ArchiveCard', { ...seen[1]!, reason: 'Earlier' });
		const refused = await refusal(
			command(board.member, 'ArchiveCards', {
				board: board.id,
				cards: [seen[0], await asSeen(cards[1]!)],
				reason: 'Both',
			}),
		);
		assert.equal(refused.code, 'card.archived');
		assert.equal((await cardRow(db, cards[0]!)).archived_at, null);
	});

	test('of two who move the same cards at once one is told what changed', async () => {
		const there = await otherProcess();
		const board = await smallBoard(db);
		await db.query('update board_column set wip_limit = null where board_id = $1', [board.id]);
		const cards = await Promise.all(
			[await addCard(board, 'Ready'), await addCard(board, 'Ready')].map(asSeen),
		);
		const both = await Promise.all([
			here([board.member, 'MoveCards', { board: board.id, cards, column: board.columns.Making }]),
			there([
				board.lead,
				'MoveCards',
				{ board: board.id, cards: [...cards].reverse(), column: board.columns.Check },
			]),
		]);
		assert.deepEqual(
			both.flatMap(({ refused }) => refused?.code ?? []),
			['card.changed'],
		);
	});
});
