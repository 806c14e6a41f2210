import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Locator, Page } from 'playwright-core';
import { accessible, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const BOARD = '/boards/buoy-yard';

/** What stands in a column within a lane; null: in no lane. */
const cell = (page: Page, column: string, lane: string | null) =>
	page.getByRole('group', {
		name: new RegExp(`^(Cards in )?${column}, ${lane ?? 'In no lane'}( is empty)?$`),
	});
const cards = (within: Locator) => within.locator('li[data-card] a');
const spoken = (page: Page) => page.getByRole('status').first();
const numberOf = async (card: Locator) => /^\d+/.exec((await card.innerText()).trim())![0];
const laneOf = async (number: string) =>
	(
		await db.query<{ class: string; lane: string | null }>(
			`select c.class, l.name as lane from card c join board b on b.id = c.board_id left join lane l on l.id = c.lane_id
			where b.key = 'BUOY' and c.number = $1`,
			[number],
		)
	).rows[0]!;

/** Takes a card with the mouse and holds it over something. */
async function hold(page: Page, card: Locator, over: Locator): Promise<void> {
	const [a, b] = [(await card.boundingBox())!, (await over.boundingBox())!];
	await page.mouse.move(a.x + 40, a.y + 20);
	await page.mouse.down();
	await page.mouse.move(a.x + 60, a.y + 30, { steps: 3 });
	await page.mouse.move(b.x + b.width / 2, b.y + Math.min(b.height - 10, 140), { steps: 8 });
}

describe('a board with lanes', () => {
	test('takes cards into a lane by mouse and by key, and gives them back', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		await accessible(page);
		await tidy(page);
		const card = cards(cell(page, 'Next in', null)).first();
		const number = await numberOf(card);
		await hold(page, card, cell(page, 'Next in', 'Storm damage'));
		await page.mouse.up();
		await spoken(page)
			.filter({ hasText: `Card ${number} is in Next in, lane Storm damage` })
			.waitFor();
		assert.equal((await laneOf(number)).class, 'expedite');
		await page.keyboard.press('Shift+ArrowDown');
		await spoken(page)
			.filter({ hasText: `Card ${number} is in Next in, in no lane, position 1` })
			.waitFor();
		assert.equal((await laneOf(number)).class, 'standard');
		await page.keyboard.press('Control+z');
		await cards(cell(page, 'Next in', 'Storm damage'))
			.filter({ hasText: number })
			.waitFor();
		quiet();
		await context.close();
	});

	test('holds one more than the slots of a lane until a reason is given', async () => {
		await db.query(`update lane set wip_limit = 1 where name = 'Storm damage'`);
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		const card = cards(cell(page, 'At the bench', null)).first();
		const number = await numberOf(card);
		await hold(page, card, cell(page, 'At the bench', 'Storm damage'));
		await page.mouse.up();
		const dialog = page.getByRole('dialog', { name: 'Let it through?' });
		await dialog.getByText(/^The lane Storm damage is full \(2 of 1\)\./).waitFor();
		await dialog.getByRole('textbox').fill('The boat is out tonight');
		await dialog.getByRole('button', { name: 'Let it through' }).click();
		await cards(cell(page, 'At the bench', 'Storm damage'))
			.filter({ hasText: number })
			.waitFor();
		await page.getByRole('heading', { level: 1 }).getByText('the lane Storm damage 2 over').waitFor();
		await page.goto(`${BOARD}/rounds`);
		await page.getByText('The lane Storm damage holds 3 with a limit of 1').waitFor();
		quiet(/409/);
		await context.close();
	});

	test('folds a lane away, counts on, and remembers it', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		const inNone = page.getByRole('button', { name: 'In no lane' });
		const standing = await cards(cell(page, 'At sea', null)).count();
		await inNone.click();
		await page.getByLabel(`${standing} cards in At sea`).waitFor();
		await page.reload();
		await page.getByLabel(`${standing} cards in At sea`).waitFor();
		assert.equal(await inNone.getAttribute('aria-expanded'), 'false');
		await inNone.click();
		await cards(cell(page, 'At sea', null))
			.first()
			.waitFor();
		quiet();
		await context.close();
	});

	test('is gone through on a phone, where the panel puts a card into a lane', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD, {
			width: 390,
			height: 800,
			touch: true,
		});
		await accessible(page);
		await tidy(page);
		const card = cards(cell(page, 'Next in', null)).first();
		const number = await numberOf(card);
		await card.tap();
		await page.getByLabel('Lane', { exact: true }).selectOption('Storm damage');
		const dialog = page.getByRole('dialog', { name: 'Let it through?' });
		await dialog.getByRole('textbox').fill('So it is');
		await dialog.getByRole('button', { name: 'Let it through' }).click();
		await page.locator('dd').getByText('let through: So it is').waitFor();
		assert.equal((await laneOf(number)).class, 'expedite');
		quiet(/409/);
		await context.close();
	});
});

test('a lead changes columns and lanes while somebody drags, types and has the focus: nothing is lost', async () => {
	const lead = await visit(server.url, 'Ines Okoro', `${BOARD}/set-up?part=lanes`);
	const other = await visit(server.url, 'Petra Lind', BOARD);
	// Somebody types a card's title.
	const { page } = other;
	await cell(page, 'Waiting for weather', null).hover();
	await cell(page, 'Waiting for weather', null).getByRole('button', { name: 'Add a card' }).click();
	const draft = page.getByLabel('Title of the new card');
	await draft.fill('Half a title');
	const form = lead.page.getByRole('region', { name: 'Lanes across the columns' });
	await form.getByLabel('A new lane, called').fill('North quay');
	await form.getByRole('button', { name: 'Add the lane' }).click();
	await page.getByRole('region', { name: 'North quay' }).first().waitFor({ state: 'attached' });
	assert.equal(await draft.inputValue(), 'Half a title');
	assert.equal(await draft.evaluate((field) => field === document.activeElement), true);
	await lead.page.goto(`${BOARD}/set-up?part=columns`);
	await lead.page.getByRole('textbox', { name: 'Name of At sea' }).fill('Out at sea');
	await lead.page.keyboard.press('Enter');
	await page.getByRole('heading', { name: 'Out at sea' }).waitFor();
	assert.equal(await draft.inputValue(), 'Half a title');
	await page.keyboard.press('Control+End');
	await page.keyboard.type(', whole');
	await page.keyboard.press('Enter');
	await cards(cell(page, 'Waiting for weather', null))
		.filter({ hasText: 'Half a title, whole' })
		.waitFor();
	await page.keyboard.press('Escape');
	// They hold a card while a column is renamed, and let go of it afterwards.
	const card = cards(cell(page, 'Next in', null)).first();
	const number = await numberOf(card);
	await hold(page, card, cell(page, 'Waiting for weather', null));
	await lead.page.getByRole('textbox', { name: 'Name of Out at sea' }).fill('At sea');
	await lead.page.keyboard.press('Enter');
	await page.getByRole('heading', { name: 'At sea', exact: true }).waitFor();
	await page.mouse.up();
	await spoken(page)
		.filter({ hasText: `Card ${number} is in Waiting for weather` })
		.waitFor();
	other.quiet();
	lead.quiet();
	await lead.context.close();
	await other.context.close();
});
