import assert from 'node:assert/strict';
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { sprintAccounts } from '../src/core/sprint/accounts.ts';
import { balances } from '../src/core/sprint/settle.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { boardCards } from '../src/lib/server/questions/board-cards.ts';
import { checkLedgers } from '../src/lib/server/questions/check.ts';
import { boardFile, boardHistory } from '../src/lib/server/questions/history.ts';
import { Problem } from '../src/lib/server/problem.ts';
import { useDatabase } from './support/database.ts';
import { addCard, cardRow, command, everything, refusal } from './support/small-board.ts';
import { at, ledgerOf, runningBoard, seen, sized, start, type SprintBoard } from './support/sprint.ts';
import { within } from './support/within.ts';

const db = await useDatabase('empty');
/** After what the tests do. */
const LATER = '2026-11-23T14:40:00Z';

const settle = async (board: SprintBoard, decisions: object[], more: object = {}) => {
	const sprint = (await boardHead(board.lead, board.slug)).sprints.find((s) => s.startedAt && !s.closedAt)!;
	const input = { board: board.id, sprint: sprint.number, version: sprint.version, decisions, ...more };
	return command(board.lead, 'SettleSprint', input);
};
const decision = async (card: string, what: string, more: object = {}) => ({
	...(await seen(db, card))[0]!,
	decision: what,
	reason: 'bigger',
	...more,
});

