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
const numberOf = async (card: Locator) => /^\d+/.exec((await card.innerText()).trim())![0];

describe('a lead looks around the board', () => {
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
		assert.match(page.url(), /text=.*where=owners/);
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
		const frame = await page.evaluate(
			() =>
				document.querySelector('.board-page main .line')!.getBoundingClientRect().bottom -
				document.querySelector('header.bar')!.getBoundingClientRect().top,
		);
		assert.ok(frame <= 130, `the frame takes ${frame} px`);
		// The ribbon and the sentence of what is shown come when asked for.
		await page.getByRole('button', { name: 'Time', exact: true }).tap();
		await page.getByRole('navigation', { name: 'Sprints' }).or(page.locator('.ribbon')).first().waitFor();
		await page.getByRole('button', { name: 'Show', exact: true }).tap();
		await page.getByRole('combobox', { name: 'Whose cards' }).waitFor();
		await accessible(page);
		await tidy(page);
		quiet();
		await context.close();
	});

	test('a card is sent to any column in two taps', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD, {
			width: 390,
			height: 800,
			touch: true,
		});
		const card = page.locator('li[data-card]').first();
		const number = /\d+/.exec(await card.innerText())![0];
		await card.locator('.grip').tap();
		const dialog = page.getByRole('dialog', { name: `Where does ${number} go?` });
		await accessible(page);
		await dialog.getByRole('button', { name: /Field trial/ }).tap();
		await column(page, 'Field trial')
			.getByRole('link', { name: new RegExp(`^${number}`) })
			.waitFor({ state: 'attached' });
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

test('what is put away is searched, tells why and by whom, and comes back; all that is done goes at once', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
	await page.getByRole('button', { name: 'Limit and policy of Live' }).click();
	const done = await column(page, 'Live').locator('li[data-card]').count();
	await page.getByRole('button', { name: 'Archive all that is done here…' }).click();
	const dialog = page.getByRole('dialog', { name: /^Archive / });
	await dialog.getByRole('textbox').fill('Told to everyone');
	await Promise.all([
		page.waitForResponse('**/api/commands'),
		dialog.getByRole('button', { name: 'Archive' }).click(),
	]);
	await dialog.waitFor({ state: 'detached' });
	await page.goto(`${BOARD}/archive`);
	await page.getByText('Told to everyone, Ines Okoro').first().waitFor();
	await accessible(page);
	await tidy(page);
	await page.getByLabel('Search the archive').fill('ines told everyone');
	await page.getByRole('heading', { level: 1 }).getByText('put away with “ines told everyone”').waitFor();
	// Those too that are done outside the running sprint, and so not on the board as it is shown.
	const away = await page.getByRole('button', { name: /^Bring back \d+$/ }).count();
	assert.ok(away >= done && done > 0);
	for (const box of await page.getByRole('checkbox').all()) await box.check();
	await page.getByRole('button', { name: `Bring back ${away} cards` }).click();
	await page.getByText('Nothing that was put away has these words').waitFor();
	await page.goto(BOARD);
	await column(page, 'Live')
		.locator('li[data-card]')
		.nth(done - 1)
		.waitFor();
	quiet();
	await context.close();
});

test('a card is sent to another place with one key', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
	const card = cards(column(page, 'Lined up')).first();
	const number = /^\d+/.exec((await card.innerText()).trim())![0];
	await card.focus();
	await page.keyboard.press('m');
	await page.getByRole('dialog', { name: `Where does ${number} go?` }).waitFor();
	await page.keyboard.press('4');
	await column(page, 'Field trial')
		.getByRole('link', { name: new RegExp(`^${number}`) })
		.waitFor();
	await page.getByRole('dialog').waitFor({ state: 'detached' });
	await page.keyboard.press('Control+z');
	await column(page, 'Lined up')
		.getByRole('link', { name: new RegExp(`^${number}`) })
		.waitFor();
	quiet();
	await context.close();
});
