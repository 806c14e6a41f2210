import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { DatesPage } from '../src/core/pages/dates.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { datesPage, shiftPage, teamDates } from '../src/lib/server/questions/dates.ts';
import type { Person } from '../src/lib/server/sign-in.ts';
import { useDatabase } from './support/database.ts';
import { scene, type Scene } from './support/scene.ts';
import { command, refusal, smallBoard } from './support/small-board.ts';
import { seen } from './support/sprint.ts';
import { within } from './support/within.ts';

const db = await useDatabase('empty');

interface Chain extends Scene {
	/** The card in the backlog (due on Wednesday), what it blocks on this board (two days), and what that blocks on another. */
	keys: [string, string, string];
	cards: [string, string, string];
	yard: string;
}

const one = async (id: string) => (await seen(db, id))[0]!;
const given = async (id: string, start: string | null, due: string | null) => ({
	...(await one(id)),
	start,
	due,
});
async function link(person: Person, from: string, to: string): Promise<void> {
	await command(person, 'LinkCard', { ...(await one(from)), kind: 'blocks', to });
}

/** Three cards over two boards of a team, each blocking the next. */
async function chain(): Promise<Chain> {
	const s = await scene(db);
	const { lead, team, id: board, key } = s.board;
	const { result } = await command(lead, 'MakeBoard', {
		...{ team, name: `Yard ${key}`, key: `Y${key}`, unit: 'hours', sprintDays: null },
	});
	const add = async (of: string, title: string, start: string, due: string): Promise<[string, number]> => {
		await command(lead, 'AddCards', { board: of, cards: [{ title, start, due }] });
		const { rows } = await db.query<{ id: string; number: number }>(
			'select id, number from card where board_id = $1 and title = $2',
			[of, title],
		);
		return [rows[0]!.id, rows[0]!.number];
	};
	const first = await db.query<{ number: number }>('select number from card where id = $1', [s.loose]);
	await command(lead, 'DateCard', { ...(await one(s.loose)), due: '2026-11-25' });
	const [second, n] = await add(board, 'Hoisted', '2026-11-26', '2026-11-27');
	const [third, m] = await add(result.board as string, 'Painted', '2026-11-30', '2026-11-30');
	await link(lead, s.loose, `${key}-${n}`);
	await link(lead, second, `Y${key}-${m}`);
	return {
		...s,
		keys: [`${key}-${first.rows[0]!.number}`, `${key}-${n}`, `Y${key}-${m}`],
		cards: [s.loose, second, third],
		yard: result.board as string,
	};
}
const preview = (person: Person, key: string, dates: Record<string, string>): Promise<DatesPage> =>
	datesPage(person, key, (name) => dates[name] ?? null);
const datesOf = async (ids: readonly string[]) => {
	const { rows } = await db.query<{ id: string; start: string | null; due: string | null }>(
		'select id, start::text, due::text from card where id = any($1)',
		[ids],
	);
	return ids.map((id) => {
		const { start, due } = rows.find((row) => row.id === id)!;
		return [start, due];
	});
};
const followers = ({ moved }: DatesPage) => moved.map(({ card, version, to }) => ({ card, version, ...to }));