describe('settling a sprint', () => {
	test('carries, splits, returns and drops in one step; both sides of the ledger agree', async () => {
		const board = await runningBoard(db, [
			['Carried', 8],
			['Split', 6],
			['Returned', 5],
			['Dropped', 4],
			['Done', 3],
		]);
		const [carried, split, returned, dropped, done] = board.cards as [string, string, string, string, string];
		await command(board.member, 'LogTime', { card: carried, day: '2026-11-23', hours: 3 });
		await command(board.member, 'LogTime', { card: split, day: '2026-11-23', hours: 4 });
		const lines = ['Keep', 'Take'].map((text) => ({ id: text.toLowerCase(), text, done: false }));
		await command(board.member, 'ChecklistCard', {
			card: split,
			version: (await cardRow(db, split)).version,
			lines,
		});
		await command(board.member, 'MoveCard', { ...(await seen(db, done))[0], column: board.columns.Done });
		const [, take] = (await cardRow(db, split)).checklist as { id: string }[];
		const before = await cardRow(db, carried);
		const answer = await settle(board, [
			await decision(carried, 'carry', { reason: 'waiting' }),
			await decision(split, 'split', { title: 'The rest', finished: 'The first half', lines: [take!.id] }),
			await decision(returned, 'backlog', { reason: 'not-started' }),
			await decision(dropped, 'drop', { reason: 'other', words: 'Nobody needs it' }),
		]);
		assert.deepEqual(answer.result, {
			sprint: 1,
			done: 1,
			carried: 1,
			split: 1,
			returned: 1,
			dropped: 1,
			next: 2,
		});
		const ledger = await ledgerOf(board, 1);
		assert.ok(balances(ledger));
		assert.deepEqual(
			[ledger.committed, ledger.burned, ledger.carried, ledger.splitOff, ledger.returned, ledger.dropped],
			[26, 10, 5, 2, 5, 4],
		);
		assert.equal(ledger.open, 0);
		assert.equal(ledger.delivered, 7);
		assert.ok(ledger.stints.every((stint) => stint.outcome));

		const now = await cardRow(db, carried);
		assert.deepEqual([now.column_id, now.rank, now.left], [before.column_id, before.rank, 5]);
		const { rows } = await db.query(
			`select c.title, c.size, c."left", c.column_id, s.number as sprint, c.checklist, k.kind
			from card c join card_link k on k.to_id = c.id left join sprint s on s.id = c.sprint_id where k.from_id = $1`,
			[split],
		);
		assert.deepEqual(
			{ ...rows[0], checklist: rows[0].checklist.map((line: { text: string }) => line.text) },
			{ title: 'The rest', size: 2, left: 2, column_id: null, sprint: 2, checklist: ['Take'], kind: 'split' },
		);
		const finished = await cardRow(db, split);
		assert.deepEqual([finished.title, finished.clock, finished.size], ['The first half', 'done', 4]);
		assert.equal((await cardRow(db, returned)).column_id, null);
		const gone = await cardRow(db, dropped);
		assert.deepEqual([gone.archived_reason, gone.clock], ['Nobody needs it', 'dropped']);
		const shown = (await boardCards(board.lead, board.slug)).cards.map((card) => card.title);
		assert.deepEqual(shown, ['Carried'], 'done cards leave the board when their sprint is closed');
		assert.deepEqual((await checkLedgers()).wrong, []);
	});

	test('done cards stay for as many days as the board says', async () => {
		const board = await runningBoard(db, [['Done', 3]]);
		await db.query('update board set done_days = 2 where id = $1', [board.id]);
		await command(board.member, 'MoveCard', {
			...(await seen(db, board.cards[0]!))[0],
			column: board.columns.Done,
		});
		await settle(board, []);
		assert.equal((await boardCards(board.lead, board.slug)).cards.length, 1);
	});

	test('what carried cards bring along is only what is left of them', async () => {
		const board = await runningBoard(db, [['Long', 20]]);
		await command(board.member, 'LogTime', { card: board.cards[0], day: '2026-11-23', hours: 13 });
		await settle(board, [await decision(board.cards[0]!, 'carry')]);
		await at(LATER, () => start(board, 2));
		const next = await ledgerOf(board, 2);
		assert.equal(next.committed, 7);
	});

	test('taking it back restores everything, table by table, until the next sprint has started', async () => {
		const board = await runningBoard(db, [
			['A', 8],
			['B', 6],
			['C', 5],
			['D', 4],
			['E', 3],
		]);
		const [a, b, c, d, e] = board.cards as [string, string, string, string, string];
		// Cards with something in every table: owners, labels, an initiative, a checklist, time, a blockage, a link.
		await command(board.member, 'ChangeCards', {
			board: board.id,
			cards: await seen(db, a, b, c),
			owners: [board.member.id],
			label: ['mast', 'radio'],
			initiative: 'Winter',
		});
		await command(board.member, 'LogTime', { card: b, day: '2026-11-23', hours: 2, note: 'Begun' });
		await command(board.member, 'MoveCard', { ...(await seen(db, a))[0], column: board.columns.Making });
		await command(board.member, 'BlockCard', { ...(await seen(db, a))[0], reason: 'No crane' });
		await command(board.member, 'MoveCard', { ...(await seen(db, c))[0], column: board.columns.Check });
		await command(board.member, 'MoveCard', { ...(await seen(db, e))[0], column: board.columns.Done });
		await command(board.member, 'ChecklistCard', {
			...(await seen(db, b))[0],
			lines: [
				{ id: 'one', text: 'First', done: true },
				{ id: 'two', text: 'Then', done: false },
			],
		});
		/** Every table as it stands, but for what only counts changes, and for cards that taking back has set aside. */
		const tables = async () => {
			const own = `(select id from card where board_id = '${board.id}' and archived_reason is distinct from 'Taken back')`;
			const of: Record<string, string> = {
				card: `id in ${own}`,
				card_owner: `card_id in ${own}`,
				card_label: `card_id in ${own}`,
				card_link: `from_id in ${own} and to_id in ${own}`,
				stay: `card_id in ${own}`,
				blockage: `card_id in ${own}`,
				time_entry: `card_id in ${own}`,
				sprint: `board_id = '${board.id}'`,
				board_column: `board_id = '${board.id}'`,
				initiative: `board_id = '${board.id}'`,
				label: `board_id = '${board.id}'`,
				board: `id = '${board.id}'`,
			};
			const found: Record<string, unknown> = {};
			for (const [table, where] of Object.entries(of)) {
				const { rows } = await db.query(
					`select to_jsonb(t) - '{version,last_seq,last_number}'::text[] as row from ${table} t where ${where} order by t::text`,
				);
				found[table] = rows.map(({ row }) => row);
			}
			const byText = (x: unknown, y: unknown) => (JSON.stringify(x) < JSON.stringify(y) ? -1 : 1);
			for (const rows of Object.values(found)) (rows as unknown[]).sort(byText);
			return { ...found, ledger: await ledgerOf(board, 1) };
		};
		const before = await tables();
		assert.ok(
			Object.entries(before).every(([table, rows]) => table === 'card_link' || Object.keys(rows!).length),
		);
		const answer = await settle(
			board,
			[
				await decision(a, 'carry'),
				await decision(b, 'split', { title: 'Rest of B', finished: 'B, begun' }),
				await decision(c, 'backlog'),
				await decision(d, 'drop'),
			],
			{ goalMet: 'partly', goalWords: 'Nearly.' },
		);
		assert.notDeepEqual(await tables(), before);
		await command(board.lead, 'UndoCommand', { of: answer.id });
		assert.deepEqual(await tables(), before);
		assert.deepEqual((await checkLedgers()).wrong, []);

		const again = await settle(board, [
			await decision(a, 'carry'),
			await decision(b, 'carry'),
			await decision(c, 'backlog'),
			await decision(d, 'drop'),
		]);
		await at(LATER, () => start(board, 2));
		const refused = await refusal(command(board.lead, 'UndoCommand', { of: again.id }));
		assert.ok(['undo.next_started', 'undo.changed'].includes(refused.code), refused.code);
	});

	test('of two leads who settle at once one wins, and the other is told by whom it was settled', async () => {
		const board = await runningBoard(db, [
			['A', 8],
			['B', 6],
		]);
		const all = [await decision(board.cards[0]!, 'carry'), await decision(board.cards[1]!, 'backlog')];
		const { version } = (await boardHead(board.lead, board.slug)).sprints[0]!;
		const both = { board: board.id, sprint: 1, version, decisions: all };
		const answers = await Promise.allSettled([
			command(board.lead, 'SettleSprint', both),
			command(board.lead, 'SettleSprint', both),
		]);
		assert.deepEqual(answers.map((one) => one.status).sort(), ['fulfilled', 'rejected']);
		const { reason } = answers.find((one) => one.status === 'rejected') as PromiseRejectedResult;
		assert.equal((reason as Problem).code, 'sprint.settled');
		assert.match((reason as Problem).message, new RegExp(`settled already, by ${board.lead.name}`));
	});

	test('members settle only where the board lets them', async () => {
		const board = await runningBoard(db, [['A', 1]]);
		const { version } = (await boardHead(board.lead, board.slug)).sprints[0]!;
		const input = async () => ({
			board: board.id,
			sprint: 1,
			version,
			decisions: [await decision(board.cards[0]!, 'carry')],
		});
		assert.equal((await refusal(command(board.member, 'SettleSprint', await input()))).code, 'right.missing');
		await db.query('update board set members_settle = true where id = $1', [board.id]);
		await command(board.member, 'SettleSprint', await input());
	});
});

