import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { fsum } from 'd3-array';
import fc from 'fast-check';
import { GROUPINGS } from '../src/core/account/account.ts';
import type { AccountPage } from '../src/core/pages/account.ts';
import { accountCards, accountPage } from '../src/lib/server/questions/account.ts';
import { reportPage } from '../src/lib/server/questions/report.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { Problem } from '../src/lib/server/problem.ts';
import type { Person } from '../src/lib/server/sign-in.ts';
import { useDatabase } from './support/database.ts';
import { cardRow, command, everything, refusal } from './support/small-board.ts';
import { at, runningBoard, seen, start, type SprintBoard } from './support/sprint.ts';

const db = await useDatabase('empty');
const NOVEMBER = { from: '2026-11-01', to: '2026-11-30' };
const account = (board: SprintBoard, by = 'person', as: Person = board.lead, range = NOVEMBER) =>
	accountPage(as, board.team, { ...range, by });
const line = (page: AccountPage, name: string) => page.account.lines.find((one) => one.name === name)!;
const log = (board: SprintBoard, card: string, day: string, hours: number, more: object = {}) =>
	command(board.lead, 'LogTime', { card, day, hours, ...more });

describe('cost', () => {
	test('is hours times the rate that was valid on that day; hours before a first rate are said apart', async () => {
		const board = await runningBoard(db, [['A', 20]]);
		const [card] = board.cards as [string];
		const rate = (from: string, amount: number) =>
			command(board.lead, 'ChangeRate', { team: board.team, person: board.lead.id, from, rate: amount });
		await rate('2026-11-10', 50);
		await rate('2026-11-20', 60.5);
		await log(board, card, '2026-11-09', 1);
		await log(board, card, '2026-11-10', 2, { billable: true });
		await log(board, card, '2026-11-20', 4);
		const { account: found } = await account(board);
		assert.deepEqual(
			[found.total.hours, found.total.billable, found.total.cost, found.total.unrated],
			[7, 2, 2 * 50 + 4 * 60.5, 1],
		);
		// A rate that is corrected is corrected for its days.
		await rate('2026-11-10', 40);
		assert.equal((await account(board)).account.total.cost, 2 * 40 + 4 * 60.5);
		const seenByMember = await account(board, 'person', board.member);
		assert.deepEqual(
			[seenByMember.account.total.cost, seenByMember.account.total.unrated, seenByMember.account.total.hours],
			[null, 0, 7],
			'a member is told no cost at all',
		);
	});

	test('only leads say it, with clear words where it cannot be', async () => {
		const board = await runningBoard(db, [['A', 1]]);
		const input = { team: board.team, person: board.member.id, from: '2026-11-10', rate: 50 };
		const before = await everything(db);
		for (const [by, change, code] of [
			[board.member, {}, 'right.missing'],
			[board.lead, { rate: -1 }, 'invalid.rate'],
			[board.lead, { rate: 1.234 }, 'invalid.rate'],
			[board.lead, { from: 'soon' }, 'invalid.from'],
			[board.lead, { person: board.outsider.id }, 'person.unknown'],
		] as const)
			assert.equal((await refusal(command(by, 'ChangeRate', { ...input, ...change }))).code, code);
		assert.equal(await everything(db), before);
		// The history says that it was changed, never to what.
		await command(board.lead, 'ChangeRate', input);
		const { rows } = await db.query(
			`select e.value, e.after::text as after from event e where e.board_id = $1 order by seq desc limit 1`,
			[board.id],
		);
		assert.match(rows[0].value, /What an hour of Member \d+ costs was changed/);
		assert.ok(!`${rows[0].value}${rows[0].after}`.includes('50'));
	});
});

