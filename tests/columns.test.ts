import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { readBoardFile, writeBoardFile } from '../src/core/exchange/board-file.ts';
import { readHistory, writeHistory } from '../src/core/exchange/history-file.ts';
import { report } from '../src/core/exchange/report.ts';
import type { BoardHead } from '../src/core/pages/board.ts';
import { agree } from '../src/core/testing/vectors.ts';
import { Problem } from '../src/lib/server/problem.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { flowPage } from '../src/lib/server/questions/flow.ts';
import { boardFile, boardHistory } from '../src/lib/server/questions/history.ts';
import { setUpPage } from '../src/lib/server/questions/settings.ts';
import { now } from '../src/lib/server/time.ts';
import { here, otherProcess } from './support/at-once.ts';
import { useDatabase } from './support/database.ts';
import { addCard, cardRow, command, refusal, smallBoard, type SmallBoard } from './support/small-board.ts';

const db = await useDatabase('empty');
const headOf = (board: SmallBoard) => boardHead(board.lead, board.slug);
const seen = async (board: SmallBoard, name: string) => {
	const { id, version } = (await headOf(board)).columns.find((column) => column.name === name)!;
	return { column: id, version };
};
const names = (head: BoardHead) => head.columns.map((column) => column.name);

/** Lets time go on: what happens next happens hours later. */
function later(hours: number): void {
	process.env.HARROW_NOW = new Date(now().getTime() + hours * 3_600_000).toISOString();
}

/** What a program outside would read of the board, and what it says of it. */
async function measured(head: BoardHead) {
	const file = readBoardFile(writeBoardFile(boardFile(head)));
	assert.ok(file.ok);
	const history = readHistory(writeHistory(await boardHistory(head)), file.value);
	assert.ok(history.ok, JSON.stringify(history));
	return report(file.value, history.events, now().getTime());
}

/** What the board says of itself agrees with what is read of its history from outside. */
async function agrees(board: SmallBoard) {
	const head = await headOf(board);
	const outside = await measured(head);
	const { rows } = await db.query(
		`select $2 || '-' || number as card, clock, started_at, finished_at, archived_at is null as open,
			(select retired_at is not null from board_column k where k.id = column_id) as gone
		from card where board_id = $1`,
		[board.id, board.key],
	);
	const text = (at: Date | null) => at && at.toISOString();
	const order = (a: { card: string }, b: { card: string }) => (a.card < b.card ? -1 : 1);
	assert.deepEqual(
		rows
			.map(({ card, clock, started_at, finished_at }) => ({
				card,
				state: clock,
				started: text(started_at),
				finished: text(finished_at),
			}))
			.sort(order),
		outside.cards
			.map(({ card, state, started, finished }) => ({ card, state, started, finished }))
			.sort(order),
	);
	assert.ok(!rows.some(({ open, gone }) => open && gone), 'no card stands where nothing is any more');
	const page = await flowPage(head, { from: null, to: null, days: null });
	const last = outside.days.at(-1)!;
	agree(page.report.days.at(-1), last, 'today');
	agree(page.report.ageing, outside.ageing, 'ageing');
	return outside;
}

const KINDS = ['queue', 'work', 'done'] as const;
const step = fc.oneof(
	{ weight: 6, arbitrary: fc.record({ does: fc.constant('move' as const), card: fc.nat(4), to: fc.nat(8) }) },
	{
		weight: 2,
		arbitrary: fc.record({ does: fc.constant('rename' as const), column: fc.nat(8), to: fc.nat(20) }),
	},
	fc.record({ does: fc.constant('add' as const), kind: fc.nat(2), to: fc.nat(8) }),
	fc.record({ does: fc.constant('place' as const), column: fc.nat(8), to: fc.nat(8) }),
	fc.record({ does: fc.constant('retire' as const), column: fc.nat(8), to: fc.nat(8) }),
	fc.record({ does: fc.constant('kind' as const), column: fc.nat(8), kind: fc.nat(2) }),
	fc.record({ does: fc.constant('hide' as const), column: fc.nat(8) }),
	fc.record({ does: fc.constant('clock' as const), column: fc.nat(8) }),
	fc.record({ does: fc.constant('archive' as const), card: fc.nat(4) }),
	fc.record({ does: fc.constant('undo' as const) }),
);