describe('what cannot be settled is refused in words, and changes nothing', () => {
	const cases: [string, (board: SprintBoard) => Promise<object[]>, string, RegExp][] = [
		['undecided cards', async () => [], 'settle.undecided', /2 cards are still undecided: 1, 2/],
		[
			'splitting into nothing',
			async (board) => {
				await command(board.member, 'CorrectLeft', {
					...(await seen(db, board.cards[0]!))[0],
					left: 0,
					reason: 'done?',
				});
				return [
					await decision(board.cards[0]!, 'split', { title: 'Rest' }),
					await decision(board.cards[1]!, 'carry'),
				];
			},
			'split.nothing',
			/Nothing is left of card 1/,
		],
		[
			'a split without a title',
			async (board) => [await decision(board.cards[0]!, 'split'), await decision(board.cards[1]!, 'carry')],
			'split.title',
			/what the new card/,
		],
		[
			'another reason without words',
			async (board) => [
				await decision(board.cards[0]!, 'carry', { reason: 'other' }),
				await decision(board.cards[1]!, 'carry'),
			],
			'settle.words',
			/Say in words why card 1/,
		],
		[
			'no reason at all',
			async (board) => [
				await decision(board.cards[0]!, 'carry', { reason: undefined }),
				await decision(board.cards[1]!, 'carry'),
			],
			'invalid.reason',
			/The reason must be one of/,
		],
		[
			'a card decided twice',
			async (board) => [
				await decision(board.cards[0]!, 'carry'),
				await decision(board.cards[0]!, 'drop'),
				await decision(board.cards[1]!, 'carry'),
			],
			'invalid.decisions',
			/Decide each card once/,
		],
		[
			'a card of another place',
			async (board) => [
				await decision(board.cards[0]!, 'carry'),
				await decision(board.cards[1]!, 'carry'),
				await decision(await addCard(board, null), 'carry'),
			],
			'settle.not_in_sprint',
			/not in sprint 1 any more/,
		],
		[
			'a card that somebody changed meanwhile',
			async (board) => {
				const seenBefore = await decision(board.cards[0]!, 'carry');
				await command(board.member, 'RenameCard', { ...(await seen(db, board.cards[0]!))[0], title: 'New' });
				return [seenBefore, await decision(board.cards[1]!, 'carry')];
			},
			'card.changed',
			/changed card 1/,
		],
		[
			'a card that was finished meanwhile',
			async (board) => {
				await command(board.member, 'MoveCard', {
					...(await seen(db, board.cards[0]!))[0],
					column: board.columns.Done,
				});
				return [await decision(board.cards[0]!, 'carry'), await decision(board.cards[1]!, 'carry')];
			},
			'settle.done',
			/Card 1 was finished meanwhile/,
		],
	];
	for (const [what, decisions, code, words] of cases)
		test(what, async () => {
			const board = await runningBoard(db, [
				['A', 8],
				['B', 6],
			]);
			const list = await decisions(board);
			const before = await everything(db);
			const problem = await refusal(settle(board, list));
			assert.equal(problem.code, code);
			assert.match(problem.message, words);
			assert.equal(await everything(db), before);
		});

	test('a sprint that is settled, or has not started', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		const ahead = { board: board.id, sprint: 2, version: 1, decisions: [] };
		assert.equal((await refusal(command(board.lead, 'SettleSprint', ahead))).code, 'sprint.not_started');
		await settle(board, [await decision(board.cards[0]!, 'drop')]);
		const twice = { board: board.id, sprint: 1, version: 3, decisions: [] };
		assert.equal((await refusal(command(board.lead, 'SettleSprint', twice))).code, 'sprint.settled');
	});
});

