import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { describe, test } from 'node:test';
import { addCard, cardRow, command, everything, refusal, smallBoard } from './support/small-board.ts';
import { useDatabase } from './support/database.ts';

const db = await useDatabase('empty');
const board = await smallBoard(db);

describe('the door', () => {
	test('the same id again answers the first answer and does nothing', async () => {
		const id = randomUUID();
		const input = { board: board.id, column: board.columns.Ready, title: 'Once' };
		const first = await command(board.member, 'AddCard', input, id);
		const stands = await everything(db);
		assert.deepEqual(await command(board.member, 'AddCard', input, id), first);
		assert.equal(await everything(db), stands);
	});

	test('the same id ten times at once makes one card', async () => {
		const id = randomUUID();
		const input = { board: board.id, column: board.columns.Ready, title: 'Only one of me' };
		const answers = await Promise.all(
			Array.from({ length: 10 }, () => command(board.member, 'AddCard', input, id)),
		);
		assert.equal(new Set(answers.map((answer) => answer.result.card)).size, 1);
		const { rows } = await db.query(`select count(*) as n from card where title = 'Only one of me'`);
		assert.equal(Number(rows[0].n), 1);
	});

	test('an id that was used for something else is refused', async () => {
		const id = randomUUID();
		await command(board.member, 'AddCard', { board: board.id, column: null, title: 'First' }, id);
		const problem = await refusal(
			command(board.member, 'AddCard', { board: board.id, column: null, title: 'Second' }, id),
		);
		assert.equal(problem.code, 'command.id_taken');
		assert.equal(
			(await refusal(command(board.lead, 'AddCard', { board: board.id, column: null, title: 'First' }, id)))
				.code,
			'command.id_taken',
		);
	});

	test('numbers of events and cards have no gaps, however many write at once', async () => {
		const own = await smallBoard(db);
		await Promise.all(
			Array.from({ length: 12 }, (_, i) => addCard(own, 'Ready', `Card ${i}`, i % 2 ? own.member : own.lead)),
		);
		const { rows } = await db.query(
			`select array_agg(seq::int order by seq) as seqs from event where board_id = $1`,
			[own.id],
		);
		assert.deepEqual(
			rows[0].seqs,
			Array.from({ length: 24 }, (_, i) => i + 1),
		);
		const numbers = await db.query(
			`select array_agg(number order by number) as numbers from card where board_id = $1`,
			[own.id],
		);
		assert.deepEqual(
			numbers.rows[0].numbers,
			Array.from({ length: 12 }, (_, i) => i + 1),
		);
	});

	test('events can neither be changed nor deleted', async () => {
		await assert.rejects(db.query(`update event set value = 'other'`), /appended only/);
		await assert.rejects(db.query('delete from event'), /appended only/);
	});

	test('a token that may only read changes nothing', async () => {
		const problem = await refusal(
			command({ ...board.lead, scope: 'read' }, 'AddCard', { board: board.id, column: null, title: 'No' }),
		);
		assert.deepEqual([problem.status, problem.code], [403, 'token.read_only']);
	});
});

describe('rights', () => {
	test('a viewer looks on, and changes nothing', async () => {
		const card = await addCard(board, 'Ready');
		const stands = await everything(db);
		for (const [name, input] of [
			['AddCard', { board: board.id, column: null, title: 'No' }],
			['MoveCard', { card, version: 1, column: board.columns.Done }],
			['RenameCard', { card, version: 1, title: 'No' }],
			['BlockCard', { card, version: 1, reason: 'No' }],
		] as const)
			assert.equal((await refusal(command(board.viewer, name, input))).code, 'right.missing', name);
		assert.equal(await everything(db), stands);
	});

	test('only a lead changes a column', async () => {
		const own = await smallBoard(db);
		const input = { column: own.columns.Ready, version: 1, limit: 4, mode: 'hold', policy: 'Small' };
		assert.equal((await refusal(command(own.member, 'ChangeColumn', input))).code, 'right.missing');
		await command(own.lead, 'ChangeColumn', input);
		assert.equal((await refusal(command(own.lead, 'ChangeColumn', input))).code, 'column.changed');
	});

	test('a board that someone may not see is not found by them', async () => {
		const card = await addCard(board, 'Ready');
		const problem = await refusal(command(board.outsider, 'MoveCard', { card, version: 1, column: null }));
		assert.deepEqual([problem.status, problem.code], [404, 'card.not_found']);
		assert.equal(
			(await refusal(command(board.outsider, 'AddCard', { board: board.id, column: null, title: 'x' }))).code,
			'board.not_found',
		);
	});

	test('a board open to everyone signed in is seen by outsiders, and only seen', async () => {
		const open = await smallBoard(db, { visibleTo: 'signed-in' });
		assert.equal(
			(await refusal(command(open.outsider, 'AddCard', { board: open.id, column: null, title: 'x' }))).code,
			'right.missing',
		);
	});

	test('a column of another board is unknown here', async () => {
		const other = await smallBoard(db);
		const card = await addCard(board, 'Ready');
		const problem = await refusal(
			command(board.member, 'MoveCard', { card, version: 1, column: other.columns.Done }),
		);
		assert.deepEqual([problem.code, problem.field], ['column.unknown', 'column']);
	});
});

