import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { backlogPage } from '../src/lib/server/questions/backlog.ts';
import { cardPage } from '../src/lib/server/questions/card.ts';
import { boardFile, boardHistory } from '../src/lib/server/questions/history.ts';
import { peoplePage } from '../src/lib/server/questions/people.ts';
import { planPage } from '../src/lib/server/questions/plan.ts';
import { sprintAccounts } from '../src/core/sprint/accounts.ts';
import { Problem } from '../src/lib/server/problem.ts';
import { useDatabase } from './support/database.ts';
import {
	addCard,
	cardRow,
	command,
	everything,
	refusal,
	smallBoard,
	type SmallBoard,
} from './support/small-board.ts';

const db = await useDatabase('empty');

/** A board with a cadence of two weeks, whose lead and member work 8 hours on weekdays. */
async function sprintBoard(): Promise<SmallBoard & { team: string }> {
	const board = await smallBoard(db);
	const { rows } = await db.query<{ team: string }>('select team_id as team from board where id = $1', [
		board.id,
	]);
	const { team } = rows[0]!;
	for (const person of [board.lead, board.member])
		await command(board.lead, 'ChangeWeek', {
			team,
			person: person.id,
			from: '2026-01-01',
			hours: [8, 8, 8, 8, 8, 0, 0],
		});
	await command(board.lead, 'ChangeCadence', { board: board.id, days: 14, weekday: 0 });
	return { ...board, team };
}
const head = (board: SmallBoard) => boardHead(board.lead, board.slug);
const sprintOf = async (board: SmallBoard, number: number) =>
	(await head(board)).sprints.find((sprint) => sprint.number === number)!;
const seen = async (...ids: string[]) =>
	Promise.all(ids.map(async (card) => ({ card, version: (await cardRow(db, card)).version })));
async function sized(board: SmallBoard, size: number, title = 'A card'): Promise<string> {
	const card = await addCard(board, null, title);
	await command(board.member, 'SizeCard', { card, version: 1, size });
	return card;
}
const plan = async (board: SmallBoard, ids: string[], sprint: number | null, more: object = {}) =>
	command(board.member, 'PlanCards', { board: board.id, cards: await seen(...ids), sprint, ...more });
const start = async (board: SmallBoard, number: number) =>
	command(board.lead, 'StartSprint', {
		board: board.id,
		sprint: number,
		version: (await sprintOf(board, number)).version,
	});
const ledger = async (board: SmallBoard, number: number) => {
	const known = await head(board);
	return sprintAccounts(
		boardFile(known),
		await boardHistory(known),
		Date.parse('2026-11-23T15:00Z'),
	).ledgers.find((one) => one.number === number)!;
};

