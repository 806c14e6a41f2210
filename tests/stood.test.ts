import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { CardView } from '../src/core/pages/board.ts';
import { boardCards } from '../src/lib/server/questions/board-cards.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { boardStood, momentAsked } from '../src/lib/server/questions/stood.ts';
import type { Person } from '../src/lib/server/sign-in.ts';
import { useDatabase } from './support/database.ts';
import { scene } from './support/scene.ts';
import { command, refusal } from './support/small-board.ts';
import { at, seen } from './support/sprint.ts';
import { within } from './support/within.ts';

const db = await useDatabase('empty');

const instant = (text: string | null) => text && new Date(text).toISOString();
/** Of a card what its history tells of; places within a column, and what it waits for, are not asked. */
const told = ({
	rank: _rank,
	version: _version,
	waits: _waits,
	picture: _picture,
	parts,
	...card
}: CardView) => ({
	...card,
	owners: [...card.owners].sort(),
	entered: instant(card.entered),
	started: instant(card.started),
	finished: instant(card.finished),
	blocked: card.blocked && { ...card.blocked, since: instant(card.blocked.since) },
	parts: parts && { ...parts },
	// What few cards have is left out of the others.
	review: card.review ?? null,
	percent: card.percent ?? null,
	watchers: card.watchers ?? null,
});
const byNumber = (cards: readonly CardView[]) => cards.map(told).sort((a, b) => a.number - b.number);

/** What is done to cards one after the other, an hour apart, by whoever may. */
const STEPS: [string, (id: string) => object | Promise<object>][] = [
	['RenameCard', () => ({ title: 'Another title' })],
	['MoveCard', async () => ({ column: 'Check' })],
	['SizeCard', () => ({ size: 13 })],
	['CorrectLeft', () => ({ left: 4, reason: 'Counted' })],
	['BlockCard', () => ({ reason: 'Part' })],
	['WaitFor', () => ({ waitingFor: 'the boat' })],
	['DateCard', () => ({ due: '2026-12-04', start: '2026-11-24' })],
	['AssignCard', () => ({ owners: ['lead'] })],
	['ReviewCard', () => ({ reviewer: 'lead', due: '2026-12-01' })],
	['PercentCard', () => ({ percent: 40 })],
	[
		'ChecklistCard',
		() => ({
			lines: [
				{ text: 'Call', done: true },
				{ text: 'Write', done: false },
			],
		}),
	],
	['UnblockCard', () => ({})],
	['ClassifyCard', () => ({ class: 'fixed' })],
	['SetField', () => ({ field: 'own', value: 4.5 })],
	['SetField', () => ({ field: 'own', value: null })],
	['DateCard', () => ({ due: null, start: null })],
	['AssignCard', () => ({ owners: ['member'] })],
	['MoveCard', () => ({ column: 'Done' })],
	['MoveCard', () => ({ column: 'Making' })],
	['MoveCard', () => ({ column: null })],
	['MoveCard', () => ({ column: 'Ready' })],
	['ArchiveCard', () => ({ reason: 'No' })],
	['RestoreCard', () => ({})],
];