describe('moving', () => {
	test('two people moving the same card: one wins, the other is told who', async () => {
		const own = await smallBoard(db);
		const card = await addCard(own, 'Ready');
		const moves = await Promise.allSettled([
			command(own.member, 'MoveCard', { card, version: 1, column: own.columns.Making }),
			command(own.lead, 'MoveCard', { card, version: 1, column: own.columns.Done }),
		]);
		assert.deepEqual(moves.map((move) => move.status).sort(), ['fulfilled', 'rejected']);
		const lost = moves.find((move) => move.status === 'rejected')!;
		assert.equal(lost.reason.code, 'card.changed');
		assert.match(lost.reason.message, /^(Member|Lead) \d+ changed card 1 /);
		assert.equal((await cardRow(db, card)).version, 2);
	});

	test('the last free slot, wanted by two at once, is given to one', async () => {
		const own = await smallBoard(db);
		await addCard(own, 'Making');
		const [a, b] = [await addCard(own, 'Ready'), await addCard(own, 'Ready')];
		const moves = await Promise.allSettled([
			command(own.member, 'MoveCard', { card: a, version: 1, column: own.columns.Making }),
			command(own.lead, 'MoveCard', { card: b, version: 1, column: own.columns.Making }),
		]);
		const held = moves.filter((move) => move.status === 'rejected');
		assert.equal(held.length, 1);
		assert.equal(held[0]!.reason.code, 'limit.held');
		const { rows } = await db.query('select count(*) as n from card where column_id = $1', [
			own.columns.Making,
		]);
		assert.equal(Number(rows[0].n), 2);
	});

	test('a limit that holds lets one through with a reason, and the reason is kept', async () => {
		const own = await smallBoard(db);
		for (let i = 0; i < 2; i++) await addCard(own, 'Making');
		const card = await addCard(own, 'Ready');
		const input = { card, version: 1, column: own.columns.Making };
		const problem = await refusal(command(own.member, 'MoveCard', input));
		assert.equal(
			problem.message,
			'Making is full (2 of 2). Finish or move a card first, or let this one through with a reason.',
		);
		assert.deepEqual([problem.status, problem.field], [409, 'reason']);
		await command(own.member, 'MoveCard', { ...input, reason: 'Storm repair' });
		assert.equal((await cardRow(db, card)).let_through, 'Storm repair');
		await command(own.member, 'MoveCard', { card, version: 2, column: own.columns.Done });
		assert.equal((await cardRow(db, card)).let_through, null);
	});

	test('a limit that advises lets it in and says so', async () => {
		const own = await smallBoard(db);
		await addCard(own, 'Check');
		const card = await addCard(own, 'Ready');
		const answer = await command(own.member, 'MoveCard', { card, version: 1, column: own.columns.Check });
		assert.equal(answer.advice, 'Check is now over its limit (2 of 1).');
	});

	test('a place below another card is kept in order, and moving writes one card', async () => {
		const own = await smallBoard(db);
		const [a, b, c] = [
			await addCard(own, 'Ready', 'a'),
			await addCard(own, 'Ready', 'b'),
			await addCard(own, 'Ready', 'c'),
		];
		const order = async () =>
			(
				await db.query(`select string_agg(title, '' order by rank) as o from card where column_id = $1`, [
					own.columns.Ready,
				])
			).rows[0].o;
		assert.equal(await order(), 'abc');
		await command(own.member, 'MoveCard', { card: c, version: 1, column: own.columns.Ready, below: a });
		assert.equal(await order(), 'acb');
		await command(own.member, 'MoveCard', { card: b, version: 1, column: own.columns.Ready, below: null });
		assert.equal(await order(), 'bac');
		const { rows } = await db.query(`select count(*) as n from card where board_id = $1 and version > 1`, [
			own.id,
		]);
		assert.equal(Number(rows[0].n), 2);
	});

	test('the clock runs from the commitment column, and finishing leaves nothing', async () => {
		const own = await smallBoard(db);
		const card = await addCard(own, 'Ready');
		await command(own.member, 'SizeCard', { card, version: 1, size: 8 });
		assert.equal((await cardRow(db, card)).clock, 'none');
		await command(own.member, 'MoveCard', { card, version: 2, column: own.columns.Making });
		assert.equal((await cardRow(db, card)).clock, 'running');
		await command(own.member, 'MoveCard', { card, version: 3, column: own.columns.Done });
		const done = await cardRow(db, card);
		assert.deepEqual([done.clock, Number(done.left), Number(done.size)], ['done', 0, 8]);
	});

	test('a card that comes onto a board while a sprint runs joins it, unplanned; back in the backlog it leaves', async () => {
		const own = await smallBoard(db, { sprint: true });
		const card = await addCard(own, null);
		assert.equal((await cardRow(db, card)).sprint_id, null);
		await command(own.member, 'MoveCard', { card, version: 1, column: own.columns.Ready });
		const joined = await cardRow(db, card);
		assert.ok(joined.sprint_id);
		assert.equal(joined.unplanned, true);
		await command(own.member, 'MoveCard', { card, version: 2, column: null });
		assert.equal((await cardRow(db, card)).sprint_id, null);
	});

	test('an archived card is not moved', async () => {
		const card = await addCard(board, 'Ready');
		await command(board.member, 'ArchiveCard', { card, version: 1, reason: 'Not needed' });
		assert.equal(
			(await refusal(command(board.member, 'MoveCard', { card, version: 2, column: null }))).code,
			'card.archived',
		);
		await command(board.member, 'RestoreCard', { card, version: 2 });
		assert.equal((await cardRow(db, card)).archived_at, null);
	});
});