describe('refining a card', () => {
	test('many cards are made in one step, with parts, checklists, types and sizes; one step takes them back', async () => {
		const board = await smallBoard(db);
		await command(board.lead, 'ChangeType', { board: board.id, name: 'Repair', checklist: ['Cause found'] });
		const done = await command(board.member, 'AddCards', {
			board: board.id,
			cards: [
				{ title: 'Whole', size: 8, labels: ['mast'], initiative: 'Winter' },
				{ title: 'First part', parent: 0 },
				{ title: 'Second part', parent: 0, size: 3 },
				{ title: 'Mend it', type: 'Repair', checklist: [{ text: 'Call', done: true }], due: '2026-12-04' },
			],
		});
		const page = await backlogPage(await head(board));
		assert.deepEqual(
			page.cards.map((card) => [card.title, card.size, card.left, card.parts?.left ?? null]),
			[
				['Whole', null, 0, 11],
				['First part', 8, 8, null],
				['Second part', 3, 3, null],
				['Mend it', null, 0, null],
			],
		);
		assert.deepEqual(page.cards[0]!.labels, ['mast']);
		assert.equal(page.cards[0]!.initiative, 'Winter');
		assert.deepEqual(page.cards[3]!.checks, { lines: 2, done: 1 });
		await command(board.member, 'UndoCommand', { of: done.id });
		assert.deepEqual((await backlogPage(await head(board))).cards, []);
	});

	test('the first sub-card takes over size, what is left and the place on a sprint; the parent has none of its own', async () => {
		const board = await sprintBoard();
		const parent = await sized(board, 8);
		await command(board.member, 'CorrectLeft', { card: parent, version: 2, left: 5 });
		await plan(board, [parent], 1);
		const before = await cardRow(db, parent);
		const done = await command(board.member, 'AddCards', {
			board: board.id,
			cards: [{ title: 'Part', partOf: parent }],
		});
		const [{ id: part }] = done.result.cards as [{ id: string }];
		const [now, child] = [await cardRow(db, parent), await cardRow(db, part)];
		assert.deepEqual([now.size, now.left, now.sprint_id], [0, 0, null]);
		assert.deepEqual([child.size, child.left, child.sprint_id], [8, 5, before.sprint_id]);
		const work = sprintAccounts(
			boardFile(await head(board)),
			await boardHistory(await head(board)),
			Date.now(),
		).cards;
		for (const row of [now, child]) {
			const said = work.get(`${board.key}-${row.number}`)!;
			assert.deepEqual([said.size, said.left], [row.size, row.left], 'the history says the same');
		}
		const again = await refusal(
			command(board.member, 'SizeCard', { card: parent, version: now.version, size: 3 }),
		);
		assert.equal(again.code, 'card.has_parts');
		const nested = await refusal(
			command(board.member, 'AddCards', { board: board.id, cards: [{ title: 'Deeper', partOf: part }] }),
		);
		assert.equal(nested.code, 'parent.is_part');
		await command(board.member, 'UndoCommand', { of: done.id });
		const back = await cardRow(db, parent);
		assert.deepEqual([back.size, back.left, back.sprint_id], [before.size, before.left, before.sprint_id]);
	});

	test('a parent moves with its whole family', async () => {
		const board = await smallBoard(db);
		const made = await command(board.member, 'AddCards', {
			board: board.id,
			cards: [
				{ title: 'Whole' },
				{ title: 'One', parent: 0 },
				{ title: 'Two', parent: 0 },
				{ title: 'Other' },
			],
		});
		const [whole, one, two] = made.result.cards as { id: string }[];
		await command(board.member, 'MoveCard', { card: whole!.id, version: 1, column: board.columns.Ready });
		for (const card of [whole, one, two])
			assert.equal((await cardRow(db, card!.id)).column_id, board.columns.Ready);
	});

	test('splitting moves a part of the work, with the lines that go along, and links the two', async () => {
		const board = await smallBoard(db);
		const card = await sized(board, 10, 'Long one');
		await command(board.member, 'AssignCard', { card, version: 2, owners: [board.lead.id] });
		await command(board.member, 'ChecklistCard', {
			card,
			version: 3,
			lines: [
				{ text: 'Stays', done: true },
				{ text: 'Goes', done: false },
			],
		});
		const [, goes] = (await cardRow(db, card)).checklist as { id: string }[];
		const tooMuch = await refusal(
			command(board.member, 'SplitCard', { card, version: 4, title: 'Rest', part: 11 }),
		);
		assert.deepEqual([tooMuch.code, tooMuch.field], ['split.too_much', 'part']);
		const done = await command(board.member, 'SplitCard', {
			card,
			version: 4,
			title: 'Rest',
			part: 4,
			lines: [goes!.id],
		});
		const page = await cardPage(board.lead, `${board.key}-${done.result.number}`);
		assert.deepEqual([page.size, page.left, page.owners], [4, 4, [board.lead.id]]);
		assert.deepEqual(
			page.checklist.map((line) => line.text),
			['Goes'],
		);
		assert.deepEqual(
			page.links.map((link) => [link.kind, link.comes]),
			[['split', true]],
		);
		const rest = await cardRow(db, card);
		assert.deepEqual([rest.size, rest.left], [6, 6]);
		await command(board.member, 'UndoCommand', { of: done.id });
		const back = await cardRow(db, card);
		assert.deepEqual([back.size, back.left, (back.checklist as unknown[]).length], [10, 10, 2]);
	});

	test('a loop of cards that block each other is refused and named', async () => {
		const board = await smallBoard(db);
		const ids = [await addCard(board, null), await addCard(board, null), await addCard(board, null)];
		const link = (from: number, to: number, version: number) =>
			command(board.member, 'LinkCard', { card: ids[from], version, to: to + 1, kind: 'blocks' });
		await link(0, 1, 1);
		await link(1, 2, 1);
		const problem = await refusal(link(2, 0, 1));
		assert.equal(problem.code, 'link.loop');
		assert.match(problem.message, /3 blocks 1 blocks 2 blocks 3/);
	});

	test('a comment by a viewer is kept in the history, and taken back by who said it', async () => {
		const board = await smallBoard(db);
		const card = await addCard(board, null);
		const said = await command(board.viewer, 'CommentCard', { card, text: 'Is **this** wanted?' });
		const talk = async () =>
			(await cardPage(board.lead, `${board.key}-1`)).history.filter((event) => event.kind === 'comment');
		assert.deepEqual(
			(await talk()).map((event) => [event.value, event.who, event.undone]),
			[['Is **this** wanted?', board.viewer.name, false]],
		);
		await command(board.viewer, 'UndoCommand', { of: said.id });
		assert.equal((await talk())[0]!.undone, true);
	});

	test('many cards are changed, ordered and taken back in one step each', async () => {
		const board = await smallBoard(db);
		const ids: string[] = [];
		for (const title of ['A', 'B', 'C', 'D']) ids.push(await addCard(board, null, title));
		const order = async () => (await backlogPage(await head(board))).cards.map((card) => card.title).join('');
		const moved = await command(board.member, 'PlaceCards', {
			board: board.id,
			cards: await seen(ids[3]!, ids[1]!),
			below: null,
		});
		assert.equal(await order(), 'DBAC');
		const changed = await command(board.member, 'ChangeCards', {
			board: board.id,
			cards: await seen(...ids.slice(0, 3)),
			label: ['quay', 'mast'],
			initiative: 'Winter',
			ready: true,
			owners: [board.member.id],
		});
		const cards = (await backlogPage(await head(board))).cards;
		assert.equal(
			cards.filter((card) => card.ready && card.labels.join() === 'mast,quay' && card.owners.length).length,
			3,
		);
		await command(board.member, 'UndoCommand', { of: changed.id });
		assert.ok(
			(await backlogPage(await head(board))).cards.every(
				(card) => !card.ready && !card.labels.length && !card.owners.length,
			),
		);
		// Their versions have moved on: the order is taken back all the same only while nothing else changed them.
		assert.equal(
			(await refusal(command(board.member, 'UndoCommand', { of: moved.id }))).code,
			'undo.changed',
		);
		const again = await command(board.member, 'PlaceCards', {
			board: board.id,
			cards: await seen(ids[2]!, ids[0]!),
			below: ids[3]!,
		});
		assert.equal(await order(), 'DCAB');
		await command(board.member, 'UndoCommand', { of: again.id });
		assert.equal(await order(), 'DBAC');
	});
});

