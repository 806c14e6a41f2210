import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { parse } from 'csv-parse/sync';
import { kindsOf, ACTIVITY_NAMES, GROUP_OF } from '../src/core/activity/groups.ts';
import { CARD_EVENTS } from '../src/core/events/card-events.ts';
import type { ActivityRow } from '../src/core/pages/activity.ts';
import { activityPage, activityRows } from '../src/lib/server/questions/activity.ts';
import { openSession, SESSION_COOKIE, type Person } from '../src/lib/server/sign-in.ts';
import { accessible, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { scene } from './support/scene.ts';
import { signIn, startServer } from './support/server.ts';
import { at } from './support/sprint.ts';
import { cardRow, command, refusal } from './support/small-board.ts';

const db = await useDatabase('demo');
const server = await startServer();

const asks = (asked: Record<string, string>) => (name: string) => asked[name] ?? null;
const page = (person: Person, asked: Record<string, string>) => activityPage(person, asks(asked));
const texts = (rows: ActivityRow[]) => rows.map(({ text, who }) => `${who?.name} ${text}`);
const on = async (person: Person, name: string, card: string, more: object) =>
	command(person, name, { card, version: (await cardRow(db, card)).version, ...more });

describe('what was done', () => {
	test('every kind of event is of one group, and every group has one', () => {
		assert.deepEqual(Object.keys(GROUP_OF).sort(), Object.keys(CARD_EVENTS).sort());
		for (const group of ACTIVITY_NAMES) if (group !== 'set') assert.ok(kindsOf(group).length, group);
	});

	test('stands in sentences by person, kind and board, and the counts are those of the rows behind them', async () => {
		const s = await scene(db);
		const { lead, member, slug } = s.board;
		await on(lead, 'SizeCard', s.loose, { size: 5 });
		await on(member, 'MoveCard', s.working, { column: s.board.columns.Check });
		await command(member, 'CommentCard', { card: s.lined, text: 'It is **dry** now.' });
		const all = await page(lead, { board: slug });
		const said = texts(all.rows);
		assert.ok(said.includes(`${member.name} moved it from Making to Check.`));
		assert.ok(said.includes(`${member.name} said: “It is dry now.”`));
		assert.ok(said.includes(`${lead.name} changed its size from 3 h to 5 h.`));
		assert.equal(all.total, all.rows.length);
		const sum = (list: { n: number }[]) => list.reduce((n, one) => n + one.n, 0);
		assert.deepEqual([sum(all.groups), sum(all.boards)], [all.total, all.total]);
		for (const { id, n } of all.people) {
			const own = await page(lead, { board: slug, person: id });
			assert.deepEqual([own.total, own.rows.length], [n, n]);
			assert.ok(own.rows.every(({ who }) => who?.id === id));
		}
		for (const { group, n } of all.groups) {
			const own = await page(lead, { board: slug, group });
			assert.deepEqual([own.total, new Set(own.rows.map((row) => row.group))], [n, new Set([group])]);
		}
	});

	test('tells nobody what they may not see, what was taken back, or what somebody said before', async () => {
		const s = await scene(db);
		const { lead, member, viewer, outsider, slug } = s.board;
		await on(lead, 'PrivateCard', s.loose, { private: true });
		await command(member, 'CommentCard', { card: s.lined, text: 'A first thought' });
		const { seq } = await command(member, 'CommentCard', { card: s.lined, text: 'A rash word' });
		await command(member, 'WithdrawComment', { card: s.lined, comment: seq });
		const other = await command(member, 'CommentCard', { card: s.lined, text: 'A wrong figure' });
		await command(member, 'ChangeComment', { card: s.lined, comment: other.seq, text: 'A right figure' });
		const renamed = await on(member, 'RenameCard', s.working, { title: 'For a moment' });
		await command(member, 'UndoCommand', { of: renamed.id });
		const seen = JSON.stringify((await page(viewer, { board: slug })).rows);
		for (const never of ['Loose', 'rash word', 'wrong figure', 'For a moment'])
			assert.ok(!seen.includes(never), never);
		for (const told of ['A first thought', 'A right figure', 'said something that was taken back'])
			assert.ok(seen.includes(told), told);
		const file = JSON.stringify((await activityRows(viewer, asks({ board: slug }))).rows);
		assert.ok(!file.includes('Loose') && !file.includes('rash word'));
		assert.deepEqual((await page(outsider, { board: slug })).total, 0);
		assert.ok(!(await page(outsider, {})).all.boards.some((board) => board.slug === slug));
	});

	test('pages go on where the last one ended, and days begin and end where the board is', async () => {
		const s = await scene(db);
		const { lead, slug } = s.board;
		for (let n = 0; n < 60; n++) await command(lead, 'CommentCard', { card: s.lined, text: `Word ${n}` });
		await on(lead, 'MoveCard', s.lined, { column: s.board.columns.Making });
		await command(lead, 'AddCards', {
			board: s.board.id,
			cards: Array.from({ length: 60 }, (_, n) => ({ title: `One ${n}` })),
		});
		const first = await page(lead, { board: slug });
		assert.equal(first.rows.length, 100);
		const found = [...first.rows];
		for (let next = first.next; next;) {
			const more = await page(lead, { board: slug, before: next });
			found.push(...more.rows);
			next = more.next;
		}
		const whole = (await activityRows(lead, asks({ board: slug }))).rows;
		assert.deepEqual(found, whole);
		assert.equal(found.length, first.total);
		// In summer it is an hour later in Lisbon than in UTC: 23:30 UTC is the next day.
		const [before, after] = [
			await page(lead, { board: slug, from: '2027-07-01', to: '2027-07-01' }),
			'2027-07-02',
		];
		await at('2027-07-01T23:30:00Z', () => command(lead, 'CommentCard', { card: s.lined, text: 'Late' }));
		assert.equal(
			(await page(lead, { board: slug, from: '2027-07-01', to: '2027-07-01' })).total,
			before.total,
		);
		assert.equal((await page(lead, { board: slug, from: after, to: after })).total, 1);
	});

	test('what is done to a whole team is told once, and of each of its boards where that is asked for', async () => {
		const { rows: people } = await db.query<Person>(
			`select id, name, initials, email, 'write' as scope from person where name = 'Ines Okoro'`,
		);
		const { rows: teams } = await db.query<{ id: string; name: string }>(
			`select id, name from team where name = 'Skerrow Observatory'`,
		);
		const [ines, team] = [people[0]!, teams[0]!];
		const day = { from: '2027-03-01', to: '2027-03-01' };
		await at('2027-03-01T10:00:00Z', () =>
			command(ines, 'SetHoliday', { team: team.id, day: '2027-12-30', holiday: true, name: 'Low water' }),
		);
		const all = await page(ines, { ...day, team: team.id });
		assert.deepEqual(
			all.rows.map(({ text, team: of }) => [text, of]),
			[['Thu 30 Dec 2027 is a holiday: Low water. Before: none.', team]],
		);
		assert.deepEqual(
			[all.total, ...all.people.map(({ n }) => n), ...all.groups.map(({ n }) => n)],
			[1, 1, 1],
		);
		assert.equal(all.boards.length, 3);
		for (const { slug, n } of all.boards) {
			const own = await page(ines, { ...day, board: slug });
			assert.deepEqual([n, own.total, own.rows.map(({ team: of }) => of)], [1, 1, [null]]);
		}
		assert.equal((await activityRows(ines, asks({ ...day, team: team.id }))).rows.length, 1);
	});

	test('what is asked wrongly is said in words', async () => {
		const { lead } = (await scene(db)).board;
		for (const [asked, field] of [
			[{ from: '2026-02-30' }, 'from'],
			[{ from: '2026-11-20', to: '2026-11-01' }, 'to'],
			[{ from: '2020-01-01' }, 'from'],
			[{ group: 'all' }, 'group'],
			[{ person: 'me' }, 'person'],
			[{ team: '1' }, 'team'],
			[{ before: 'x' }, 'before'],
		] as const)
			assert.equal((await refusal(page(lead, asked))).field, field);
	});

	test('by page and as a file that a spreadsheet runs nothing of', async () => {
		const s = await scene(db);
		await on(s.board.lead, 'RenameCard', s.loose, { title: '=cmd|x' });
		const cookie = `${SESSION_COOKIE}=${await openSession(s.board.lead.id)}`;
		const csv = await (
			await fetch(`${server.url}/activity/file?board=${s.board.slug}`, { headers: { cookie } })
		).text();
		const lines: string[][] = parse(csv);
		assert.deepEqual(lines[0], ['at', 'board', 'card', 'title', 'who', 'kind', 'what']);
		assert.ok(lines.some(([, , , title]) => title === "'=cmd|x"));
		const all: string[][] = parse(
			await (
				await fetch(`${server.url}/activity/file?from=2026-11-01&to=2026-11-23`, {
					headers: { cookie: await signIn(server.url, 'Ines Okoro') },
				})
			).text(),
		);
		const names = new Set(all.map(([, , , , who]) => who));
		assert.deepEqual([...names].filter((name) => name?.startsWith('Sam Pike')).sort(), [
			'Sam Pike (Boatman)',
			'Sam Pike (Schools)',
		]);

		const {
			page: open,
			context,
			quiet,
		} = await visit(server.url, 'Ines Okoro', '/activity?from=2026-11-01&to=2026-11-23');
		await accessible(open);
		await tidy(open);
		const whom = open.getByRole('region', { name: 'By whom' });
		for (const title of ['Boatman', 'Schools'])
			await whom.getByRole('link', { name: new RegExp(`^Sam Pike \\(${title}\\)`) }).waitFor();
		const petra = whom.getByRole('link', { name: /^Petra Lind/ });
		const n = Number(/\d+$/.exec(await petra.innerText())![0]);
		await petra.click();
		await open.getByText(`${n} things were done.`).waitFor();
		await open.getByLabel('Kind', { exact: true }).selectOption({ label: 'moved and blocked' });
		await open.waitForURL(/group=moved/);
		await open.getByRole('region', { name: 'Of which kind' }).getByRole('link').nth(0).waitFor();
		await open
			.getByRole('listitem')
			.filter({ hasText: /(TIDE|BUOY|SHORE)-\d+.*Petra Lind/ })
			.first()
			.waitFor();
		await open.setViewportSize({ width: 360, height: 740 });
		await accessible(open);
		quiet();
		await context.close();
	});
});