describe('an account', () => {
	test('sets a span beside the equal one before, by person, initiative, label, type, sprint and month', async () => {
		const board = await runningBoard(db, [
			['A', 20],
			['B', 20],
		]);
		const [a, b] = board.cards as [string, string];
		await command(board.lead, 'ChangeCards', {
			board: board.id,
			cards: await seen(db, a),
			label: ['mast', 'radio'],
			initiative: 'Winter',
		});
		await log(board, a, '2026-11-22', 3);
		await log(board, a, '2026-11-23', 2, { person: board.member.id });
		await log(board, b, '2026-11-23', 1);
		await log(board, b, '2026-11-10', 5);
		const week = { from: '2026-11-16', to: '2026-11-23' };
		const by = (grouping: string) => account(board, grouping, board.lead, week);
		const people = await by('person');
		assert.deepEqual(people.before, { from: '2026-11-08', to: '2026-11-15' });
		assert.deepEqual(
			[
				line(people, board.lead.name).hours,
				line(people, board.lead.name).before,
				line(people, board.member.name).hours,
			],
			[4, 5, 2],
		);
		const initiatives = await by('initiative');
		assert.deepEqual(
			initiatives.account.lines.map(({ name, hours }) => [name, hours]),
			[
				['Winter', 5],
				['', 1],
			],
		);
		const labels = await by('label');
		assert.deepEqual(
			[line(labels, 'mast').hours, line(labels, 'radio').hours, labels.account.total.hours],
			[5, 5, 6],
			'a card with two labels counts under each, and once in all',
		);
		assert.equal(line(await by('sprint'), `${people.team.boards[0]!.name} 1`).hours, 6);
		assert.equal(line(await by('month'), '2026-11').hours, 6);
		const behind = (of: 'worked' | 'placed', which: string | null, by = 'person') =>
			accountCards(board.lead, board.team, { ...week, by }, of, which);
		assert.deepEqual(await behind('worked', board.member.id), [
			{ card: `${board.key}-1`, title: 'A', amount: 2 },
		]);
		// Whatever is told apart, each line is the sum of its cards, and so is the whole.
		for (const grouping of GROUPINGS) {
			const { account: found } = await by(grouping);
			const sum = async (which: string | null) =>
				fsum(await behind('worked', which, grouping), ({ amount }) => amount!);
			for (const one of found.lines) assert.equal(await sum(one.about), one.hours, `${grouping} ${one.name}`);
			assert.equal(await sum(null), 6, grouping);
		}
	});

	test('use is of the hours that someone works; what is placed counts by the working days inside', async () => {
		const board = await runningBoard(db, [['A', 20]]);
		await command(board.lead, 'AssignCard', {
			...(await seen(db, board.cards[0]!))[0],
			owners: [board.member.id],
		});
		await log(board, board.cards[0]!, '2026-11-23', 4, { person: board.member.id });
		const page = await account(board, 'person', board.lead, { from: '2026-11-23', to: '2026-11-27' });
		const use = page.use.find((one) => one.person === board.member.id)!;
		// The sprint has ten working days, five of them in the range; 16 h of 20 are left.
		// Today is the first of the five: what has been worked is set beside that day alone.
		assert.equal(page.until, '2026-11-23');
		assert.deepEqual(
			[use.available, use.worked, use.use, use.placed, use.plannedOf, use.planned],
			[8, 4, 0.5, 8, 40, 0.2],
		);
		const behind = (of: 'worked' | 'placed', as = board.lead) =>
			accountCards(
				as,
				board.team,
				{ from: '2026-11-23', to: '2026-11-27', by: 'person' },
				of,
				board.member.id,
			);
		const [card] = [{ card: `${board.key}-1`, title: 'A' }];
		assert.deepEqual(await behind('placed'), [{ ...card, amount: 8 }]);
		assert.deepEqual(await behind('worked'), [{ ...card, amount: 4 }]);
		await assert.rejects(behind('worked', board.outsider), Problem);
	});

	test('a range that runs backwards or is none is refused, naming its field', async () => {
		const board = await runningBoard(db, [['A', 1]]);
		for (const [range, code, field] of [
			[{ from: '2026-11-30', to: '2026-11-01' }, 'range.backwards', 'to'],
			[{ from: 'spring', to: '2026-11-01' }, 'invalid.from', 'from'],
			[{ from: '1990-01-01', to: '2026-11-01' }, 'range.too_long', 'from'],
		] as const) {
			const problem = await refusal(account(board, 'person', board.lead, range));
			assert.deepEqual([problem.code, problem.field], [code, field]);
		}
		await assert.rejects(accountPage(board.outsider, board.team, { ...NOVEMBER, by: null }), Problem);
	});

	test('whatever is carried, split or re-sized, what was worked when stays the same', async () => {
		const decision = fc.constantFrom('carry', 'split', 'backlog', 'drop');
		await fc.assert(
			fc.asyncProperty(
				fc.tuple(decision, decision, decision),
				fc.array(fc.nat(2), { maxLength: 5 }),
				async (ends, sizes) => {
					const board = await runningBoard(db, [
						['A', 8],
						['B', 6],
						['C', 5],
					]);
					for (const [i, card] of board.cards.entries()) await log(board, card, `2026-11-2${i}`, i + 1.5);
					const says = async () => (await account(board, 'person')).account;
					const before = await says();
					for (const i of sizes)
						await command(board.lead, 'SizeCard', {
							...(await seen(db, board.cards[i]!))[0],
							size: 9 + Number((await cardRow(db, board.cards[i]!)).size),
						});
					await at('2026-12-04T16:00:00Z', async () => {
						const sprint = (await boardHead(board.lead, board.slug)).sprints[0]!;
						await command(board.lead, 'SettleSprint', {
							board: board.id,
							sprint: 1,
							version: sprint.version,
							decisions: (await seen(db, ...board.cards)).map((one, i) => ({
								...one,
								decision: ends[i],
								reason: 'scope',
								title: 'The rest',
							})),
						});
					});
					await at('2026-12-07T09:00:00Z', () => start(board, 2));
					assert.deepEqual(await says(), before);
				},
			),
			{ numRuns: 6 },
		);
	});
});

