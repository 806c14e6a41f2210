import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { fieldsOf } from '../src/core/board/fields.ts';
import { guessMapping, readCards, readTable, tableHeads } from '../src/core/exchange/card-file.ts';
import { parseDay } from '../src/core/calendar/days.ts';
import type { FieldKind } from '../src/core/fields/own.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { cardPage } from '../src/lib/server/questions/card.ts';
import { historySentences } from '../src/core/board/history-sentences.ts';
import { useDatabase } from './support/database.ts';
import { addCard, cardRow, command, refusal, smallBoard, type SmallBoard } from './support/small-board.ts';

const db = await useDatabase('empty');

async function withField(kind: FieldKind, name = 'Depth', choices?: string[]) {
	const board = await smallBoard(db);
	const made = await command(board.lead, 'AddField', {
		board: board.id,
		name,
		kind,
		...(choices && { choices }),
	});
	return {
		board,
		field: made.result.field as string,
		choices: made.result.choices as { id: string; name: string }[],
	};
}
const set = async (board: SmallBoard, card: string, field: string, value: unknown) =>
	command(board.member, 'SetField', { card, version: (await cardRow(db, card)).version, field, value });

describe('a field of a board’s own', () => {
	test('keeps what cards hold when it and its choices are called otherwise, and when it is retired', async () => {
		const { board, field, choices } = await withField('choice', 'Quay', ['North', 'South']);
		const card = await addCard(board, 'Ready');
		await set(board, card, field, choices[1]!.id);
		await command(board.lead, 'ChangeField', {
			board: board.id,
			field,
			name: 'Harbour',
			choices: [
				{ id: choices[1]!.id, name: 'Far south' },
				{ id: choices[0]!.id, name: 'North' },
				{ name: 'East' },
			],
		});
		const page = await cardPage(board.viewer, `${board.key}-1`);
		assert.equal(page.fields[field], choices[1]!.id);
		const [own] = (await boardHead(board.viewer, board.slug)).fields;
		assert.deepEqual([own!.name, own!.choices[0]], ['Harbour', { id: choices[1]!.id, name: 'Far south' }]);
		assert.ok(
			historySentences(page.history, 'hours').some(({ text }) => text.endsWith('set Quay to South.')),
		);
		await command(board.lead, 'ChangeField', { board: board.id, field, retired: true });
		assert.deepEqual((await boardHead(board.lead, board.slug)).fields, []);
		assert.equal((await cardPage(board.lead, `${board.key}-1`)).fields[field], choices[1]!.id);
		assert.equal((await refusal(set(board, card, field, choices[0]!.id))).code, 'field.retired');
	});

	test('holds nothing of another kind', async () => {
		for (const [kind, right, wrong] of [
			['text', 'words', 7],
			['number', 4.5, 'many'],
			['number', -3, 1e300],
			['date', '2026-12-04', '2026-02-30'],
			['yes-no', false, 'yes'],
		] as [FieldKind, unknown, unknown][]) {
			const { board, field } = await withField(kind);
			const card = await addCard(board, null);
			await set(board, card, field, right);
			const problem = await refusal(set(board, card, field, wrong));
			assert.deepEqual([problem.code, problem.status], ['invalid.value', 422]);
			assert.match(problem.message, /^Depth /);
			assert.deepEqual((await cardRow(db, card)).fields, { [field]: right });
			await set(board, card, field, null);
			assert.deepEqual((await cardRow(db, card)).fields, {});
		}
	});

	test('comes in with a table of cards, and a line that holds something else is named', async () => {
		const { board, field, choices } = await withField('choice', 'Quay', ['North', 'South']);
		const head = await boardHead(board.lead, board.slug);
		const read = readTable('Title,Quay\nOne,south\nTwo,\nThree,West');
		assert.ok(read.ok);
		const looking = { board: head, today: parseDay('2026-11-23')!, me: board.lead.id };
		const found = readCards(read.table, guessMapping(read.table, tableHeads(fieldsOf(looking))), looking);
		assert.deepEqual(
			found.cards.map((card) => card.fields),
			[{ [field]: choices[1]!.id }, undefined],
		);
		assert.deepEqual(found.errors, [{ line: 4, reason: 'the Quay “West” is none of: North, South' }]);
		await command(board.member, 'AddCards', {
			board: board.id,
			cards: found.cards.map(({ line: _line, ...card }) => card),
		});
		assert.equal((await cardPage(board.lead, `${board.key}-1`)).fields[field], choices[1]!.id);
		const other = await refusal(
			command(board.member, 'AddCards', { board: board.id, cards: [{ title: 'X', fields: { nothing: 1 } }] }),
		);
		assert.equal(other.code, 'field.unknown');
	});

	test('is refused with a name that is taken, without choices, or without one that cards may hold', async () => {
		const { board, field, choices } = await withField('choice', 'Quay', ['North', 'South']);
		const add = (input: object) => refusal(command(board.lead, 'AddField', { board: board.id, ...input }));
		assert.equal((await add({ name: 'quay', kind: 'text' })).code, 'field.name_taken');
		assert.equal((await add({ name: 'Other', kind: 'choice' })).code, 'field.no_choices');
		assert.equal(
			(await add({ name: 'Other', kind: 'choice', choices: ['A', 'a'] })).code,
			'field.choice_twice',
		);
		const change = (input: object) =>
			refusal(command(board.lead, 'ChangeField', { board: board.id, field, ...input }));
		assert.equal((await change({ choices: [choices[0]] })).code, 'field.choice_gone');
		assert.equal(
			(await refusal(command(board.member, 'ChangeField', { board: board.id, field, name: 'No' }))).code,
			'right.missing',
		);
	});
});
