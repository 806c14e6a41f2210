import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Locator, Page } from 'playwright-core';
import { accessible, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import type { Person } from '../src/lib/server/sign-in.ts';
import { startServer } from './support/server.ts';
import { command } from './support/small-board.ts';

const db = await useDatabase('demo');
const server = await startServer();
const BOARD = '/boards/tidewatch';

const column = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const cards = (within: Locator) => within.locator('li[data-card] a');
const spoken = (page: Page) => page.getByRole('status').first();
const numberOf = async (card: Locator) => /^\d+/.exec((await card.innerText()).trim())![0];

/** Drags a card with the mouse to the middle of something. */
async function drag(page: Page, card: Locator, to: Locator): Promise<void> {
	const [a, b] = [(await card.boundingBox())!, (await to.boundingBox())!];
	await page.mouse.move(a.x + 40, a.y + 20);
	await page.mouse.down();
	await page.mouse.move(a.x + 60, a.y + 30, { steps: 3 });
	await page.mouse.move(b.x + b.width / 2, b.y + Math.min(b.height - 10, 140), { steps: 8 });
	await page.mouse.up();
}

describe('a lead works the board', () => {
	test('moves a card with the mouse, sees it confirmed, and takes it back', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		await accessible(page);
		await tidy(page);
		const card = cards(column(page, 'Field trial')).first();
		const number = await numberOf(card);
		await drag(page, card, column(page, 'Live'));
		const finished = column(page, 'Live').getByRole('link', { name: new RegExp(`^${number} `) });
		await finished.waitFor();
		await spoken(page)
			.filter({ hasText: `Card ${number} is finished.` })
			.waitFor();
		assert.equal(
			(
				await db.query(
					`select clock from card c join board b on b.id = c.board_id where b.key = 'TIDE' and c.number = $1`,
					[number],
				)
			).rows[0].clock,
			'done',
		);
		await page.keyboard.press('Control+z');
		await column(page, 'Field trial')
			.getByRole('link', { name: new RegExp(`^${number}`) })
			.waitFor();
		assert.equal(await finished.count(), 0);
		quiet();
		await context.close();
	});

	test('moves a card with the keyboard alone, within its column and on to the next, and hears where it is', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		const lined = column(page, 'Lined up');
		const before = await cards(lined).allInnerTexts();
		const number = await numberOf(cards(lined).first());
		await cards(lined).first().focus();
		await page.keyboard.press('Shift+ArrowDown');
		await spoken(page)
			.filter({ hasText: `Card ${number} is in Lined up, position 2` })
			.waitFor();
		assert.equal(
			await page.evaluate(() => document.activeElement!.textContent!.trim().match(/^\d+/)![0]),
			number,
			'the focus goes with the card',
		);
		await page.keyboard.press('ArrowUp');
		assert.notEqual(
			await page.evaluate(() => document.activeElement!.textContent!.trim().match(/^\d+/)![0]),
			number,
		);
		await page.keyboard.press('ArrowDown');
		await page.keyboard.press('Shift+ArrowUp');
		await spoken(page).filter({ hasText: 'position 1' }).waitFor();
		assert.deepEqual(await cards(lined).allInnerTexts(), before);
		await page.keyboard.press('Shift+ArrowRight');
		await spoken(page)
			.filter({ hasText: `Card ${number} is in Building` })
			.or(page.getByRole('dialog'))
			.first()
			.waitFor();
		quiet(/409/);
		await context.close();
	});

	test('is held by a full column until a reason is given, which is kept and shown', async () => {
		await db.query(
			`update board_column set wip_limit = (select count(*) from card c where c.column_id = board_column.id and c.archived_at is null) where name = 'Building'`,
		);
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		const card = cards(column(page, 'Lined up')).first();
		const number = await numberOf(card);
		await drag(page, card, column(page, 'Building'));
		const dialog = page.getByRole('dialog', { name: 'Let it through?' });
		await dialog.getByText(/^Building is full \((\d) of \1\)\. Finish or move a card first/).waitFor();
		await accessible(page);
		await column(page, 'Lined up')
			.getByRole('link', { name: new RegExp(`^${number}`) })
			.waitFor();
		await dialog.getByRole('button', { name: 'Let it through' }).click();
		await dialog.getByText('Give a reason').waitFor();
		await dialog.getByRole('textbox').fill('Storm repair');
		await dialog.getByRole('button', { name: 'Let it through' }).click();
		await column(page, 'Building').getByText('let through: Storm repair').waitFor();
		await column(page, 'Building')
			.getByRole('img', { name: /slots taken, 1 over/ })
			.waitFor();
		await page.getByRole('heading', { level: 1 }).getByText('Building 1 over').waitFor();
		quiet(/409/);
		await context.close();
	});

	test('is told, but not held, by a limit that advises', async () => {
		await db.query(
			`update board_column set wip_limit = 1 where name = 'Field trial' and board_id = (select id from board where key = 'TIDE')`,
		);
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		// From where no limit holds: taking it back asks for no reason.
		await drag(page, cards(column(page, 'Lined up')).last(), column(page, 'Field trial'));
		await page
			.getByRole('presentation')
			.getByText(/Field trial is now over its limit \(\d of 1\)/)
			.waitFor();
		await page.getByRole('button', { name: 'Take it back' }).click();
		await spoken(page).filter({ hasText: 'Taken back.' }).waitFor();
		quiet();
		await context.close();
	});

	test('blocks a card and unblocks it, sizes it, gives it to someone, renames it, adds one', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		const lined = column(page, 'Lined up');
		const number = await numberOf(cards(lined).first());
		const card = lined.getByRole('link', { name: new RegExp(`^${number}`) });
		await card.focus();
		await page.keyboard.press('b');
		await page.getByRole('dialog').getByRole('textbox').fill('Part on order');
		await page.keyboard.press('Enter');
		await card.getByText('Part on order, 1 day').waitFor();
		await page.getByRole('dialog').waitFor({ state: 'detached' });
		await page.getByRole('button', { name: /\d blocked/ }).click();
		assert.ok(
			(await column(page, 'Lined up').locator('li[data-card]').count()) === 1,
			'the sentence leads to the blocked cards',
		);
		await page.getByRole('button', { name: 'Show all' }).click();
		await card.focus();
		await page.keyboard.press('b');
		await card.getByText('Part on order').waitFor({ state: 'detached' });

		await page.keyboard.press('s');
		await page.getByLabel('Size in hours').fill('7.5');
		await page.keyboard.press('Enter');
		await card.getByText('7.5 h').waitFor();

		await page.getByRole('dialog').waitFor({ state: 'detached' });
		await card.focus();
		await page.keyboard.press('o');
		await page.getByRole('dialog').getByText('Tomas Reyl').click();
		await page.getByRole('button', { name: /^Give it to/ }).click();
		await card.getByText('Tomas Reyl').waitFor();
		await page.getByRole('dialog').waitFor({ state: 'detached' });

		await card.focus();
		await page.keyboard.press('t');
		await page.getByLabel(`Title of card ${number}`).fill('A better title');
		await page.keyboard.press('Enter');
		await card.getByText('A better title').waitFor();
		await card.dblclick();
		await page.getByLabel(`Title of card ${number}`).fill('By the mouse');
		await page.getByLabel(`Title of card ${number}`).press('Enter');
		await card.getByText('By the mouse').waitFor();
		assert.equal(await page.getByRole('complementary').count(), 0, 'two clicks rename it and open nothing');

		await card.focus();
		await page.keyboard.press('n');
		await page.getByLabel('Title of the new card').fill('Added below');
		await page.keyboard.press('Enter');
		await lined.getByText('Added below').waitFor();
		await page.keyboard.press('Escape');
		const texts = await cards(lined).allInnerTexts();
		assert.match(texts[1]!, /Added below/);
		quiet();
		await context.close();
	});

	test('holds with a finger a card that somebody else moves meanwhile, and lets go of it as of any other', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD, {
			width: 390,
			height: 780,
			touch: true,
		});
		const lined = column(page, 'Lined up');
		const card = lined.locator('li[data-card]').first();
		const id = (await card.getAttribute('data-card'))!;
		const here = lined.locator(`[data-card="${id}"]`);
		const fingers = await context.newCDPSession(page);
		const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x = 0, y = 0) =>
			fingers.send('Input.dispatchTouchEvent', { type, touchPoints: type === 'touchEnd' ? [] : [{ x, y }] });
		const take = async () => {
			const grip = (await here.locator('.grip').boundingBox())!;
			const [x, y] = [grip.x + grip.width - 10, grip.y + grip.height - 10];
			await touch('touchStart', x, y);
			for (const by of [8, 16, 24]) await touch('touchMove', x - by, y + by);
			await page.locator('.ghost').waitFor();
			return [x - 24, y + 24] as const;
		};
		const [x, y] = await take();
		const { rows } = await db.query<{ person: Person; version: number; lined: string; review: string }>(
			`select (select json_build_object('id', p.id, 'name', p.name, 'initials', p.initials, 'email', p.email, 'scope', 'write')
				from person p where p.name = 'Bram Tolver') as person, c.version, c.column_id as lined,
				(select id from board_column k where k.board_id = c.board_id and k.name = 'Review') as review
			from card c where c.id = $1`,
			[id],
		);
		const { person, version, lined: from, review } = rows[0]!;
		await command(person, 'MoveCard', { card: id, version, column: review });
		await here.waitFor({ state: 'detached' });
		await touch('touchMove', x - 4, y + 4);
		const answered = page.waitForResponse('**/api/commands');
		await touch('touchEnd');
		await page.locator('.ghost').waitFor({ state: 'detached' });
		// It goes where it was let go, and the next one is held as before.
		await answered;
		await here.waitFor();
		const after = await db.query(`select column_id from card where id = $1`, [id]);
		assert.equal(after.rows[0].column_id, from);
		await take();
		await touch('touchEnd');
		await page.locator('.ghost').waitFor({ state: 'detached' });
		quiet();
		await context.close();
	});

	test('sees in one window what is done in another, within a second', async () => {
		const [mine, theirs] = [
			await visit(server.url, 'Ines Okoro', BOARD),
			await visit(server.url, 'Bram Tolver', BOARD),
		];
		const title = `Seen from afar`;
		await column(theirs.page, 'Lined up').getByRole('button', { name: 'Add a card' }).click();
		await theirs.page.getByLabel('Title of the new card').fill(title);
		const began = performance.now();
		await theirs.page.keyboard.press('Enter');
		await column(mine.page, 'Lined up').getByText(title).waitFor();
		assert.ok(performance.now() - began < 1000);
		await theirs.page.keyboard.press('Escape');

		// Both move it: whoever is later is told, and their card goes to where it really is.
		const [here, there] = [mine, theirs].map(({ page }) =>
			column(page, 'Lined up').getByRole('link', { name: new RegExp(title) }),
		) as [Locator, Locator];
		await theirs.context.setOffline(true);
		await there.focus();
		await theirs.page.keyboard.press('Shift+ArrowUp');
		await theirs.page.getByText('Not connected. What you change is kept here').waitFor();
		await here.focus();
		await mine.page.keyboard.press('t');
		await mine.page.getByRole('textbox', { name: /^Title of card/ }).fill('Renamed meanwhile');
		await mine.page.keyboard.press('Enter');
		await column(mine.page, 'Lined up').getByText('Renamed meanwhile').waitFor();
		await theirs.context.setOffline(false);
		await column(theirs.page, 'Lined up').getByText('Renamed meanwhile').waitFor({ timeout: 20_000 });
		await theirs.page
			.getByRole('presentation')
			.getByText(/^Ines Okoro changed card \d+ after you last saw it/)
			.waitFor({ timeout: 20_000 });
		mine.quiet();
		theirs.quiet(/409|ERR_INTERNET_DISCONNECTED|network|Failed to fetch/i);
		await Promise.all([mine.context.close(), theirs.context.close()]);
	});
});

