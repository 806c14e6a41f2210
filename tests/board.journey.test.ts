import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Locator, Page } from 'playwright-core';
import { accessible, awake, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';

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

	test('opens a card beside the board, by its own address too, and reads its history', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		const card = cards(column(page, 'Building')).first();
		const number = await numberOf(card);
		await card.focus();
		await page.keyboard.press('Enter');
		const panel = page.getByRole('complementary', { name: `Card TIDE-${number}` });
		await panel
			.getByText(/brought it to Lined up|moved it from Lined up/)
			.first()
			.waitFor();
		await accessible(page);
		await tidy(page);
		await panel.getByRole('button', { name: 'Change description' }).click();
		await panel.getByLabel('Description').fill('Words that are not lost');
		await page.reload();
		await awake(page);
		assert.equal(await panel.getByLabel('Description').inputValue(), 'Words that are not lost');
		await panel.getByRole('button', { name: 'Keep', exact: true }).click();
		await panel.getByText('Ines Okoro changed its description.').first().waitFor();
		await page.keyboard.press('Escape');
		await panel.waitFor({ state: 'detached' });
		await page.goto(`/cards/TIDE-${number}`);
		await panel.getByText('Ines Okoro changed its description.').first().waitFor();
		quiet();
		await context.close();
	});

	test('finds a card and a place with the space key', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		await page.keyboard.press(' ');
		await page.keyboard.type('mast sleep');
		await page.getByRole('option', { name: /Mast sleep, part two/ }).waitFor();
		await page.keyboard.press('Enter');
		const panel = page.getByRole('complementary', { name: /^Card TIDE-/ });
		await panel.waitFor();
		await page.keyboard.press('Escape');
		await panel.waitFor({ state: 'detached' });
		await page.keyboard.press(' ');
		await page.keyboard.type('flow');
		await page.getByRole('option', { name: 'Go to flow' }).click();
		await page.waitForURL('**/flow');
		quiet();
		await context.close();
	});

	test('narrows the board by owner and words, and the counts still say what stands there', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		const building = column(page, 'Building');
		const slots = await building.getByRole('img', { name: /slots taken/ }).getAttribute('aria-label');
		await page.getByLabel('Whose cards').selectOption({ label: 'Bram Tolver’s cards' });
		await building.getByText(/\d of \d shown/).waitFor();
		for (const text of await cards(building).allInnerTexts()) assert.match(text, /Bram Tolver/);
		assert.equal(await building.getByRole('img', { name: /slots taken/ }).getAttribute('aria-label'), slots);
		await page.getByLabel('With these words').fill('no card says this');
		await building.getByText(/0 of \d shown/).waitFor();
		assert.match(page.url(), /owner=.*text=|text=.*owner=/);
		quiet();
		await context.close();
	});

	test('changes a limit and a policy, as a lead only', async () => {
		const lead = await visit(server.url, 'Ines Okoro', BOARD);
		await lead.page.getByRole('button', { name: 'Limit and policy of Review' }).click();
		const dialog = lead.page.getByRole('dialog');
		await accessible(lead.page);
		await dialog.getByLabel(/How many cards/).fill('0');
		await dialog.getByRole('button', { name: 'Keep' }).click();
		await dialog.getByText(/whole number from 1 to 999/).waitFor();
		await dialog.getByLabel(/How many cards/).fill('6');
		await dialog.getByLabel(/Policy/).fill('Read twice.');
		await dialog.getByRole('button', { name: 'Keep' }).click();
		await column(lead.page, 'Review').getByText('Read twice.').waitFor();
		const member = await visit(server.url, 'Bram Tolver', BOARD);
		await column(member.page, 'Review').getByText('Read twice.').waitFor();
		assert.equal(await member.page.getByRole('button', { name: /^Limit and policy/ }).count(), 0);
		const viewer = await visit(server.url, 'Della Marsh', BOARD);
		assert.equal(await viewer.page.getByRole('button', { name: 'Add a card' }).count(), 0);
		for (const { quiet, context } of [lead, member, viewer]) {
			quiet();
			await context.close();
		}
	});

	test('lists the keys, and switches single keys off', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		await cards(column(page, 'Lined up')).first().focus();
		await page.keyboard.press('?');
		await page.getByRole('dialog', { name: 'Keys on the board' }).getByText('block or unblock').waitFor();
		await accessible(page);
		await page.getByLabel('Single keys work here').uncheck();
		await page.keyboard.press('Escape');
		await cards(column(page, 'Lined up')).first().focus();
		await page.keyboard.press('b');
		await page.keyboard.press('ArrowDown');
		assert.equal(await page.getByRole('dialog').count(), 0);
		quiet();
		await context.close();
	});
});