describe('two hundred unfinished cards', () => {
	const many = () =>
		runningBoard(
			db,
			Array.from({ length: 200 }, (_, i) => [`Card ${i}`, 4] as [string, number]),
		);
	const WHAT = ['carry', 'backlog', 'drop', 'split'];
	const decideAll = async (board: SprintBoard) =>
		(await seen(db, ...board.cards)).map((one, i) => ({
			...one,
			decision: WHAT[i % 4],
			reason: 'surprises',
			...(i % 4 === 3 ? { title: `Rest ${i}` } : {}),
		}));

	test('are settled in under a second', async () => {
		await within(1000, 'ms', async () => {
			const board = await many();
			const decisions = await decideAll(board);
			const from = performance.now();
			await settle(board, decisions);
			const took = performance.now() - from;
			assert.ok(balances(await ledgerOf(board, 1)));
			return took;
		});
	});

	test('a process that is killed hard at ten points inside it leaves all of it or nothing, each time', async () => {
		const board = await many();
		/** A process takes a second or two to start: the next ones start while one is looked at. */
		const begin = () =>
			spawn(process.execPath, [`${process.env.HARROW_BUILD}/settle-and-die.js`], {
				env: process.env,
				stdio: ['pipe', 'pipe', 'inherit'],
			});
		const ready = [begin(), begin()];
		/** Settles in a process of its own, killed after so many milliseconds; gives how long it took where it was done before. */
		const settleAndDie = async (wait: number | null): Promise<number | null> => {
			const id = randomUUID();
			const child = ready.shift()!;
			ready.push(begin());
			let said = '';
			child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()));
			const { version } = (await boardHead(board.lead, board.slug)).sprints[0]!;
			const decisions = await decideAll(board);
			const input = { board: board.id, sprint: 1, version, decisions };
			child.stdin.end(JSON.stringify({ person: board.lead, id, wait, input }));
			const signal = await new Promise((resolve) => child.once('close', (_, by) => resolve(by)));
			assert.equal(signal, 'SIGKILL');
			await sessionsGone();
			if ((await everything(db)) === before) {
				assert.equal(said, '', 'what was answered stands');
				return null;
			}
			const ledger = await ledgerOf(board, 1);
			assert.ok(ledger.stints.every((stint) => stint.outcome) && balances(ledger));
			assert.equal(ledger.open, 0);
			assert.deepEqual((await checkLedgers()).wrong, []);
			// Taken back, so that it can be tried again.
			await command(board.lead, 'UndoCommand', { of: id });
			before = await everything(db);
			return said ? Number(said) : null;
		};
		let before = await everything(db);
		const whole = (await settleAndDie(null))!;
		assert.ok(whole > 0);
		let inside = 0;
		const points = fc.sample(fc.double({ min: 0.02, max: 0.95, noNaN: true }), { seed: 7, numRuns: 20 });
		for (const part of points) if (inside < 10 && (await settleAndDie(whole * part)) === null) inside++;
		for (const child of ready) child.kill('SIGKILL');
		assert.equal(inside, 10, 'ten of them were killed inside it');
		assert.deepEqual((await checkLedgers()).wrong, []);
	});

	/** Waits until the database has noticed that whoever asked is gone. */
	async function sessionsGone(): Promise<void> {
		for (;;) {
			const { rows } = await db.query(
				`select count(*) as n from pg_stat_activity
				where datname = current_database() and application_name = 'settle-and-die' and xact_start is not null`,
			);
			if (!Number(rows[0].n)) return;
		}
	}
});

