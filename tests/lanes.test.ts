import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { roundsPage } from '../src/lib/server/questions/rounds.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { here, otherProcess } from './support/at-once.ts';
import { useDatabase } from './support/database.ts';
import { addCard, cardRow, command, refusal, smallBoard, type SmallBoard } from './support/small-board.ts';

const db = await useDatabase('empty');

/** A board with a lane for urgent cards and one that holds what is put there, both with a limit of one. */
async function laned(mode: 'advise' | 'hold' = 'hold') {
	const board = await smallBoard(db);
	await db.query('update board_column set wip_limit = null where board_id = $1', [board.id]);
	const add = async (lane: object) =>
		(await command(board.lead, 'AddLane', { board: board.id, ...lane })).result.lane as string;
	const urgent = await add({ name: 'Urgent', class: 'expedite' });
	const north = await add({ name: 'North' });
	for (const lane of [urgent, north])
		await command(board.lead, 'ChangeLane', { board: board.id, lane, limit: 1, mode });
	return { board, urgent, north };
}
const asSeen = async (card: string) => ({ card, version: (await cardRow(db, card)).version });
const place = async (card: string, column: string | null, lane?: string | null, reason?: string) => ({
	...(await asSeen(card)),
	column,
	...(lane === undefined ? {} : { lane }),
	...(reason && { reason }),
});
const refused = async (board: SmallBoard, name: string, input: object) => {
	const problem = await refusal(command(board.lead, name, input));
	return `${problem.status} ${problem.code} ${problem.field}`;
};