describe('sprints', () => {
	test('exist by themselves: three ahead of the running one, whatever is started', async () => {
		const board = await sprintBoard();
		const dates = async () => (await head(board)).sprints.map((s) => `${s.number} ${s.starts} ${s.ends}`);
		assert.deepEqual(await dates(), [
			'1 2026-11-23 2026-12-04',
			'2 2026-12-07 2026-12-18',
			'3 2026-12-21 2027-01-01',
		]);
		await start(board, 1);
		assert.equal((await dates()).at(-1), '4 2027-01-04 2027-01-15');
	});

	test('take other dates, with the later ones following; overlaps and ends before starts are refused whole', async () => {
		const board = await sprintBoard();
		const change = async (to: object) =>
			command(board.lead, 'ChangeSprint', {
				board: board.id,
				sprint: 1,
				version: (await sprintOf(board, 1)).version,
				...to,
			});
		const before = await everything(db);
		for (const [to, code, field] of [
			[{ ends: '2026-11-20' }, 'sprint.backwards', 'ends'],
			[{ ends: '2026-12-08' }, 'sprint.overlap', 'ends'],
			[{ starts: '2026-13-01' }, 'invalid.starts', 'starts'],
			[{ focus: 1.5 }, 'invalid.focus', 'focus'],
			[{ keepBack: -0.1 }, 'invalid.keepBack', 'keepBack'],
		] as const) {
			const problem = await refusal(change(to));
			assert.deepEqual([problem.code, problem.field], [code, field]);
			assert.equal(await everything(db), before);
		}
		const moved = await change({ ends: '2026-12-11', follow: true, goal: 'Longer', focus: 0.6 });
		assert.deepEqual(
			(await head(board)).sprints.map((s) => s.starts),
			['2026-11-23', '2026-12-14', '2026-12-28'],
		);
		await command(board.lead, 'UndoCommand', { of: moved.id });
		const back = await sprintOf(board, 1);
		assert.deepEqual([back.ends, back.goal, back.focus], ['2026-12-04', '', null]);
	});

	test('start: cards come onto the board, hours, focus and keep-back are frozen, the commitment is kept', async () => {
		const board = await sprintBoard();
		const [one, two] = [await sized(board, 6), await sized(board, 4)];
		const loose = await addCard(board, null, 'Unsized');
		await plan(board, [one, two, loose], 1, { owners: [board.member.id] });
		await command(board.lead, 'AddAbsence', {
			team: board.team,
			person: board.member.id,
			from: '2026-11-24',
			to: '2026-11-25',
		});
		const done = await start(board, 1);
		assert.match(done.advice!, /1 card without a size/);
		assert.deepEqual(done.result, { sprint: 1, committed: 10, cards: 3 });
		const { rows } = await db.query(
			'select raw_hours, focus, keep_back, started_at from sprint where board_id = $1 and number = 1',
			[board.id],
		);
		assert.deepEqual(rows[0].raw_hours, { [board.lead.id]: 80, [board.member.id]: 64 });
		assert.deepEqual([rows[0].focus, rows[0].keep_back].map(Number), [0.75, 0.2]);
		for (const card of [one, two, loose])
			assert.equal((await cardRow(db, card)).column_id, board.columns.Ready);
		const { stints, committed } = await ledger(board, 1);
		assert.equal(committed, 10);
		assert.deepEqual(
			stints.map((stint) => [stint.kind, stint.entry]),
			[
				['committed', 6],
				['committed', 4],
				['committed', 0],
			],
		);
		// What people are absent later changes nothing that is frozen.
		await command(board.lead, 'SetHoliday', { team: board.team, day: '2026-11-26', holiday: true });
		assert.equal((await sprintOf(board, 1)).raw, 144);
		const twice = await refusal(start(board, 1));
		assert.equal(twice.code, 'sprint.started');
		assert.equal((await refusal(start(board, 2))).code, 'sprint.running');
		assert.equal(
			(await refusal(command(board.member, 'StartSprint', { board: board.id, sprint: 2, version: 1 }))).code,
			'right.missing',
		);
	});

	test('a start is taken back until something has happened in it', async () => {
		const board = await sprintBoard();
		const card = await sized(board, 6);
		await plan(board, [card], 1);
		const first = await start(board, 1);
		await command(board.lead, 'UndoCommand', { of: first.id });
		assert.equal((await sprintOf(board, 1)).startedAt, null);
		assert.equal((await cardRow(db, card)).column_id, null);
		const second = await start(board, 1);
		await addCard(board, 'Ready', 'A surprise');
		const problem = await refusal(command(board.lead, 'UndoCommand', { of: second.id }));
		assert.equal(problem.code, 'undo.changed');
		assert.match(problem.message, /come into sprint 1 since/);
	});

	test('urgent work comes into the running sprint from the backlog as unplanned, and onto its board', async () => {
		const board = await sprintBoard();
		await start(board, 1);
		// The clock of the tests stands still: what comes in now comes after the start.
		await db.query(`update sprint set started_at = started_at - interval '1 hour' where board_id = $1`, [
			board.id,
		]);
		const [urgent, meant] = [await sized(board, 3), await sized(board, 2)];
		await plan(board, [urgent], 1);
		await plan(board, [meant], 1, { planned: true });
		const row = await cardRow(db, urgent);
		assert.deepEqual([row.column_id, row.unplanned], [board.columns.Ready, true]);
		const { stints } = await ledger(board, 1);
		assert.deepEqual(
			stints.map((stint) => [stint.kind, stint.planned, stint.entry]),
			[
				['added', false, 3],
				['added', true, 2],
			],
		);
		await plan(board, [urgent], 1, { planned: true });
		assert.equal((await cardRow(db, urgent)).unplanned, false);
		await plan(board, [urgent], null);
		assert.equal((await ledger(board, 1)).removed, 3);
	});

	test('a card is on one list at most, and a done or archived one on none that is planned', async () => {
		const board = await sprintBoard();
		const card = await sized(board, 6);
		await plan(board, [card], 1);
		await plan(board, [card], 2);
		const page = async (number: number) =>
			(await planPage(await head(board), number)).cards.filter((one) => one.sprint === number).length;
		assert.deepEqual([await page(1), await page(2)], [0, 1]);
		const done = await addCard(board, 'Done');
		assert.equal((await refusal(plan(board, [done], 1))).code, 'card.done');
		assert.equal((await refusal(plan(board, [card], 9))).code, 'sprint.unknown');
	});

	test('sharing out gives owners in one step that is taken back in one', async () => {
		const board = await sprintBoard();
		const ids = [await sized(board, 6), await sized(board, 4)];
		await plan(board, ids, 1);
		const cards = await seen(...ids);
		const done = await command(board.member, 'ShareOut', {
			board: board.id,
			cards: cards.map((one, i) => ({ ...one, owner: i ? board.lead.id : board.member.id })),
		});
		const owners = async () => (await planPage(await head(board), 1)).cards.flatMap((card) => card.owners);
		assert.equal((await owners()).length, 2);
		await command(board.member, 'UndoCommand', { of: done.id });
		assert.deepEqual(await owners(), []);
		const outside = await refusal(
			command(board.member, 'ShareOut', {
				board: board.id,
				cards: (await seen(ids[0]!)).map((one) => ({ ...one, owner: board.outsider.id })),
			}),
		);
		assert.equal(outside.code, 'owner.unknown');
	});
});