describe('moving the dates of a card', () => {
	test('is shown before with all that moves along over two boards, done in one step, and taken back in one', async () => {
		const c = await chain();
		const { member, team } = c.board;
		const shown = await preview(member, c.keys[0], { due: '2026-11-27' });
		assert.deepEqual(
			shown.moved.map(({ key, from, to, after }) => [key, from, to, after]),
			[
				[
					c.keys[1],
					{ start: '2026-11-26', due: '2026-11-27' },
					{ start: '2026-11-30', due: '2026-12-01' },
					c.keys[0],
				],
				[
					c.keys[2],
					{ start: '2026-11-30', due: '2026-11-30' },
					{ start: '2026-12-02', due: '2026-12-02' },
					c.keys[1],
				],
			],
		);
		assert.deepEqual(shown.conflicts, []);
		const done = await command(member, 'MoveDates', {
			team,
			cards: [await given(c.cards[0], null, '2026-11-27')],
			followers: followers(shown),
		});
		assert.deepEqual(done.result, { moved: 2 });
		assert.deepEqual(await datesOf(c.cards), [
			[null, '2026-11-27'],
			['2026-11-30', '2026-12-01'],
			['2026-12-02', '2026-12-02'],
		]);
		assert.deepEqual((await preview(member, c.keys[0], { due: '2026-11-27' })).moved, [], 'once is enough');
		const told = await db.query(
			`select value from event where card_id = $1 and kind in ('start', 'due') order by seq desc limit 2`,
			[c.cards[2]],
		);
		assert.deepEqual(
			told.rows.map(({ value }) => value),
			['2026-12-02', '2026-12-02'],
		);
		await command(member, 'UndoCommand', { of: done.id });
		assert.deepEqual(await datesOf(c.cards), [
			[null, '2026-11-25'],
			['2026-11-26', '2026-11-27'],
			['2026-11-30', '2026-11-30'],
		]);
		const counts = await db.query(
			`select count(*)::int as n from event e where e.card_id = $1 and e.kind in ('start', 'due')
				and e.command_id = $2 and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)`,
			[c.cards[2], done.id],
		);
		assert.equal(counts.rows[0].n, 0);
	});

	test('of several cards at once is shown as it is done; what is no list of cards that one may see is refused', async () => {
		const c = await chain();
		const { lead, member, viewer, team } = c.board;
		const both = [
			{ card: c.cards[0], start: null, due: '2026-11-27' },
			{ card: c.lined, start: null, due: '2026-12-01' },
		];
		const shown = await teamDates(member, team, both);
		assert.deepEqual(
			shown.moved.map(({ key }) => key),
			c.keys.slice(1),
		);
		const cards = await Promise.all(both.map(async (card) => ({ ...(await one(card.card)), ...card })));
		await command(member, 'MoveDates', { team, cards, followers: followers(shown) });
		assert.deepEqual((await datesOf(c.cards))[2], ['2026-12-02', '2026-12-02']);
		// A follower that is moved by hand too stays where it was put, and that is said.
		const byHand = await teamDates(member, team, [
			{ card: c.cards[0], start: null, due: '2026-12-04' },
			{ card: c.cards[1], start: '2026-12-01', due: '2026-12-01' },
		]);
		assert.deepEqual(
			byHand.conflicts.map(({ key, why }) => [key, why]),
			[[c.keys[1], 'by-hand']],
		);
		const refused = (asked: Promise<unknown>, code: string) => assert.rejects(asked, { code });
		for (const wrong of [
			null,
			'all',
			[],
			{},
			[null],
			[{ card: 'TIDE-1', start: null, due: null }],
			[both[0], both[0]],
		])
			await refused(teamDates(member, team, wrong), 'invalid.cards');
		await refused(teamDates(member, team, [{ ...both[0], due: 'soon' }]), 'invalid.due');
		await refused(teamDates(member, team, [{ ...both[0], due: 7 }]), 'invalid.due');
		await refused(teamDates(member, team, [{ ...both[0], start: '2026-12-09' }]), 'invalid.due');
		const stranger = await smallBoard(db);
		await refused(teamDates(stranger.lead, team, both), 'team.not_found');
		await refused(teamDates(stranger.lead, stranger.team, both), 'card.not_found');
		await command(lead, 'AssignCard', { ...(await one(c.lined)), owners: [lead.id] });
		await command(lead, 'PrivateCard', { ...(await one(c.lined)), private: true });
		await refused(teamDates(viewer, team, both), 'card.not_found');
	});

	test('goes by the working days of each team, over its holidays', async () => {
		const c = await chain();
		await command(c.board.lead, 'SetHoliday', {
			...{ team: c.board.team, day: '2026-11-30', name: 'Harbour day', holiday: true },
		});
		const { moved } = await preview(c.board.member, c.keys[0], { due: '2026-11-27' });
		assert.deepEqual(
			moved.map(({ to }) => to),
			[
				{ start: '2026-12-01', due: '2026-12-02' },
				{ start: '2026-12-03', due: '2026-12-03' },
			],
		);
	});

	test('what has begun stays and is named; what is not for somebody stays and is not named', async () => {
		const c = await chain();
		const { lead, member, columns } = c.board;
		await command(lead, 'MoveCard', { ...(await one(c.cards[1])), column: columns.Making });
		const begun = await preview(member, c.keys[0], { due: '2026-11-27' });
		assert.deepEqual(
			[begun.moved, begun.conflicts.map(({ key, after, why }) => [key, after, why])],
			[[], [[c.keys[1], c.keys[0], 'begun']]],
		);

		const d = await chain();
		await command(d.board.lead, 'PrivateCard', { ...(await one(d.cards[1])), private: true });
		const hidden = await preview(d.board.member, d.keys[0], { due: '2026-11-27' });
		assert.deepEqual(hidden.moved, []);
		assert.deepEqual(hidden.conflicts, [
			{ key: null, title: 'Something you may not see', after: d.keys[0], why: 'not-yours' },
		]);
		assert.ok(!JSON.stringify(hidden).includes('Hoisted'));
	});

	test('a blocker that is archived holds nobody up; reopened it does again', async () => {
		const c = await chain();
		await command(c.board.lead, 'ArchiveCard', { ...(await one(c.cards[1])), reason: 'Not needed' });
		const none = await preview(c.board.member, c.keys[2], { start: '2026-11-20', due: '2026-11-20' });
		assert.deepEqual(none.conflicts, []);
		await command(c.board.lead, 'RestoreCard', { ...(await one(c.cards[1])) });
		const again = await preview(c.board.member, c.keys[2], { start: '2026-11-20', due: '2026-11-20' });
		assert.deepEqual(
			again.conflicts.map(({ key, after, why }) => [key, after, why]),
			[[c.keys[2], c.keys[1], 'by-hand']],
		);
	});

	test('a sprint that is passed by a card on its list is named', async () => {
		const s = await scene(db);
		const { rows } = await db.query<{ number: number }>('select number from card where id = $1', [s.lined]);
		const { sprints } = await preview(s.board.member, `${s.board.key}-${rows[0]!.number}`, {
			due: '2027-03-01',
		});
		assert.equal(sprints.length, 1);
		assert.match(sprints[0]!.name, /^Sprint 1$/);
		assert.deepEqual(sprints[0]!.keys, [`${s.board.key}-${rows[0]!.number}`]);
	});

	test('two leads move the same chain at once: one of them does, the other is told, and nothing is half done', async () => {
		const c = await chain();
		const { lead, member, team } = c.board;
		const to = ['2026-11-27', '2026-12-04'];
		const sent = await Promise.all(
			to.map(async (due) => ({
				team,
				cards: [await given(c.cards[0], null, due)],
				followers: followers(await preview(lead, c.keys[0], { due })),
			})),
		);
		const done = await Promise.allSettled(
			[lead, member].map((person, i) => command(person, 'MoveDates', sent[i]!)),
		);
		const won = done.findIndex(({ status }) => status === 'fulfilled');
		const lost = done.filter(({ status }) => status === 'rejected') as PromiseRejectedResult[];
		assert.equal(lost.length, 1);
		assert.match(lost[0]!.reason.code, /^(dates|card)\.changed$/);
		assert.equal((await datesOf(c.cards))[0]![1], to[won]);
	});

	test('what moves along meanwhile is another, is refused, and nothing moves', async () => {
		const c = await chain();
		const { lead, member, team } = c.board;
		const shown = followers(await preview(member, c.keys[0], { due: '2026-11-27' }));
		await command(lead, 'UnlinkCard', { ...(await one(c.cards[1])), kind: 'blocks', to: c.keys[2] });
		const cards = [await given(c.cards[0], null, '2026-11-27')];
		const moved = refusal(command(member, 'MoveDates', { team, cards, followers: shown }));
		assert.equal((await moved).code, 'dates.changed');
		assert.equal((await datesOf(c.cards))[0]![1], '2026-11-25');
		const some = refusal(command(member, 'MoveDates', { team, cards, followers: [] }));
		assert.equal((await some).code, 'dates.changed');
		const wrong = refusal(
			command(member, 'MoveDates', { team, cards: [{ ...cards[0], due: '2026-02-30' }], followers: [] }),
		);
		assert.match((await wrong).code, /^invalid\.due$/);
		const twice = refusal(
			command(member, 'MoveDates', { team, cards: [cards[0]!, cards[0]!], followers: shown }),
		);
		assert.equal((await twice).code, 'invalid.cards');
		const unknown = { card: '00000000-0000-4000-8000-000000000000', version: 1, start: null, due: null };
		const none = refusal(command(member, 'MoveDates', { team, cards: [unknown], followers: [] }));
		assert.equal((await none).code, 'card.not_found');
		const viewer = refusal(command(c.board.viewer, 'MoveDates', { team, cards, followers: [] }));
		assert.equal((await viewer).code, 'right.missing');
		assert.equal((await refusal(preview(member, c.keys[0], { due: 'soon' }))).code, 'invalid.due');
		assert.equal((await refusal(preview(c.board.outsider, c.keys[0], {}))).code, 'card.not_found');
	});

	test('a loop over boards is named by what they are called', async () => {
		const c = await chain();
		const [, number] = c.keys[0].split('-');
		const loop = await refusal(
			command(c.board.lead, 'LinkCard', { ...(await one(c.cards[2])), kind: 'blocks', to: c.keys[0] }),
		);
		assert.equal(loop.code, 'link.loop');
		const [, third] = c.keys[2].split('-');
		assert.equal(
			loop.message,
			`That would be a loop: ${third} blocks ${c.board.key}-${number} blocks ${c.keys[1]} blocks ${third}.`,
		);
	});

	test('of a board, a sprint or an initiative from a day on is shifted in one step, what hangs on it along, and back', async () => {
		const c = await chain();
		const { lead, member, team, slug } = c.board;
		const head = await boardHead(member, slug);
		const shift = (asks: Record<string, string>) => shiftPage(head, member, (name) => asks[name] ?? null);
		const shown = await shift({ of: 'board', from: '2026-11-26', days: '3' });
		assert.deepEqual(
			shown.shifted.map(({ key, to }) => [key, to]),
			[[c.keys[1], { start: '2026-12-01', due: '2026-12-02' }]],
		);
		assert.deepEqual(
			shown.moved.map(({ key, to, after }) => [key, to, after]),
			[[c.keys[2], { start: '2026-12-03', due: '2026-12-03' }, c.keys[1]]],
		);
		const dated = (list: typeof shown.moved) =>
			list.map(({ card, version, to }) => ({ card, version, ...to }));
		const done = await command(member, 'MoveDates', {
			team,
			cards: dated(shown.shifted),
			followers: dated(shown.moved),
		});
		assert.deepEqual((await datesOf(c.cards)).slice(1), [
			['2026-12-01', '2026-12-02'],
			['2026-12-03', '2026-12-03'],
		]);
		await command(member, 'UndoCommand', { of: done.id });
		assert.deepEqual((await datesOf(c.cards)).slice(1), [
			['2026-11-26', '2026-11-27'],
			['2026-11-30', '2026-11-30'],
		]);
		await command(lead, 'ChangeCards', {
			...{ board: c.board.id, cards: [await one(c.cards[0])], initiative: 'Winter' },
		});
		const winter = await shift({ of: 'initiative', which: 'Winter', from: '2026-11-01', days: '-2' });
		assert.deepEqual(
			winter.shifted.map(({ key, to }) => [key, to]),
			[[c.keys[0], { start: null, due: '2026-11-23' }]],
		);
		assert.deepEqual(winter.moved, [], 'nothing is pulled');
		assert.deepEqual((await shift({ of: 'sprint', which: '1', from: '2026-11-01', days: '1' })).shifted, []);
		for (const [asks, code] of [
			[{ of: 'team', from: '2026-11-26', days: '3' }, 'invalid.of'],
			[{ of: 'board', from: 'soon', days: '3' }, 'invalid.from'],
			[{ of: 'board', days: '3' }, 'invalid.from'],
			[{ of: 'board', from: '2026-11-26', days: '0' }, 'invalid.days'],
			[{ of: 'board', from: '2026-11-26', days: '1.5' }, 'invalid.days'],
		] as [Record<string, string>, string][])
			assert.equal((await refusal(shift(asks))).code, code);
		// Of a team whose people have no working days nothing is moved.
		await db.query(`update working_week set hours = '{0,0,0,0,0,0,0}' where team_id = $1`, [team]);
		const none = await shift({ of: 'board', from: '2026-11-26', days: '3' });
		assert.deepEqual([none.shifted, none.stay], [[], 1]);
	});

	test('of a thousand cards among 5,000 with 8,000 links is told in under 200 ms', async () => {
		const s = await scene(db);
		const { member, team } = s.board;
		await db.query(
			`with made as (
				insert into card (board_id, number, title, rank, start, due, created_at)
				select $1, 5000 + i, 'Dated ' || i, 'y' || lpad(i::text, 8, '0'), date '2026-12-01' + (i % 1000) / 5 * 1, date '2026-12-02' + (i % 1000) / 5 * 1, now()
				from generate_series(0, 4999) i
				returning id, number - 5000 as i
			)
			insert into card_link (from_id, to_id, kind)
			select a.id, b.id, 'blocks' from made a join made b on b.i / 1000 = a.i / 1000 and b.i - a.i in (1, 7)
			where a.i % 5 <> 4 or b.i - a.i = 1
			limit 8000`,
			[s.board.id],
		);
		await db.query('analyze');
		await within(200, 'ms', async () => {
			const began = performance.now();
			const { moved } = await preview(member, `${s.board.key}-5000`, {
				start: '2026-12-07',
				due: '2026-12-08',
			});
			const took = performance.now() - began;
			assert.ok(moved.length > 900, `${moved.length} moved`);
			return took;
		});
		const shown = await preview(member, `${s.board.key}-5000`, { start: '2026-12-07', due: '2026-12-08' });
		const { rows } = await db.query<{ id: string }>(
			'select id from card where board_id = $1 and number = 5000',
			[s.board.id],
		);
		const cards = [await given(rows[0]!.id, '2026-12-07', '2026-12-08')];
		await command(member, 'MoveDates', { team, cards, followers: followers(shown) });
		assert.deepEqual(
			(await preview(member, `${s.board.key}-5000`, { start: '2026-12-07', due: '2026-12-08' })).moved,
			[],
		);
	});
});