describe('lanes of a board', () => {
	test('are told in order, with what is set of them; a card is put into one and out again', async () => {
		const { board, urgent, north } = await laned();
		await command(board.lead, 'ChangeLane', { board: board.id, lane: north, place: 0, name: 'Far north' });
		assert.deepEqual((await boardHead(board.viewer, board.slug)).lanes, [
			{ id: north, name: 'Far north', class: null, limit: 1, mode: 'hold' },
			{ id: urgent, name: 'Urgent', class: 'expedite', limit: 1, mode: 'hold' },
		]);
		const card = await addCard(board, 'Ready');
		await command(board.member, 'MoveCard', await place(card, board.columns.Ready, north));
		assert.equal((await cardRow(db, card)).lane_id, north);
		await command(board.member, 'MoveCard', await place(card, board.columns.Making, urgent));
		let row = await cardRow(db, card);
		assert.deepEqual([row.class, row.lane_id], ['expedite', north]);
		await command(board.member, 'MoveCard', await place(card, board.columns.Making, null));
		row = await cardRow(db, card);
		assert.deepEqual([row.class, row.lane_id], ['standard', null]);
		const { rows } = await db.query(
			`select kind, value from event where card_id = $1 and kind in ('lane', 'class') order by seq`,
			[card],
		);
		assert.deepEqual(
			rows.map(({ kind, value }) => `${kind} ${value}`),
			['lane Far north', 'class expedite', 'class standard', 'lane '],
		);
	});

	test('a card that is added in a lane stands there', async () => {
		const { board, urgent, north } = await laned();
		const add = async (lane: string, title: string) =>
			cardRow(
				db,
				(
					await command(board.member, 'AddCard', {
						board: board.id,
						column: board.columns.Ready,
						title,
						lane,
					})
				).result.card as string,
			);
		assert.equal((await add(urgent, 'Storm')).class, 'expedite');
		assert.equal((await add(north, 'Quay')).lane_id, north);
	});

	test('a limit that holds is asked by every way into the lane', async () => {
		const { board, urgent, north } = await laned();
		const there = await addCard(board, 'Making');
		await command(board.member, 'ClassifyCard', { ...(await asSeen(there)), class: 'expedite' });
		const next = await addCard(board, 'Ready');
		const cards = [await asSeen(next)];
		const waiting = await addCard(board, null);
		await command(board.member, 'ClassifyCard', { ...(await asSeen(waiting)), class: 'expedite' });
		const gone = await addCard(board, 'Ready');
		await command(board.member, 'ArchiveCard', { ...(await asSeen(gone)), reason: 'No' });
		await db.query(`update card set class = 'expedite' where id = $1`, [gone]);
		const ways: [string, object][] = [
			['MoveCard', await place(next, board.columns.Making, urgent)],
			['MoveCard', await place(waiting, board.columns.Ready)],
			['ClassifyCard', { ...(await asSeen(next)), class: 'expedite' }],
			['ChangeCards', { board: board.id, cards, class: 'expedite' }],
			['ChangeCards', { board: board.id, cards, lane: urgent }],
			['ReplenishBoard', { board: board.id, cards: [await asSeen(waiting)] }],
			['RestoreCard', await asSeen(gone)],
			['AddCard', { board: board.id, column: board.columns.Ready, title: 'More', lane: urgent }],
		];
		for (const [name, input] of ways) {
			const problem = await refusal(command(board.lead, name, input));
			assert.deepEqual([problem.code, problem.field], ['limit.held', 'reason'], name);
			assert.match(problem.message, /^The lane Urgent is full \(1 of 1\)\./, name);
		}
		// What is done counts no more, and what comes back asks again.
		const done = await command(board.member, 'MoveCard', await place(there, board.columns.Done));
		await command(board.member, 'MoveCard', await place(next, board.columns.Making, urgent));
		assert.equal((await refusal(command(board.member, 'UndoCommand', { of: done.id }))).code, 'limit.held');
		await command(board.member, 'UndoCommand', { of: done.id, reason: 'The mast fell again' });
		assert.equal((await cardRow(db, there)).let_through, 'The mast fell again');
		// The other lane has its own.
		const other = await addCard(board, 'Ready');
		await command(board.member, 'MoveCard', await place(other, board.columns.Ready, north));
	});

	test('a limit that advises lets one more in and says so, and the rounds tell of it', async () => {
		const { board, north } = await laned('advise');
		const cards = [await addCard(board, 'Ready'), await addCard(board, 'Making')];
		const said: (string | undefined)[] = [];
		for (const [i, column] of [board.columns.Ready, board.columns.Making].entries())
			said.push((await command(board.member, 'MoveCard', await place(cards[i]!, column, north))).advice);
		assert.deepEqual(said, [undefined, 'The lane North is now over its limit (2 of 1).']);
		const page = await roundsPage(await boardHead(board.lead, board.slug), board.lead);
		const found = page.findings.find(({ kind, sentence }) => kind === 'over-limit' && /North/.test(sentence));
		assert.match(found!.sentence, /^The lane North holds 2 with a limit of 1/);
		assert.equal(found!.cards.length, 2);
	});

	test('one that is retired holds nothing, and has its cards again when it is offered again', async () => {
		const { board, north } = await laned();
		const card = await addCard(board, 'Ready');
		await command(board.member, 'MoveCard', await place(card, board.columns.Ready, north));
		await command(board.lead, 'ChangeLane', { board: board.id, lane: north, retired: true });
		assert.equal((await boardHead(board.lead, board.slug)).lanes.length, 1);
		assert.equal(
			await refused(board, 'MoveCard', await place(card, board.columns.Ready, north)),
			'422 lane.unknown lane',
		);
		await command(board.lead, 'ChangeLane', { board: board.id, lane: north, retired: false });
		assert.equal((await cardRow(db, card)).lane_id, north);
	});

	test('what cannot be is refused with the field, and changes nothing', async () => {
		const { board, north } = await laned();
		const on = { board: board.id };
		const card = await addCard(board, 'Ready');
		for (const [name, input, expected] of [
			['AddLane', { ...on, name: 'urgent' }, '409 lane.name_taken name'],
			['AddLane', { ...on, name: 'Other', class: 'expedite' }, '409 lane.class_taken class'],
			['AddLane', { ...on, name: ' ' }, '422 invalid.name name'],
			['AddLane', { ...on, name: 'Other', class: 'soon' }, '422 invalid.class class'],
			['ChangeLane', { ...on, lane: north, limit: 0 }, '422 invalid.limit limit'],
			['ChangeLane', { ...on, lane: north, name: 'URGENT' }, '409 lane.name_taken name'],
			['ChangeLane', { ...on, lane: card, name: 'New' }, '422 lane.unknown lane'],
			[
				'ChangeCards',
				{ ...on, cards: [await asSeen(card)], lane: north, class: 'fixed' },
				'422 invalid.lane lane',
			],
		] as const)
			assert.equal(await refused(board, name, input), expected, JSON.stringify(input));
		for (const one of ['fixed', 'standard'])
			await command(board.lead, 'AddLane', { ...on, name: one, class: one });
		assert.equal(
			await refused(board, 'AddLane', { ...on, name: 'background', class: 'background' }),
			'409 lane.no_class_left class',
		);
	});

	test('switched off they hold nothing back', async () => {
		const { board } = await laned();
		for (let i = 0; i < 2; i++) {
			const card = await addCard(board, 'Ready');
			if (i) await command(board.lead, 'ChangeBoard', { board: board.id, off: ['lanes'] });
			await command(board.member, 'ClassifyCard', { ...(await asSeen(card)), class: 'expedite' });
		}
		assert.deepEqual((await boardHead(board.lead, board.slug)).lanes, []);
	});

	test('the last slot of a lane goes to one of two who come at once', async () => {
		const there = await otherProcess();
		const { board, north } = await laned();
		const cards = [await addCard(board, 'Ready'), await addCard(board, 'Ready')];
		const both = await Promise.all([
			here([board.member, 'MoveCard', await place(cards[0]!, board.columns.Making, north)]),
			there([board.lead, 'MoveCard', await place(cards[1]!, board.columns.Making, north)]),
		]);
		assert.deepEqual(
			both.flatMap(({ refused: problem }) => problem?.code ?? []),
			['limit.held'],
		);
	});
});