test('of a long list of what is done the first are drawn, and the rest as somebody comes to them', async () => {
	const { rows } = await db.query<{ board: string; done: string; person: Person }>(
		`select b.id as board, k.id as done, json_build_object('id', p.id, 'name', p.name, 'initials', p.initials, 'email', p.email, 'scope', 'write') as person
		from board b join board_column k on k.board_id = b.id and k.name = 'Live', person p
		where b.key = 'TIDE' and p.name = 'Ines Okoro'`,
	);
	const { board, done, person } = rows[0]!;
	const titles = Array.from({ length: 120 }, (_, i) => ({ title: `Buoy ${i + 1} is painted` }));
	const { result } = await command(person, 'AddCards', { board, cards: titles });
	const made = (result as { cards: { id: string }[] }).cards;
	await command(person, 'MoveCards', {
		board,
		column: done,
		cards: made.map(({ id }) => ({ card: id, version: 1 })),
	});
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
	const live = column(page, 'Live');
	const all = await db.query(
		`select c.number from card c where c.board_id = $1 and c.column_id = $2 and c.title like 'Buoy % is painted'`,
		[board, done],
	);
	assert.equal(all.rowCount, 120);
	assert.equal(await cards(live).count(), 60);
	await live
		.getByText(/\d+ this sprint|\d+ in two weeks/)
		.first()
		.waitFor();
	await live.getByRole('group').evaluate((body) => body.scrollTo(0, body.scrollHeight));
	await cards(live).nth(110).waitFor();
	await accessible(page);
	// By keyboard too: the last of them is come to though it was not drawn.
	await page.reload();
	await cards(live).first().focus();
	await page.keyboard.press('End');
	await live.locator('a:focus').and(cards(live).last()).waitFor();
	assert.ok((await cards(live).count()) > 120);
	quiet();
	await context.close();
});