test('a board without sprints pulls up to the limit of its first column, and further with a reason only', async () => {
	const board = await smallBoard(db);
	await db.query(`update board_column set wip_limit = 2, limit_mode = 'hold' where id = $1`, [
		board.columns.Ready,
	]);
	const ids = [await addCard(board, null), await addCard(board, null), await addCard(board, null)];
	const problem = await refusal(
		command(board.member, 'ReplenishBoard', { board: board.id, cards: await seen(...ids) }),
	);
	assert.equal(problem.code, 'limit.held');
	const done = await command(board.member, 'ReplenishBoard', {
		board: board.id,
		cards: await seen(ids[2]!, ids[0]!),
	});
	assert.equal((await backlogPage(await head(board))).standing, 2);
	const urgent = { board: board.id, cards: await seen(ids[1]!) };
	assert.equal((await refusal(command(board.member, 'ReplenishBoard', urgent))).code, 'limit.held');
	const through = await command(board.member, 'ReplenishBoard', { ...urgent, reason: 'The pier is down' });
	assert.equal((await cardRow(db, ids[1]!)).let_through, 'The pier is down');
	await command(board.member, 'UndoCommand', { of: through.id });
	await command(board.member, 'UndoCommand', { of: done.id });
	assert.equal((await backlogPage(await head(board))).standing, 0);
});