describe('what is on a card', () => {
	test('blocking keeps the reason and its spell; blocking twice is refused', async () => {
		const card = await addCard(board, 'Ready');
		await command(board.member, 'BlockCard', { card, version: 1, reason: ' Waiting for a part ' });
		assert.equal((await cardRow(db, card)).blocked_reason, 'Waiting for a part');
		assert.equal(
			(await refusal(command(board.member, 'BlockCard', { card, version: 2, reason: 'Again' }))).code,
			'card.blocked',
		);
		await command(board.member, 'WaitFor', { card, version: 2, waitingFor: 'the Friday boat' });
		assert.equal((await cardRow(db, card)).waiting_for, 'the Friday boat');
		await command(board.member, 'UnblockCard', { card, version: 3 });
		assert.equal((await cardRow(db, card)).waiting_for, null);
		for (const [name, more] of [
			['UnblockCard', {}],
			['WaitFor', { waitingFor: 'anyone' }],
		] as const)
			assert.equal(
				(await refusal(command(board.member, name, { card, version: 4, ...more }))).code,
				'card.not_blocked',
			);
		const { rows } = await db.query('select reason, until_at from blockage where card_id = $1', [card]);
		assert.deepEqual([rows.length, rows[0].reason], [1, 'Waiting for a part']);
		assert.ok(rows[0].until_at);
	});

	test('owners are members of the team', async () => {
		const card = await addCard(board, 'Ready');
		await command(board.member, 'AssignCard', { card, version: 1, owners: [board.member.id, board.lead.id] });
		for (const stranger of [board.outsider.id, board.viewer.id, randomUUID()]) {
			const problem = await refusal(
				command(board.member, 'AssignCard', { card, version: 2, owners: [stranger] }),
			);
			assert.deepEqual([problem.code, problem.field], ['owner.unknown', 'owners']);
		}
		await command(board.member, 'AssignCard', { card, version: 2, owners: [] });
		const { rows } = await db.query(
			`select kind, value from event where card_id = $1 and kind like '%owner' order by seq`,
			[card],
		);
		assert.deepEqual(
			rows.map((row) => row.kind),
			['owner', 'owner', 'unowner', 'unowner'],
		);
	});

	test('a new size moves what is left by the same difference', async () => {
		const card = await addCard(board, 'Ready');
		await command(board.member, 'SizeCard', { card, version: 1, size: 10 });
		await command(board.member, 'CorrectLeft', { card, version: 2, left: 5 });
		await command(board.member, 'SizeCard', { card, version: 3, size: 6.5 });
		assert.equal(Number((await cardRow(db, card)).left), 1.5);
	});
});

