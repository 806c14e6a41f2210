import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Person } from '../src/lib/server/sign-in.ts';
import { cardPage } from '../src/lib/server/questions/card.ts';
import { useDatabase } from './support/database.ts';
import { scene, type Scene } from './support/scene.ts';
import { command, refusal } from './support/small-board.ts';
import { at, ledgerOf, runningBoard, seen } from './support/sprint.ts';

const db = await useDatabase('empty');

/** The ways in which a part of a card in work becomes another card. Each gives that one's id. */
const WAYS: Record<string, (s: Scene, by: Person, lines: string[]) => Promise<string>> = {
	async 'by itself'(s, by, lines) {
		const [now] = await seen(db, s.working);
		const done = await command(by, 'SplitCard', { ...now, title: 'The rest', part: 5, lines });
		return done.result.card as string;
	},
	async 'when its sprint is settled'(s, by, lines) {
		const [working, lined] = await seen(db, s.working, s.lined);
		const decisions = [
			{ ...working, decision: 'split', title: 'The rest', lines },
			{ ...lined, decision: 'carry' },
		].map((one) => ({ ...one, reason: 'bigger' }));
		await at('2026-11-27T17:00:00Z', () =>
			command(by, 'SettleSprint', { board: s.board.id, sprint: 1, version: s.sprint.one, decisions }),
		);
		const { rows } = await db.query<{ id: string }>(
			`select to_id as id from card_link where from_id = $1 and kind = 'split'`,
			[s.working],
		);
		return rows[0]!.id;
	},
};

const keyOf = async (s: Scene, card: string) => {
	const { rows } = await db.query<{ number: number }>('select number from card where id = $1', [card]);
	return `${s.board.key}-${rows[0]!.number}`;
};

for (const [how, split] of Object.entries(WAYS))
	describe(`a card that is split ${how}`, () => {
		test('leaves a rest that is the same work', async () => {
			const s = await scene(db);
			const { lead, member } = s.board;
			const on = { board: s.board.id };
			const now = async () => (await seen(db, s.working))[0]!;
			await command(lead, 'ChangeType', { ...on, name: 'Repair', checklist: ['Look at it first'] });
			await command(member, 'ChangeCards', {
				...on,
				cards: [await now()],
				type: 'Repair',
				class: 'fixed',
				label: ['mast'],
				initiative: 'Winter',
				owners: [member.id],
			});
			// Its cards keep a type that the board has given up.
			await command(lead, 'ChangeName', { ...on, type: 'Repair', retired: true });
			const lane = (await command(lead, 'AddLane', { ...on, name: 'North' })).result.lane as string;
			await command(member, 'ChangeCards', { ...on, cards: [await now()], lane });
			const field = (await command(lead, 'AddField', { ...on, name: 'Depth', kind: 'number' })).result
				.field as string;
			await command(member, 'SetField', { ...(await now()), field, value: 4 });
			await command(member, 'DateCard', { ...(await now()), due: '2026-12-04' });
			await command(member, 'NestCard', { ...(await now()), parent: s.loose });
			const lines = ['Stays', 'Goes'].map((text) => ({ text, done: false }));
			await command(member, 'ChecklistCard', { ...(await now()), lines });
			const whole = await cardPage(lead, await keyOf(s, s.working));
			const goes = whole.checklist.find(({ text }) => text === 'Goes')!;

			const rest = await cardPage(lead, await keyOf(s, await split(s, lead, [goes.id])));
			const same = ({
				type,
				class: klass,
				lane,
				labels,
				initiative,
				owners,
				fields,
				due,
				parent,
			}: typeof rest) => ({
				...{ type, class: klass, lane, labels, initiative, owners, fields, due, parent },
			});
			assert.deepEqual(same(rest), same(whole));
			assert.deepEqual(
				[rest.type, rest.class, rest.lane, rest.parent, rest.due],
				['Repair', 'fixed', lane, s.loose, '2026-12-04'],
			);
			assert.deepEqual(
				rest.checklist.map(({ text }) => text),
				['Goes'],
			);
			assert.ok(
				rest.history.some(
					({ kind, value }) => kind === 'part-of' && value === String(rest.parentCard!.number),
				),
				'its history tells of the card that it is part of',
			);
		});

		test('leaves a rest that only those see who see the card', async () => {
			const s = await scene(db);
			const { lead, member, viewer } = s.board;
			const now = async () => (await seen(db, s.working))[0]!;
			await command(member, 'AssignCard', { ...(await now()), owners: [member.id] });
			await command(member, 'PrivateCard', { ...(await now()), private: true });
			const settles = how !== 'by itself';
			const rest = await keyOf(s, await split(s, settles ? lead : member, []));
			assert.equal((await cardPage(member, rest)).title, 'The rest');
			for (const other of [lead, viewer])
				assert.equal((await refusal(cardPage(other, rest))).status, 404, other.name);
		});
	});