test('goes from board to board, and chooses dark and larger text', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
	await page.getByRole('button', { name: /, you: / }).click();
	await page.getByRole('button', { name: 'Dark', exact: true }).click();
	const paper = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
	assert.equal(await paper(), 'rgb(27, 22, 17)');
	await page.reload();
	await awake(page);
	assert.equal(await paper(), 'rgb(27, 22, 17)', 'the choice is kept');
	await page.getByRole('button', { name: /Tidewatch/ }).focus();
	await page.keyboard.press('Enter');
	await page.getByRole('link', { name: 'Shore desk' }).click();
	await page.getByRole('region', { name: 'Preparing', exact: true }).waitFor();
	await accessible(page);
	await tidy(page);
	quiet();
	await context.close();
});

describe('on a phone', () => {
	test('one column at a time, by touch', async () => {
		const { page, context, quiet } = await visit(server.url, 'Yuki Sandel', BOARD, {
			width: 390,
			height: 844,
			touch: true,
		});
		await accessible(page);
		await tidy(page);
		await page
			.getByRole('navigation', { name: 'Columns' })
			.getByRole('link', { name: /^Building/ })
			.tap();
		const building = column(page, 'Building');
		await page.waitForFunction(
			() => Math.abs(document.querySelector('[aria-label="Board"]')!.scrollLeft - innerWidth) < 4,
		);
		await cards(building).first().tap();
		await page
			.getByRole('complementary', { name: /^Card TIDE-/ })
			.getByRole('button', { name: 'Close' })
			.waitFor();
		await accessible(page);
		await tidy(page);
		const small = await page.evaluate(() =>
			[...document.querySelectorAll('button, a')]
				.filter(
					(element) =>
						element.checkVisibility() &&
						!element.closest('.sr-only, p, dd') &&
						element.getBoundingClientRect().height < 24,
				)
				.map((element) => element.textContent!.trim()),
		);
		assert.deepEqual(small, []);
		quiet();
		await context.close();
	});

	test('at 360 px, in the dark', async () => {
		const { page, context, quiet } = await visit(server.url, 'Yuki Sandel', BOARD, {
			width: 360,
			height: 740,
			touch: true,
			dark: true,
		});
		await accessible(page);
		await tidy(page);
		quiet();
		await context.close();
	});
});

test('in the dark, and on a board without sprints', async () => {
	const { page, context, quiet } = await visit(server.url, 'Oskar Venn', '/boards/buoy-yard', { dark: true });
	await page
		.getByRole('img', { name: /^Week of .* in hand$/ })
		.first()
		.waitFor();
	await accessible(page);
	await tidy(page);
	quiet();
	await context.close();
});

test('an expired session says so, and the card goes back', async () => {
	const { page, context, quiet } = await visit(server.url, 'Tomas Reyl', BOARD);
	await db.query(`delete from session where person_id = (select id from person where name = 'Tomas Reyl')`);
	const card = cards(column(page, 'Lined up')).first();
	const before = await cards(column(page, 'Lined up')).allInnerTexts();
	await card.focus();
	await page.keyboard.press('Shift+ArrowDown');
	await page
		.getByRole('presentation')
		.getByText('You are not signed in, or your session has ended.')
		.waitFor();
	assert.deepEqual(await cards(column(page, 'Lined up')).allInnerTexts(), before);
	quiet(/401/);
	await context.close();
});