describe('people', () => {
	test('have their hours from weeks, shares, absences and holidays, and the page says what is placed', async () => {
		const board = await sprintBoard();
		const card = await sized(board, 40);
		await plan(board, [card], 1, { owners: [board.member.id] });
		await command(board.member, 'AddAbsence', {
			team: board.team,
			person: board.member.id,
			from: '2026-11-30',
			to: '2026-12-01',
			hours: 4,
		});
		const page = await peoplePage(board.lead, board.team);
		const [first, second] = page.weeks.filter((week) => week.person === board.member.id);
		assert.deepEqual([first!.hours, second!.hours, second!.give], [40, 32, 24]);
		assert.deepEqual([first!.standing, second!.standing], ['fits', 'fits']);
		assert.equal(first!.placed + second!.placed, 40);
		assert.deepEqual(
			first!.cards.map((one) => one.card),
			[`${board.key}-1`],
		);
		assert.deepEqual(page.titles[`${board.key}-1`]!.title, 'A card');
		// The plan of the same sprint holds the same.
		const planned = await planPage(await head(board), 1);
		assert.equal(planned.people.find((one) => one.person === board.member.id)!.raw, 72);
	});

	test('say themselves when they are away; the rest is for leads', async () => {
		const board = await sprintBoard();
		const { team } = board;
		const absence = { team, from: '2026-12-01', to: '2026-12-02' };
		const own = await command(board.member, 'AddAbsence', { ...absence, person: board.member.id });
		const codes = [
			refusal(command(board.member, 'AddAbsence', { ...absence, person: board.lead.id })),
			refusal(command(board.member, 'SetHoliday', { team, day: '2026-12-24', holiday: true })),
			refusal(
				command(board.member, 'ChangeWeek', {
					team,
					person: board.member.id,
					from: '2026-12-01',
					hours: [1, 1, 1, 1, 1, 1, 1],
				}),
			),
			refusal(command(board.member, 'RemoveMember', { team, person: board.lead.id })),
		];
		for (const problem of await Promise.all(codes)) assert.equal(problem.code, 'right.missing');
		assert.equal(
			(await refusal(command(board.outsider, 'AddAbsence', { ...absence, person: board.outsider.id }))).code,
			'team.not_found',
		);
		await command(board.member, 'WithdrawAbsence', { team, absence: own.result.absence });
		const { rows } = await db.query('select withdrawn_at is not null as gone from absence where id = $1', [
			own.result.absence,
		]);
		assert.deepEqual(rows, [{ gone: true }], 'it is taken back, not deleted');
	});

	test('bad hours, shares and days are named and change nothing', async () => {
		const board = await sprintBoard();
		const { team } = board;
		const person = board.member.id;
		const before = await everything(db);
		for (const [name, input, code] of [
			['ChangeWeek', { person, from: '2026-12-01', hours: [8, 8, 8, 8, -8, 0, 0] }, 'invalid.hours'],
			['ChangeWeek', { person, from: '2026-12-01', hours: [8] }, 'invalid.hours'],
			['ChangeWeek', { person, from: 'soon', hours: [8, 8, 8, 8, 8, 0, 0] }, 'invalid.from'],
			['AddAbsence', { person, from: '2026-12-02', to: '2026-12-01' }, 'absence.backwards'],
			['AddAbsence', { person, from: '2026-12-02', to: '2026-12-02', hours: -3 }, 'invalid.hours'],
			[
				'ChangeShares',
				{ person, from: '2026-12-01', shares: [{ board: board.id, share: 1.2 }] },
				'invalid.share',
			],
			[
				'ChangeShares',
				{ person, from: '2026-12-01', shares: [{ board: person, share: 0.2 }] },
				'board.unknown',
			],
			['ReadCalendar', { person, file: 'title,size\nA,1' }, 'calendar.unreadable'],
		] as const) {
			const problem = await refusal(command(board.lead, name, { team, ...input }));
			assert.equal(problem.code, code, name);
			assert.equal(await everything(db), before);
		}
	});

	test('shares of several boards come to at most the whole', async () => {
		const board = await sprintBoard();
		const { rows } = await db.query<{ id: string }>(
			`insert into board (team_id, name, slug, key) values ($1, 'Second', $2, $3) returning id`,
			[board.team, `${board.slug}-b`, `${board.key}B`],
		);
		const share = (a: number, b: number) =>
			command(board.lead, 'ChangeShares', {
				team: board.team,
				person: board.member.id,
				from: '2026-11-01',
				shares: [
					{ board: board.id, share: a },
					{ board: rows[0]!.id, share: b },
				],
			});
		const raw = async () =>
			(await planPage(await head(board), 1)).people.find((one) => one.person === board.member.id)!.raw;
		assert.equal(await raw(), 40, 'equal shares unless set');
		assert.equal((await refusal(share(0.7, 0.4))).code, 'shares.too_much');
		await share(0.75, 0.25);
		assert.equal(await raw(), 60);
	});

	test('a calendar file is read once: the same file again changes its entries', async () => {
		const board = await sprintBoard();
		const file = (end: string) =>
			`BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:leave\r\nSUMMARY:Leave\r\nDTSTART;VALUE=DATE:20261201\r\nDTEND;VALUE=DATE:${end}\r\nEND:VEVENT\r\nEND:VCALENDAR`;
		const readIt = (end: string, person: string | null) =>
			command(board.lead, 'ReadCalendar', { team: board.team, person, file: file(end) });
		await readIt('20261203', board.member.id);
		await readIt('20261204', board.member.id);
		const page = await peoplePage(board.lead, board.team);
		const member = page.people.find((one) => one.id === board.member.id)!;
		assert.deepEqual(
			member.absences.map(({ from, to, hours, note }) => ({ from, to, hours, note })),
			[{ from: '2026-12-01', to: '2026-12-03', hours: null, note: 'Leave' }],
		);
		await readIt('20261203', null);
		assert.deepEqual((await peoplePage(board.lead, board.team)).holidays, [
			{ day: '2026-12-01', name: 'Leave' },
			{ day: '2026-12-02', name: 'Leave' },
		]);
	});

	test('someone with cards in hand leaves only once those are given to others; then they see the board no more', async () => {
		const board = await sprintBoard();
		const card = await sized(board, 4);
		await plan(board, [card], 1, { owners: [board.member.id] });
		const remove = () => command(board.lead, 'RemoveMember', { team: board.team, person: board.member.id });
		const problem = await refusal(remove());
		assert.equal(problem.code, 'member.has_cards');
		assert.match(problem.message, new RegExp(`${board.key}-1`));
		await command(board.lead, 'AssignCard', {
			card,
			version: (await cardRow(db, card)).version,
			owners: [board.lead.id],
		});
		await remove();
		assert.equal((await refusal(boardHead(board.member, board.slug))).code, 'board.not_found');
		assert.equal((await head(board)).people.find((one) => one.id === board.member.id)!.gone, true);
		assert.equal(
			(await refusal(command(board.lead, 'RemoveMember', { team: board.team, person: board.lead.id }))).code,
			'team.last_lead',
		);
		assert.equal(
			(
				await refusal(
					command(board.lead, 'AssignCard', {
						card,
						version: (await cardRow(db, card)).version,
						owners: [board.member.id],
					}),
				)
			).code,
			'owner.unknown',
		);
	});
});

