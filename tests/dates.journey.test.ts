import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { accessible, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';
import { command } from './support/small-board.ts';
import { seen } from './support/sprint.ts';
import type { Person } from '../src/lib/server/sign-in.ts';

const db = await useDatabase('demo');
const server = await startServer();
const BOARD = '/boards/tidewatch';

/** Two cards lined up on the board, the first blocking the second, which blocks one of the yard. */
async function chain(): Promise<{ first: number; second: number; third: string; ids: string[] }> {
	const { rows } = await db.query<{ id: string; number: number; key: string }>(
		`(select c.id, c.number, b.key from card c join board b on b.id = c.board_id and b.key = 'TIDE'
			where c.archived_at is null and c.clock = 'none' and not exists (select from card_link l where c.id in (l.from_id, l.to_id))
			order by c.number limit 2)
		union all
		(select c.id, c.number, b.key from card c join board b on b.id = c.board_id and b.key in ('BUOY', 'SHORE')
			where c.archived_at is null and c.clock = 'none' and not exists (select from card_link l where c.id in (l.from_id, l.to_id))
			order by b.key, c.number limit 1)`,
	);
	assert.equal(rows.length, 3);
	const third = `${rows[2]!.key}-${rows[2]!.number}`;
	const ids = rows.map(({ id }) => id);
	const { rows: people } = await db.query<Person>(
		`select id, name, initials, email, 'write' as scope from person where name in ('Ines Okoro', 'Mara Coyle', 'Oskar Venn') order by name`,
	);
	const now = async (id: string) => (await seen(db, id))[0]!;
	const given = [
		['2026-11-25', '2026-11-25'],
		['2026-11-26', '2026-11-27'],
		['2026-11-30', '2026-11-30'],
	];
	for (const [i, [start, due]] of given.entries())
		await command(people[i < 2 ? 0 : rows[2]!.key === 'BUOY' ? 2 : 1]!, 'DateCard', {
			...(await now(ids[i]!)),
			start,
			due,
		});
	for (const [i, to] of [`TIDE-${rows[1]!.number}`, third].entries())
		await command(people[0]!, 'LinkCard', { ...(await now(ids[i]!)), kind: 'blocks', to });
	return { first: rows[0]!.number, second: rows[1]!.number, third, ids };
}
const dates = async (ids: string[]) =>
	(
		await db.query<{ dates: string }>(
			`select c.start || ' ' || c.due as dates from unnest($1::uuid[]) with ordinality n(id, i) join card c on c.id = n.id order by i`,
			[ids],
		)
	).rows.map(({ dates: said }) => said);

describe('dates that follow', () => {
	test('are shown before they move, moved over two boards, and taken back', async () => {
		const { first, second, third, ids } = await chain();
		const before = await dates(ids);
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}?card=${first}`);
		const panel = page.getByRole('complementary', { name: `Card TIDE-${first}` });
		await panel.getByLabel('Due', { exact: true }).fill('27 nov');
		await page.keyboard.press('Tab');
		const dialog = page.getByRole('dialog', { name: `Card ${first} moves 2 others` });
		await dialog.getByText(`TIDE-${second}`).first().waitFor();
		await dialog.getByRole('listitem').filter({ hasText: third }).getByText(`after TIDE-${second}`).waitFor();
		await accessible(page);
		// Left alone, nothing has happened.
		await dialog.getByRole('button', { name: 'Leave it' }).click();
		await dialog.waitFor({ state: 'detached' });
		assert.deepEqual(await dates(ids), before);

		await panel.getByLabel('Due', { exact: true }).fill('27 nov');
		await page.keyboard.press('Tab');
		await Promise.all([
			page.waitForResponse('**/api/commands'),
			dialog.getByRole('button', { name: 'Move all 3' }).click(),
		]);
		await page.getByText(`Card ${first} is moved, and 2 cards with it.`).first().waitFor();
		assert.deepEqual(await dates(ids), [
			'2026-11-25 2026-11-27',
			'2026-11-30 2026-12-01',
			'2026-12-02 2026-12-02',
		]);
		await Promise.all([
			page.waitForResponse('**/api/commands'),
			page.getByRole('button', { name: 'Take it back' }).click(),
		]);
		await page.getByText('Taken back.').first().waitFor();
		assert.deepEqual(await dates(ids), before);
		quiet();
		await context.close();

		// The same by finger, this card only.
		const phone = await visit(server.url, 'Bram Tolver', `${BOARD}?card=${first}`, {
			...{ width: 360, height: 740, touch: true, dark: true },
		});
		await phone.page.getByLabel('Due', { exact: true }).fill('27 nov');
		await phone.page.keyboard.press('Tab');
		const asked = phone.page.getByRole('dialog');
		await asked.getByText(third).waitFor();
		await accessible(phone.page);
		await Promise.all([
			phone.page.waitForResponse('**/api/commands'),
			asked.getByRole('button', { name: 'Only this one' }).tap(),
		]);
		await asked.waitFor({ state: 'detached' });
		assert.deepEqual((await dates(ids)).slice(1), before.slice(1));
		phone.quiet();
		await phone.context.close();
	});

	test('of several cards by any field are shown before too, and moved together or alone', async () => {
		const { third, ids } = await chain();
		const { rows } = await db.query<{ id: string; waits: boolean }>(
			`select o.id, o.column_id is null as waits from card c
			join card o on o.board_id = c.board_id and (o.column_id is null) = (c.column_id is null)
			where c.id = $1 and o.id <> all($2) and o.archived_at is null and o.clock = 'none'
				and not exists (select from card_link l where o.id in (l.from_id, l.to_id)) order by o.rank limit 1`,
			[ids[0], ids],
		);
		const [{ id: other, waits }] = rows as [{ id: string; waits: boolean }];
		const { page, context, quiet } = await visit(
			server.url,
			'Ines Okoro',
			waits ? `${BOARD}/backlog` : BOARD,
		);
		for (const id of [ids[0], other]) {
			await page.locator(`li[data-card="${id}"] a`).first().focus();
			await page.keyboard.press('p');
		}
		await page
			.getByRole('group', { name: 'What to do with the picked cards' })
			.getByRole('button', { name: 'Any field' })
			.click();
		const change = page.getByRole('dialog', { name: 'Change 2 cards' });
		await change.getByLabel('Is from now on').fill('27 nov');
		await change.getByRole('button', { name: 'Change 2 cards' }).click();
		const dialog = page.getByRole('dialog', { name: '2 cards move 2 others' });
		await dialog.getByRole('listitem').filter({ hasText: third }).waitFor();
		await accessible(page);
		await Promise.all([
			page.waitForResponse('**/api/commands'),
			dialog.getByRole('button', { name: 'Move all 4' }).click(),
		]);
		await page.getByText('2 cards are moved, and 2 cards with them.').first().waitFor();
		assert.deepEqual((await dates(ids)).slice(1), ['2026-11-30 2026-12-01', '2026-12-02 2026-12-02']);
		quiet();
		await context.close();
	});

	test('of an initiative are shifted from a day on, as shown before', async () => {
		const { rows } = await db.query<{ id: string; number: number; name: string; due: string }>(
			`select c.id, c.number, i.name, c.due::text from card c join initiative i on i.id = c.initiative_id
			join board b on b.id = c.board_id and b.key = 'TIDE'
			where c.archived_at is null and c.clock = 'none' and not exists (select from card_link l where c.id in (l.from_id, l.to_id))
			order by c.number desc limit 1`,
		);
		const { id, number, name } = rows[0]!;
		const { rows: people } = await db.query<Person>(
			`select id, name, initials, email, 'write' as scope from person where name = 'Ines Okoro'`,
		);
		await command(people[0]!, 'DateCard', {
			...(await seen(db, id))[0]!,
			start: '2027-02-01',
			due: '2027-02-02',
		});
		const { page, context, quiet } = await visit(
			server.url,
			'Ines Okoro',
			`${BOARD}/initiatives/${encodeURIComponent(name)}`,
		);
		await page.getByRole('button', { name: 'Shift its dates' }).click();
		const dialog = page.getByRole('dialog', { name: `Shift the dates of ${name}` });
		await dialog.getByLabel('All that begins from').last().fill('1 feb 2027');
		await page.keyboard.press('Tab');
		await dialog.getByLabel('By so many working days').fill('-3');
		await dialog
			.getByRole('listitem')
			.filter({ hasText: `TIDE-${number}` })
			.getByText('Wed 27 Jan')
			.waitFor();
		await accessible(page);
		await Promise.all([
			page.waitForResponse('**/api/commands'),
			dialog.getByRole('button', { name: 'Move 1 card' }).click(),
		]);
		await dialog.waitFor({ state: 'detached' });
		assert.deepEqual(await dates([id]), ['2027-01-27 2027-01-28']);
		quiet();
		await context.close();
	});
});