describe('a board whose columns change', () => {
	test('says the same of itself as what is read of its history from outside, after any changes', async () => {
		await fc.assert(
			fc.asyncProperty(fc.array(step, { minLength: 10, maxLength: 40 }), async (steps) => {
				const board = await smallBoard(db);
				const cards: string[] = [];
				for (let i = 0; i < 5; i++) cards.push(await addCard(board, null, `Card ${i}`));
				let last: string | null = null;
				let done = 0;
				for (const [i, one] of steps.entries()) {
					later(7);
					const { columns } = await headOf(board);
					const at = (n: number) => columns[n % columns.length]!;
					const place = (n: number) => (n % (columns.length + 1) ? at(n).id : null);
					const of = 'column' in one ? { column: at(one.column).id, version: at(one.column).version } : {};
					const {
						id: card,
						version,
						archived_at,
					} = 'card' in one ? await cardRow(db, cards[one.card]!) : { id: '', version: 0, archived_at: null };
					const sent: [string, object] = {
						move: (): [string, object] => [
							'MoveCard',
							{ card, version, column: 'to' in one ? place(one.to) : null, reason: 'It must' },
						],
						rename: (): [string, object] => [
							'ChangeColumn',
							{ ...of, name: `Name ${'to' in one ? one.to : 0}` },
						],
						add: (): [string, object] => [
							'AddColumn',
							{
								board: board.id,
								name: `Added ${i}`,
								kind: KINDS['kind' in one ? one.kind : 0],
								after: 'to' in one ? place(one.to) : null,
							},
						],
						place: (): [string, object] => [
							'PlaceColumn',
							{ ...of, after: 'to' in one ? place(one.to) : null },
						],
						retire: (): [string, object] => [
							'RetireColumn',
							{ ...of, to: 'to' in one ? place(one.to) : null, reason: 'It must' },
						],
						kind: (): [string, object] => [
							'ChangeColumn',
							{ ...of, kind: KINDS['kind' in one ? one.kind : 0] },
						],
						hide: (): [string, object] => [
							'ChangeColumn',
							{ ...of, hidden: 'column' in one && !at(one.column).hidden },
						],
						clock: (): [string, object] => [
							'MoveClock',
							{ board: board.id, column: 'column' in one ? at(one.column).id : '' },
						],
						archive: (): [string, object] => [
							archived_at ? 'RestoreCard' : 'ArchiveCard',
							{ card, version, reason: 'It must' },
						],
						undo: (): [string, object] => ['UndoCommand', { of: last, reason: 'It must' }],
					}[one.does]();
					if (one.does === 'undo' && !last) continue;
					try {
						const answer = await command(board.lead, ...sent);
						last = answer.undoable ? answer.id : null;
						done++;
					} catch (refused) {
						if (!(refused instanceof Problem) || refused.status >= 500) throw refused;
						last = null;
					}
				}
				assert.ok(done > 3);
				await agrees(board);
			}),
			{ numRuns: 12 },
		);
	});

	test('renaming, hiding, and another order among queues before the clock change no figure', async () => {
		const board = await smallBoard(db);
		await command(board.lead, 'AddColumn', {
			board: board.id,
			name: 'Sorted',
			kind: 'queue',
			after: board.columns.Ready,
		});
		const { columns } = await headOf(board);
		const sorted = columns.find(({ name }) => name === 'Sorted')!.id;
		for (const way of [
			[board.columns.Ready, sorted, board.columns.Making, board.columns.Check, board.columns.Done],
			[board.columns.Ready, board.columns.Making],
			[sorted],
		]) {
			const card = await addCard(board, null);
			for (const column of way) {
				later(9);
				await command(board.member, 'MoveCard', { card, version: (await cardRow(db, card)).version, column });
			}
		}
		const before = await agrees(board);
		await command(board.lead, 'ChangeColumn', { ...(await seen(board, 'Making')), name: 'Building' });
		await command(board.lead, 'ChangeColumn', { ...(await seen(board, 'Building')), name: 'Making it' });
		await command(board.lead, 'ChangeColumn', { ...(await seen(board, 'Check')), hidden: true });
		await command(board.lead, 'PlaceColumn', { ...(await seen(board, 'Sorted')), after: null });
		const after = await agrees(board);
		agree(after.cards, before.cards, 'cards');
		agree(after.cycle, before.cycle, 'cycle');
		assert.deepEqual(names(await headOf(board)), ['Sorted', 'Ready', 'Making it', 'Check', 'Done']);
		// What was called so then is told so.
		const { rows } = await db.query(
			`select distinct value from event where board_id = $1 and kind = 'column' and value <> '' order by 1`,
			[board.id],
		);
		assert.ok(rows.some(({ value }) => value === 'Making'));
	});

	test('another clock changes when cards started, also past ones, and taking it back changes it back', async () => {
		const board = await smallBoard(db);
		const card = await addCard(board, 'Ready');
		const move = async (column: string) => {
			later(20);
			const { version } = await cardRow(db, card);
			await command(board.member, 'MoveCard', { card, version, column });
		};
		await move(board.columns.Making);
		await move(board.columns.Done);
		const before = await cardRow(db, card);
		const moved = await command(board.lead, 'MoveClock', { board: board.id, column: board.columns.Ready });
		assert.equal(moved.result.cards, 1);
		const between = await cardRow(db, card);
		assert.ok((between.started_at as Date) < (before.started_at as Date));
		await agrees(board);
		await command(board.lead, 'UndoCommand', { of: moved.id });
		assert.deepEqual((await cardRow(db, card)).started_at, before.started_at);
		await agrees(board);
	});

	test('what is taken away keeps its past; its cards go where is said, and restored ones where something stands', async () => {
		const board = await smallBoard(db);
		const [standing, archived] = [await addCard(board, 'Check'), await addCard(board, 'Check')];
		await command(board.member, 'ArchiveCard', {
			card: archived,
			version: (await cardRow(db, archived)).version,
			reason: 'No',
		});
		const taken = await command(board.lead, 'RetireColumn', {
			...(await seen(board, 'Check')),
			to: board.columns.Ready,
		});
		assert.equal(taken.result.cards, 1);
		assert.equal((await cardRow(db, standing)).column_id, board.columns.Ready);
		const head = await headOf(board);
		assert.deepEqual(names(head), ['Ready', 'Making', 'Done']);
		assert.deepEqual(
			head.retired.map((column) => column.name),
			['Check'],
		);
		assert.equal((await setUpPage(head, board.lead)).stays[board.columns.Check], 2);
		await command(board.member, 'RestoreCard', {
			card: archived,
			version: (await cardRow(db, archived)).version,
		});
		assert.equal((await cardRow(db, archived)).column_id, null);
		await agrees(board);
		await command(board.lead, 'UndoCommand', { of: taken.id });
		assert.deepEqual(names(await headOf(board)), ['Ready', 'Making', 'Check', 'Done']);
		assert.equal((await cardRow(db, standing)).column_id, board.columns.Check);
		await agrees(board);
	});
});