test('after any planning, the tables, the history and the ledgers agree, and no card is on two lists', async () => {
	const act = fc.record({
		card: fc.nat(4),
		other: fc.nat(4),
		what: fc.constantFrom(
			'plan',
			'off',
			'size',
			'move',
			'back',
			'split',
			'nest',
			'give',
			'order',
			'undo',
			'start',
			'archive',
		),
		sprint: fc.integer({ min: 1, max: 3 }),
		amount: fc.nat(9),
	});
	await fc.assert(
		fc.asyncProperty(fc.array(act, { minLength: 5, maxLength: 30 }), async (acts) => {
			const board = await sprintBoard();
			const cards: string[] = [];
			for (let i = 0; i < 5; i++) cards.push(await sized(board, i + 2));
			let last: string | undefined;
			for (const { card: index, other, what, sprint, amount } of acts) {
				const card = cards[index]!;
				const { version } = await cardRow(db, card);
				const by = board.lead;
				const one = { card, version };
				const attempt: Record<string, () => Promise<{ id: string; undoable: boolean }>> = {
					plan: () =>
						command(by, 'PlanCards', { board: board.id, cards: [one], sprint, planned: amount % 2 === 0 }),
					off: () => command(by, 'PlanCards', { board: board.id, cards: [one], sprint: null }),
					size: () => command(by, 'SizeCard', { ...one, size: amount }),
					move: () =>
						command(by, 'MoveCard', {
							...one,
							column: Object.values(board.columns)[amount % 4],
							reason: 'So',
						}),
					back: () => command(by, 'MoveCard', { ...one, column: null }),
					split: () => command(by, 'SplitCard', { ...one, title: 'Rest', part: amount }),
					nest: () => command(by, 'NestCard', { ...one, parent: cards[other] }),
					give: () =>
						command(by, 'ChangeCards', { board: board.id, cards: [one], owners: [by.id], label: ['x'] }),
					order: () => command(by, 'PlaceCards', { board: board.id, cards: [one], below: null }),
					undo: () => command(by, 'UndoCommand', { of: last ?? one.card }),
					archive: () => command(by, 'ArchiveCard', one),
					start: async () => start(board, 1),
				};
				try {
					const done = await attempt[what]!();
					if (what === 'start')
						// The clock of the tests stands still: what follows comes after the start.
						await db.query(
							`update sprint set started_at = started_at - interval '1 hour' where board_id = $1 and started_at is not null`,
							[board.id],
						);
					if (done.undoable) last = done.id;
				} catch (error) {
					if (!(error instanceof Problem)) throw error;
				}
			}
			const known = await head(board);
			const { ledgers, cards: work } = sprintAccounts(
				boardFile(known),
				await boardHistory(known),
				Date.parse('2026-11-23T15:00Z'),
			);
			for (const l of ledgers)
				assert.equal(
					l.committed + l.added + l.resized,
					l.burned + l.splitOff + l.removed + l.carried + l.returned + l.dropped + l.open,
				);
			const { rows } = await db.query(
				`select c.number, c.size, c."left", c.clock, c.archived_at, c.parent_id, s.number as sprint
				from card c left join sprint s on s.id = c.sprint_id where c.board_id = $1`,
				[board.id],
			);
			for (const row of rows) {
				const said = work.get(`${board.key}-${row.number}`)!;
				assert.deepEqual(
					{ number: row.number, size: row.size === null ? null : Number(row.size), left: Number(row.left) },
					{ number: row.number, size: said.size, left: row.clock === 'done' ? 0 : said.left },
				);
				assert.equal(row.sprint, said.sprint, `the list of card ${row.number}`);
			}
		}),
		{ numRuns: 25 },
	);
});