describe('how a board settles, and what initiatives may cost', () => {
	test('a lead says who settles and how long done cards stay; what cannot be is refused', async () => {
		const board = await runningBoard(db, [['A', 1]]);
		const input = { board: board.id, membersSettle: true, doneDays: 3 };
		assert.equal((await refusal(command(board.member, 'ChangeSettling', input))).code, 'right.missing');
		assert.equal(
			(await refusal(command(board.lead, 'ChangeSettling', { ...input, doneDays: 91 }))).code,
			'invalid.doneDays',
		);
		await command(board.lead, 'ChangeSettling', input);
		const { rows } = await db.query('select members_settle, done_days from board where id = $1', [board.id]);
		assert.deepEqual(rows[0], { members_settle: true, done_days: 3 });
	});

	test('an initiative is over budget when worked and left are more than it', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		await command(board.lead, 'ChangeCards', {
			board: board.id,
			cards: await seen(db, board.cards[0]!),
			initiative: 'Winter',
		});
		const budget = (hours: number | null, initiative = 'Winter') =>
			command(board.lead, 'ChangeBudget', { board: board.id, initiative, hours });
		assert.equal((await refusal(budget(0))).code, 'invalid.hours');
		assert.equal((await refusal(budget(5, 'Summer'))).code, 'initiative.unknown');
		await budget(10);
		await log(board, board.cards[0]!, '2026-11-23', 6);
		const { budgets } = await account(board, 'initiative');
		assert.deepEqual(Object.values(budgets), [{ name: 'Winter', budget: 10, worked: 6, left: 2 }]);
		await budget(null);
		assert.deepEqual((await account(board, 'initiative')).budgets, {});
	});

	test('of an initiative over two boards the report names each card once, by its own board, to those who may see it', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		const { lead, member, team, id } = board;
		const [card] = board.cards as [string];
		const { result } = await command(lead, 'MakeBoard', {
			...{ team, name: `Yard ${board.key}`, key: `Y${board.key}`, unit: 'hours', sprintDays: null },
		});
		const yard = result.board as string;
		const { result: made } = await command(lead, 'AddInitiative', { board: id, name: 'Winter' });
		await command(lead, 'ShareInitiative', { team, initiative: made.initiative as string, wide: true });
		await command(lead, 'ChangeBudget', { board: id, initiative: 'Winter', hours: 30 });
		await command(lead, 'ChangeCards', { board: id, cards: await seen(db, card), initiative: 'Winter' });
		// The first card of each board has the same number.
		await command(lead, 'AddCards', {
			board: yard,
			cards: [{ title: 'Chain', size: 6, initiative: 'Winter' }],
		});
		const { rows: chains } = await db.query('select id from card where board_id = $1', [yard]);
		await log(board, card, '2026-11-23', 2);
		await log(board, chains[0].id, '2026-11-23', 3);
		const report = async (person: Person) => reportPage(await boardHead(person, board.slug), 1);
		const { budgets, titles } = await report(lead);
		assert.deepEqual(
			budgets.map(({ worked, here, left, cards }) => ({ worked, here, left, cards })),
			[
				{
					worked: 5,
					here: 2,
					left: 9,
					cards: [
						{ card: `Y${board.key}-1`, amount: 3 },
						{ card: `${board.key}-1`, amount: 2 },
					],
				},
			],
		);
		assert.deepEqual([titles[`Y${board.key}-1`], titles[`${board.key}-1`]], ['Chain', 'A']);
		await command(lead, 'ChangeBoard', { board: yard, visibleTo: 'named' });
		const told = await report(member);
		assert.deepEqual(told.budgets[0]!.cards, [{ card: `${board.key}-1`, amount: 2 }]);
		assert.equal(told.budgets[0]!.worked, 5);
	});
});