describe('what cannot be is refused in words, and changes nothing', () => {
	const CASES: [what: string, code: string, sent: (board: SmallBoard) => Promise<[string, object]>][] = [
		[
			'a name that another column has',
			'column.name_taken',
			async (b) => ['AddColumn', { board: b.id, name: 'making', kind: 'work', after: null }],
		],
		[
			'a name that another column had',
			'column.name_taken',
			async (b) => {
				await command(b.lead, 'ChangeColumn', { ...(await seen(b, 'Ready')), name: 'Lined up' });
				return ['ChangeColumn', { ...(await seen(b, 'Check')), name: 'Ready' }];
			},
		],
		[
			'the last column in which cards are done',
			'column.last_done',
			async (b) => ['RetireColumn', await seen(b, 'Done')],
		],
		[
			'hiding it',
			'column.last_done',
			async (b) => ['ChangeColumn', { ...(await seen(b, 'Done')), hidden: true }],
		],
		[
			'taking the clock’s column away',
			'column.clock',
			async (b) => ['RetireColumn', await seen(b, 'Making')],
		],
		[
			'taking a column away with nowhere for its cards',
			'column.cards',
			async (b) => {
				await addCard(b, 'Check');
				return ['RetireColumn', await seen(b, 'Check')];
			},
		],
		[
			'done where a card has stood',
			'column.done_stood',
			async (b) => {
				await addCard(b, 'Check');
				return ['ChangeColumn', { ...(await seen(b, 'Check')), kind: 'done' }];
			},
		],
		[
			'a clock that starts where cards are done',
			'column.clock_done',
			async (b) => ['MoveClock', { board: b.id, column: b.columns.Done }],
		],
		[
			'a column of another board',
			'column.unknown',
			async (b) => ['MoveClock', { board: b.id, column: (await smallBoard(db)).columns.Check }],
		],
		[
			'a column that was changed since',
			'column.changed',
			async (b) => {
				const old = await seen(b, 'Check');
				await command(b.lead, 'ChangeColumn', { ...old, policy: 'New' });
				return ['PlaceColumn', { ...old, after: null }];
			},
		],
		[
			'moving a card to where nothing is any more',
			'column.unknown',
			async (b) => {
				await command(b.lead, 'RetireColumn', await seen(b, 'Check'));
				const card = await addCard(b, 'Ready');
				return ['MoveCard', { card, version: 1, column: b.columns.Check }];
			},
		],
	];
	for (const [what, code, prepare] of CASES)
		test(what, async () => {
			const board = await smallBoard(db);
			const sent = await prepare(board);
			const before = JSON.stringify(await headOf(board));
			const problem = await refusal(command(board.lead, ...sent));
			assert.equal(problem.code, code);
			assert.match(problem.message, /\.$/);
			assert.equal(JSON.stringify(await headOf(board)), before);
		});
	test('by members', async () => {
		const board = await smallBoard(db);
		const problem = await refusal(
			command(board.member, 'PlaceColumn', { ...(await seen(board, 'Check')), after: null }),
		);
		assert.equal(problem.code, 'right.missing');
	});
});

