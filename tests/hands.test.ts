import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { here, otherProcess } from './support/at-once.ts';
import { useDatabase } from './support/database.ts';
import { addCard, cardRow, command, refusal, smallBoard, type SmallBoard } from './support/small-board.ts';

const db = await useDatabase('empty');

/** A board on which one person may have two cards in hand, and somebody has them. */
async function full(
	mode: 'advise' | 'hold',
): Promise<{ board: SmallBoard; third: string; inHand: string[] }> {
	const board = await smallBoard(db);
	await db.query('update board_column set wip_limit = null where board_id = $1', [board.id]);
	await command(board.lead, 'ChangeBoard', { board: board.id, personLimit: 2, personMode: mode });
	const inHand = [await own(board, 'Making'), await own(board, 'Making')];
	return { board, inHand, third: await own(board, 'Ready') };
}
async function own(
	board: SmallBoard,
	column: 'Ready' | 'Making',
	owners = [board.member.id],
): Promise<string> {
	const card = await addCard(board, column);
	if (owners.length) await command(board.member, 'AssignCard', { card, version: 1, owners });
	return card;
}
const move = async (board: SmallBoard, card: string, column: 'Making' | 'Check', reason?: string) => ({
	card,
	version: (await cardRow(db, card)).version,
	column: board.columns[column],
	...(reason && { reason }),
});

describe('a limit of cards in hand for each person', () => {
	test('that advises lets one more start, and says so', async () => {
		const { board, third } = await full('advise');
		const done = await command(board.member, 'MoveCard', await move(board, third, 'Making'));
		assert.match(done.advice!, /^Member \d+ has 2 of 2 cards in hand: this is one over/);
	});

	test('that holds asks for a reason when a card starts, and when one that has started is given', async () => {
		const { board, third } = await full('hold');
		const held = await refusal(command(board.member, 'MoveCard', await move(board, third, 'Making')));
		assert.deepEqual([held.status, held.code], [409, 'limit.held']);
		assert.match(held.message, /has 2 of 2 cards in hand\. Finish one/);
		const free = await own(board, 'Making', []);
		for (const [name, input] of [
			['AssignCard', { card: free, version: 1, owners: [board.member.id] }],
			['ChangeCards', { board: board.id, cards: [{ card: free, version: 1 }], owners: [board.member.id] }],
		] as const)
			assert.equal((await refusal(command(board.lead, name, input))).code, 'limit.held', name);
		await command(board.lead, 'AssignCard', {
			card: free,
			version: 1,
			owners: [board.member.id],
			reason: 'Nobody else can',
		});
		const moved = await command(
			board.member,
			'MoveCard',
			await move(board, third, 'Making', 'It cannot wait'),
		);
		assert.equal(moved.advice, undefined);
		assert.equal((await cardRow(db, third)).let_through, 'It cannot wait');
	});

	test('asks nothing of cards that go on, of cards that wait, and of people below it', async () => {
		const { board, inHand } = await full('hold');
		await command(board.member, 'MoveCard', await move(board, inHand[0]!, 'Check'));
		await own(board, 'Ready');
		await own(board, 'Making', [board.lead.id]);
		const problem = await refusal(command(board.lead, 'ChangeBoard', { board: board.id, personLimit: 0 }));
		assert.equal(problem.code, 'invalid.personLimit');
	});

	test('is asked by what comes back into somebody’s hands when it is taken back', async () => {
		const { board, third, inHand } = await full('hold');
		const done = await command(board.member, 'MoveCard', {
			card: inHand[0]!,
			version: (await cardRow(db, inHand[0]!)).version,
			column: board.columns.Done,
		});
		await command(board.member, 'MoveCard', await move(board, third, 'Making'));
		const held = await refusal(command(board.member, 'UndoCommand', { of: done.id }));
		assert.equal(held.code, 'limit.held');
		await command(board.member, 'UndoCommand', { of: done.id, reason: 'It came back broken' });
		assert.equal((await cardRow(db, inHand[0]!)).let_through, 'It came back broken');
	});

	test('is held when two start a card for one person at once', async () => {
		const there = await otherProcess();
		const board = await smallBoard(db);
		await command(board.lead, 'ChangeBoard', { board: board.id, personLimit: 1, personMode: 'hold' });
		const cards = [await own(board, 'Ready'), await own(board, 'Ready')];
		const both = await Promise.all([
			here([board.member, 'MoveCard', await move(board, cards[0]!, 'Making')]),
			there([board.lead, 'MoveCard', await move(board, cards[1]!, 'Making')]),
		]);
		assert.equal(both.filter(({ result }) => result).length, 1);
		assert.deepEqual(
			both.flatMap(({ refused }) => refused?.code ?? []),
			['limit.held'],
		);
	});
});