describe('bad input is named and changes nothing', () => {
	const cases: [what: string, name: string, input: (card: string) => object, code: string, field?: string][] =
		[
			[
				'an empty title',
				'RenameCard',
				(card) => ({ card, version: 1, title: '   ' }),
				'invalid.title',
				'title',
			],
			[
				'a title of 10,000 characters',
				'RenameCard',
				(card) => ({ card, version: 1, title: 'x'.repeat(10_000) }),
				'invalid.title',
				'title',
			],
			[
				'a title that is no text',
				'RenameCard',
				(card) => ({ card, version: 1, title: 7 }),
				'invalid.title',
				'title',
			],
			[
				'a character that is no text',
				'RenameCard',
				(card) => ({ card, version: 1, title: 'a\0b' }),
				'invalid.title',
				'title',
			],
			[
				'half a character',
				'RenameCard',
				(card) => ({ card, version: 1, title: '\ud800' }),
				'invalid.title',
				'title',
			],
			['a negative size', 'SizeCard', (card) => ({ card, version: 1, size: -1 }), 'invalid.size', 'size'],
			['an absurd size', 'SizeCard', (card) => ({ card, version: 1, size: 1e12 }), 'invalid.size', 'size'],
			[
				'a size that is no number',
				'SizeCard',
				(card) => ({ card, version: 1, size: '8' }),
				'invalid.size',
				'size',
			],
			['a wrong version', 'SizeCard', (card) => ({ card, version: 9, size: 1 }), 'card.changed', 'version'],
			[
				'a version that is no number',
				'SizeCard',
				(card) => ({ card, version: 'x', size: 1 }),
				'invalid.version',
				'version',
			],
			['no version', 'SizeCard', (card) => ({ card, size: 1 }), 'invalid.version', 'version'],
			['an unknown card', 'SizeCard', () => ({ card: randomUUID(), version: 1, size: 1 }), 'card.not_found'],
			[
				'a card that is no id',
				'SizeCard',
				() => ({ card: "'; drop table card", version: 1, size: 1 }),
				'invalid.card',
				'card',
			],
			[
				'an unknown column',
				'MoveCard',
				(card) => ({ card, version: 1, column: randomUUID() }),
				'column.unknown',
				'column',
			],
			[
				'an unknown field',
				'SizeCard',
				(card) => ({ card, version: 1, size: 1, colour: 'red' }),
				'field.unknown',
				'colour',
			],
			[
				'an unknown class',
				'ClassifyCard',
				(card) => ({ card, version: 1, class: 'urgent' }),
				'invalid.class',
				'class',
			],
			[
				'a date that is none',
				'DateCard',
				(card) => ({ card, version: 1, due: '2026-02-30' }),
				'invalid.due',
				'due',
			],
			[
				'owners that are no list',
				'AssignCard',
				(card) => ({ card, version: 1, owners: 'me' }),
				'invalid.owners',
				'owners',
			],
			['no reason', 'BlockCard', (card) => ({ card, version: 1, reason: '' }), 'invalid.reason', 'reason'],
			['a command that is none', 'DanceCard', (card) => ({ card }), 'command.unknown', 'command'],
		];
	for (const [what, name, input, code, field] of cases)
		test(what, async () => {
			const card = await addCard(board, 'Ready');
			const stands = await everything(db);
			const problem = await refusal(command(board.member, name, input(card)));
			assert.equal(problem.code, code);
			assert.equal(problem.field, field);
			assert.match(problem.message, /^[A-Z].*\.$/, 'a sentence');
			assert.equal(await everything(db), stands);
		});
});