describe('at once, from two processes', () => {
	test('two leads give a column a name: one wins, the other is told', async () => {
		const there = await otherProcess();
		const board = await smallBoard(db);
		const check = await seen(board, 'Check');
		const [one, two] = await Promise.all([
			here([board.lead, 'ChangeColumn', { ...check, name: 'Looked at' }]),
			there([board.lead, 'ChangeColumn', { ...check, name: 'Tried out' }]),
		]);
		const refused = [one, two].flatMap((outcome) => outcome!.refused ?? []);
		assert.equal(refused.length, 1);
		assert.equal(refused[0]!.code, 'column.changed');
		await agrees(board);
	});

	test('a column is taken away while a card comes into it: nothing is lost, and the one that was late is told', async () => {
		const there = await otherProcess();
		for (let i = 0; i < 4; i++) {
			const board = await smallBoard(db);
			const card = await addCard(board, 'Ready');
			const check = await seen(board, 'Check');
			const outcomes = await Promise.all([
				here([board.lead, 'RetireColumn', { ...check, to: board.columns.Ready }]),
				there([board.member, 'MoveCard', { card, version: 1, column: board.columns.Check }]),
			]);
			for (const outcome of outcomes) assert.equal(outcome!.failed, undefined);
			const refused = outcomes.flatMap((outcome) => outcome!.refused ?? []);
			for (const { code } of refused) assert.equal(code, 'column.unknown');
			assert.equal((await cardRow(db, card)).column_id, board.columns.Ready);
			await agrees(board);
		}
	});
});