test('whatever happens in a sprint and however it is settled, every ledger agrees with the tables', async () => {
	const act = fc.record({
		card: fc.nat(4),
		what: fc.constantFrom(
			'log',
			'size',
			'left',
			'done',
			'begin',
			'back',
			'remove',
			'split',
			'drop',
			'restore',
			'add',
			'undo',
		),
		amount: fc.integer({ min: 1, max: 12 }),
	});
	const end = fc.array(fc.constantFrom('carry', 'split', 'backlog', 'drop'), {
		minLength: 30,
		maxLength: 30,
	});
	await fc.assert(
		fc.asyncProperty(fc.array(act, { minLength: 3, maxLength: 14 }), end, async (acts, ends) => {
			const board = await runningBoard(db, [
				['A', 8],
				['B', 6],
				['C', 5],
			]);
			const extra = [await sized(db, board, 4, 'D'), await sized(db, board, 2, 'E')];
			const cards = [...board.cards, ...extra];
			let last = '';
			for (const { card, what, amount } of acts) {
				const id = cards[card]!;
				const ref = (await seen(db, id))[0]!;
				const place = { board: board.id, cards: [ref] };
				const [name, input] = (
					{
						log: ['LogTime', { card: id, day: '2026-11-23', hours: amount / 4 }],
						size: ['SizeCard', { ...ref, size: amount }],
						left: ['CorrectLeft', { ...ref, left: amount, reason: 'Seen anew' }],
						done: ['MoveCard', { ...ref, column: board.columns.Done }],
						begin: ['MoveCard', { ...ref, column: board.columns.Check }],
						back: ['MoveCard', { ...ref, column: null }],
						remove: ['PlanCards', { ...place, sprint: null }],
						add: ['PlanCards', { ...place, sprint: 1 }],
						split: ['SplitCard', { ...ref, title: 'Part', part: amount / 2 }],
						drop: ['ArchiveCard', ref],
						restore: ['RestoreCard', ref],
						undo: ['UndoCommand', { of: last || id }],
					} as const
				)[what];
				try {
					last = (await command(board.lead, name, input)).id;
				} catch (error) {
					if (!(error instanceof Problem)) throw error;
				}
			}
			const { rows } = await db.query<{ id: string; version: number; number: number; left: number }>(
				`select id, version, number, "left" from card where sprint_id = (select id from sprint where board_id = $1 and number = 1)
					and archived_at is null and clock <> 'done' order by number`,
				[board.id],
			);
			await settle(
				board,
				rows.map((card, i) => ({
					card: card.id,
					version: card.version,
					// Nothing can be split off where nothing is left.
					decision: ends[i] === 'split' && Number(card.left) === 0 ? 'carry' : ends[i],
					reason: 'scope',
					title: 'The rest',
				})),
			);
			const head = await boardHead(board.lead, board.slug);
			const { ledgers } = sprintAccounts(boardFile(head), await boardHistory(head), Date.now());
			assert.ok(ledgers.every(balances));
			assert.ok(ledgers[0]!.stints.every((stint) => stint.outcome !== null));
			assert.deepEqual((await checkLedgers(board.key)).wrong, []);
		}),
		{ numRuns: 12 },
	);
});
