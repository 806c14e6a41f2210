import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { FindingKind } from '../src/core/rounds/state.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { roundsPage } from '../src/lib/server/questions/rounds.ts';
import { useDatabase } from './support/database.ts';
import { command, refusal } from './support/small-board.ts';
import { at, runningBoard, seen, start, type SprintBoard } from './support/sprint.ts';

const db = await useDatabase('empty');
/** Thursday of the sprint that runs since Monday 23 November. */
const FRIDAY = '2026-11-27T15:00:00Z';

const rounds = async (board: SprintBoard) => roundsPage(await boardHead(board.lead, board.slug), board.lead);
const kinds = async (board: SprintBoard, kind: FindingKind) =>
	(await rounds(board)).findings.filter((one) => one.kind === kind);
const move = async (board: SprintBoard, card: string, column: keyof SprintBoard['columns']) =>
	command(board.member, 'MoveCard', { ...(await seen(db, card))[0], column: board.columns[column] });
const own = async (board: SprintBoard, card: string, person = board.member) =>
	command(board.lead, 'AssignCard', { ...(await seen(db, card))[0], owners: [person.id] });

describe('what the rounds find in the tables', () => {
	test('a card is quiet until anything at all happens to it, a word in its talk too', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		await own(board, board.cards[0]!);
		await move(board, board.cards[0]!, 'Making');
		await at('2026-11-26T15:00:00Z', async () => assert.equal((await kinds(board, 'quiet')).length, 0));
		await at(FRIDAY, async () => {
			assert.deepEqual((await kinds(board, 'quiet'))[0]!.cards, [1]);
			await command(board.viewer, 'CommentCard', { card: board.cards[0], text: 'How is it going?' });
			assert.equal((await kinds(board, 'quiet')).length, 0);
		});
	});

	test('who looked while dates were switched off leaves no dates to who looks after that', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		await command(board.lead, 'AddCards', {
			board: board.id,
			cards: [{ title: 'With a date', due: '2026-11-20' }],
		});
		const before = await boardHead(board.lead, board.slug);
		await command(board.lead, 'ChangeBoard', { board: board.id, off: ['dates'] });
		assert.ok((await roundsPage(before, board.lead)).cards.some(({ due }) => due !== null));
		assert.ok((await rounds(board)).cards.every(({ due }) => due === null));
	});

	test('whoever has no card in hand since yesterday has nothing to do, on a day on which they work', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		await own(board, board.cards[0]!);
		await move(board, board.cards[0]!, 'Making');
		await at('2026-11-24T10:00:00Z', () => move(board, board.cards[0]!, 'Done'));
		const idle = () => kinds(board, 'nothing-to-do');
		await at('2026-11-24T15:00:00Z', async () =>
			assert.ok(!(await idle()).some((one) => one.person === board.member.id)),
		);
		await at('2026-11-25T09:00:00Z', async () => {
			const found = (await idle()).find((one) => one.person === board.member.id)!;
			assert.match(found.sentence, /has 8 h today and no card in hand for 1 day\./);
		});
		await at('2026-11-28T09:00:00Z', async () =>
			assert.deepEqual(await idle(), [], 'nobody works on a Saturday'),
		);
	});

	test('a question is unanswered after a working day, until somebody answers it', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		const card = board.cards[0]!;
		const asked = await command(board.lead, 'CommentCard', {
			card,
			text: `@${board.member.name} is it mended?`,
		});
		assert.equal((await kinds(board, 'unanswered')).length, 0);
		await at('2026-11-24T09:00:00Z', async () => {
			const [found] = await kinds(board, 'unanswered');
			assert.match(
				found!.sentence,
				/^Lead \d+ asked Member \d+ 1 working day ago, and nobody has answered\.$/,
			);
			assert.deepEqual([found!.cards, found!.person], [[1], board.member.id]);
			await command(board.lead, 'CommentCard', { card, text: 'It is, I saw.', replyTo: asked.seq });
			assert.equal((await kinds(board, 'unanswered')).length, 1, 'whoever asks does not answer it');
			await command(board.viewer, 'CommentCard', { card, text: 'It is, I saw.', replyTo: asked.seq });
			assert.equal((await kinds(board, 'unanswered')).length, 0);
		});
	});

	test('a timer that was left on names whose it is, and a lead stops it', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		const [card] = board.cards as [string];
		await command(board.member, 'StartTimer', { card });
		await at('2026-11-23T22:00:00Z', async () =>
			assert.equal((await kinds(board, 'timer-left-on')).length, 0),
		);
		await at('2026-11-24T08:00:00Z', async () => {
			const [found] = await kinds(board, 'timer-left-on');
			assert.deepEqual([found!.person, found!.cards], [board.member.id, [1]]);
			await command(board.lead, 'StopTimer', { card, person: board.member.id, hours: 1.5 });
			assert.equal((await kinds(board, 'timer-left-on')).length, 0);
		});
	});

	test('surprises are set against what was kept back, carried cards count their carries', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		await db.query('update sprint set keep_back = 0.1, focus = 0.5 where board_id = $1 and number = 1', [
			board.id,
		]);
		const [{ kept }] = (
			await db.query(
				`select (select sum(value::numeric) from jsonb_each_text(raw_hours)) * 0.05 as kept from sprint where board_id = $1 and number = 1`,
				[board.id],
			)
		).rows;
		const made = await command(board.member, 'AddCard', {
			board: board.id,
			column: board.columns.Ready,
			title: 'Storm',
		});
		const storm = made.result.card as string;
		const size = async (hours: number) =>
			command(board.member, 'SizeCard', { ...(await seen(db, storm))[0], size: hours });
		await size(Math.floor(Number(kept)));
		assert.equal((await kinds(board, 'surprises-over')).length, 0, `${kept} h were kept back`);
		await size(Math.floor(Number(kept)) + 1);
		assert.equal((await kinds(board, 'surprises-over')).length, 1);

		for (const [number, closed, started] of [
			[1, '2026-12-04T16:00:00Z', '2026-12-07T08:00:00Z'],
			[2, '2026-12-18T16:00:00Z', '2026-12-21T08:00:00Z'],
		] as const) {
			await at(closed, async () => {
				const { rows } = await db.query<{ id: string }>(
					`select c.id from card c join sprint s on s.id = c.sprint_id and s.number = $2 where s.board_id = $1 order by c.number`,
					[board.id, number],
				);
				const sprint = (await boardHead(board.lead, board.slug)).sprints.find(
					(one) => one.number === number,
				)!;
				await command(board.lead, 'SettleSprint', {
					board: board.id,
					sprint: number,
					version: sprint.version,
					decisions: (await seen(db, ...rows.map(({ id }) => id))).map((one) => ({
						...one,
						decision: 'carry',
						reason: 'waiting',
					})),
				});
			});
			await at(started, async () => {
				await start(board, number + 1);
				assert.equal((await kinds(board, 'carried-again')).length, number === 1 ? 0 : 2);
			});
		}
	});

	test('what is put aside is back the next day; a viewer puts nothing aside, and a reason is needed', async () => {
		const board = await runningBoard(db, [['A', 8]]);
		await move(board, board.cards[0]!, 'Making');
		const [finding] = await kinds(board, 'no-owner');
		const aside = { board: board.id, finding: finding!.key, reason: 'Agreed tomorrow' };
		assert.equal((await refusal(command(board.viewer, 'DismissFinding', aside))).code, 'right.missing');
		await command(board.member, 'DismissFinding', aside);
		const page = await rounds(board);
		assert.ok(!page.findings.some((one) => one.key === finding!.key));
		assert.deepEqual(
			page.aside.map(({ key, reason, by }) => [key, reason, by]),
			[[finding!.key, 'Agreed tomorrow', board.member.name]],
		);
		await at('2026-11-24T09:00:00Z', async () => assert.equal((await kinds(board, 'no-owner')).length, 1));
		const { code } = await refusal(command(board.member, 'DismissFinding', { ...aside, reason: '  ' }));
		assert.equal(code, 'invalid.reason');
	});
});