test('what is left of a card without a size is the size of its rest, when its sprint is settled', async () => {
	const board = await runningBoard(db, [['Sized', 8]]);
	const made = await command(board.member, 'AddCards', { board: board.id, cards: [{ title: 'Not sized' }] });
	const [{ id }] = made.result.cards as [{ id: string }];
	const now = async () => (await seen(db, id))[0]!;
	await command(board.member, 'PlanCards', { board: board.id, cards: [await now()], sprint: 1 });
	await command(board.member, 'CorrectLeft', { ...(await now()), left: 4 });
	const { rows: sprints } = await db.query<{ version: number }>(
		'select version from sprint where board_id = $1 and number = 1',
		[board.id],
	);
	const [sized] = await seen(db, board.cards[0]!);
	const decisions = [
		{ ...sized, decision: 'carry', reason: 'bigger' },
		{ ...(await now()), decision: 'split', reason: 'bigger', title: 'The rest' },
	];
	const settled = { board: board.id, sprint: 1, version: sprints[0]!.version, decisions };
	await at('2026-11-23T14:40:00Z', () => command(board.lead, 'SettleSprint', settled));
	const { rows } = await db.query(
		`select c.size, c."left" from card_link l join card c on c.id = l.to_id where l.from_id = $1 and l.kind = 'split'`,
		[id],
	);
	assert.deepEqual(rows, [{ size: 4, left: 4 }]);
	const { splitOff, burned } = await ledgerOf(board, 1);
	assert.deepEqual([splitOff, burned], [4, 0]);
});

test('a line of a private card becomes a card that is private too', async () => {
	const s = await scene(db);
	const { lead, member } = s.board;
	const now = async () => (await seen(db, s.loose))[0]!;
	await command(member, 'ChecklistCard', { ...(await now()), lines: [{ text: 'A secret', done: false }] });
	await command(member, 'PrivateCard', { ...(await now()), private: true });
	const [line] = (await cardPage(member, await keyOf(s, s.loose))).checklist;
	const { result } = await command(member, 'LineToCard', { ...(await now()), line: line!.id });
	const made = await keyOf(s, result.card as string);
	assert.equal((await cardPage(member, made)).title, 'A secret');
	assert.equal((await refusal(cardPage(lead, made))).status, 404);
});

test('what comes of a card of somebody who has left is nobody’s', async () => {
	const s = await scene(db);
	const { lead, member } = s.board;
	const now = async () => (await seen(db, s.loose))[0]!;
	await command(member, 'ChecklistCard', { ...(await now()), lines: [{ text: 'A line', done: false }] });
	await command(member, 'AssignCard', { ...(await now()), owners: [member.id] });
	await command(lead, 'RemoveMember', { team: s.board.team, person: member.id });
	const [line] = (await cardPage(lead, await keyOf(s, s.loose))).checklist;
	const made = [
		await command(lead, 'CopyCards', { board: s.board.id, cards: [await now()], with: ['owners'] }),
		await command(lead, 'LineToCard', { ...(await now()), line: line!.id }),
		await command(lead, 'SplitCard', { ...(await now()), title: 'The rest', part: 1 }),
	].map(({ result }) => (result.card ?? (result.cards as { card: string }[])[0]!.card) as string);
	for (const card of made) assert.deepEqual((await cardPage(lead, await keyOf(s, card))).owners, []);
});