describe('a board as it stood', () => {
	test('is at every moment as the board was shown then, whatever has happened since', async () => {
		const s = await scene(db);
		const { lead, member } = s.board;
		const own = await command(lead, 'AddField', { board: s.board.id, name: 'Depth', kind: 'number' });
		const ids: Record<string, string> = {
			...s.board.columns,
			lead: lead.id,
			member: member.id,
			own: own.result.field as string,
		};
		const named = (value: unknown): unknown =>
			Array.isArray(value) ? value.map(named) : typeof value === 'string' ? (ids[value] ?? value) : value;
		await db.query(`update board_column set wip_limit = null where board_id = $1`, [s.board.id]);
		const moments: { at: string; cards: CardView[] }[] = [];
		let hour = Date.parse('2026-11-23T15:00:00Z');
		const look = async (): Promise<void> => {
			const moment = new Date(hour).toISOString();
			const { cards } = await at(moment, () => boardCards(member, s.board.slug));
			moments.push({ at: moment, cards: structuredClone(cards) });
			hour += 3_600_000;
		};
		await look();
		for (const card of [s.working, s.lined])
			for (const [name, more] of STEPS) {
				const input = Object.fromEntries(
					Object.entries(await more(card)).map(([key, value]) => [
						key,
						key === 'lines' ? value : named(value),
					]),
				);
				await at(new Date(hour - 1_800_000).toISOString(), async () =>
					command(member, name, { ...(await seen(db, card))[0], ...input }),
				);
				await look();
			}
		// What is taken back was never so.
		await at(new Date(hour - 1_800_000).toISOString(), async () => {
			const renamed = await command(member, 'RenameCard', {
				...(await seen(db, s.lined))[0],
				title: 'Not so',
			});
			await command(member, 'UndoCommand', { of: renamed.id });
		});
		await look();
		await at(new Date(hour).toISOString(), async () => {
			const head = await boardHead(member, s.board.slug);
			for (const { at: moment, cards } of moments) {
				const then = await boardStood(head, Date.parse(moment));
				assert.deepEqual(byNumber(then.board.cards), byNumber(cards), moment);
			}
		});
	});

	test('says where its cards stand now, and that a column which is gone was there', async () => {
		const s = await scene(db);
		const before = Date.parse('2026-11-23T16:00:00Z');
		await at('2026-11-23T15:00:00Z', async () =>
			command(s.board.member, 'MoveCard', { ...(await seen(db, s.lined))[0], column: s.board.columns.Check }),
		);
		await at('2026-11-23T17:00:00Z', async () => {
			await command(s.board.lead, 'RetireColumn', {
				column: s.board.columns.Check,
				version: s.column,
				to: s.board.columns.Ready,
			});
			await command(s.board.member, 'ArchiveCard', { ...(await seen(db, s.working))[0], reason: 'No' });
			const head = await boardHead(s.board.member, s.board.slug);
			const then = await boardStood(head, before);
			assert.deepEqual(
				then.head.columns.map(({ name }) => name),
				['Ready', 'Making', 'Check', 'Done'],
			);
			assert.deepEqual(then.went, { [s.lined]: 'Ready', [s.working]: 'the archive' });
			assert.equal(then.head.role, 'viewer');
		});
	});

	test('a moment that has not been, and what is no moment, are refused in words', async () => {
		const s = await scene(db);
		const head = await boardHead(s.board.member, s.board.slug);
		const ask = (text: string) => refusal(Promise.resolve().then(() => momentAsked(head, text)));
		assert.equal((await ask('2027-01-01')).code, 'at.future');
		for (const text of ['yesterday', '2026-02-31', '20026-01-01', '2026-11-05T25:00'])
			assert.equal((await ask(text)).code, 'invalid.at', text);
		// Lisbon's clock in summer is an hour ahead.
		assert.equal(new Date(momentAsked(head, '2026-07-01T14:00')).toISOString(), '2026-07-01T13:00:00.000Z');
	});

	test('a private card that is not for somebody says nothing of its past either', async () => {
		const s = await scene(db);
		await at('2026-11-23T16:00:00Z', async () =>
			command(s.board.lead, 'PrivateCard', { ...(await seen(db, s.working))[0], private: true }),
		);
		const stood = async (person: Person) =>
			at('2026-11-23T17:00:00Z', async () =>
				boardStood(await boardHead(person, s.board.slug), Date.parse('2026-11-23T15:30:00Z')),
			);
		assert.ok(!JSON.stringify((await stood(s.board.member)).board).includes('Working'));
		assert.ok(JSON.stringify((await stood(s.board.lead)).board).includes('Working'));
	});

	test('of a hundred thousand events is told in under 300 ms', async () => {
		const s = await scene(db);
		const { Ready, Making, Check, Done } = s.board.columns;
		// 5,000 cards that each went through the columns in four days, one after the other every half hour.
		await db.query(
			`with card as (
				insert into card (board_id, number, title, column_id, rank, clock, entered_at, started_at, finished_at, created_at)
				select $1, 1000 + i, 'Card ' || i, $5, 'z' || lpad(i::text, 8, '0'), 'done', t + interval '4 days', t + interval '1 day',
					t + interval '4 days', t
				from (select i, timestamptz '2026-07-01' + i * interval '30 minutes' as t from generate_series(1, 5000) i) x
				returning id, number, created_at
			), stays as (
				insert into stay (card_id, column_id, entered_at, left_at)
				select id, (array[$2, $3, $4, $5]::uuid[])[n], created_at + n * interval '1 day',
					case when n < 4 then created_at + (n + 1) * interval '1 day' end
				from card, generate_series(1, 4) n
			)
			insert into event (board_id, seq, card_id, kind, at, value)
			select $1, 1000 + row_number() over (order by created_at, number, n), id,
				case when n = 0 then 'created' when n % 5 = 0 then 'column' else 'left' end,
				created_at + n * interval '288 minutes',
				case when n = 0 then 'Card' when n % 5 = 0 then (array['Ready', 'Making', 'Check', 'Done'])[n / 5] else n::text end
			from card, generate_series(0, 20) n`,
			[s.board.id, Ready, Making, Check, Done],
		);
		await db.query('update board set last_seq = 200000 where id = $1', [s.board.id]);
		await db.query('analyze');
		const head = await boardHead(s.board.member, s.board.slug);
		for (const moment of ['2026-08-15T12:00:00Z', '2026-09-15T12:00:00Z', '2026-10-01T12:00:00Z'])
			await within(300, 'ms', async () => {
				const began = performance.now();
				const { board } = await boardStood(head, Date.parse(moment));
				const took = performance.now() - began;
				assert.ok(board.cards.length > 100, `${board.cards.length} cards stood there`);
				return took;
			});
	});
});
