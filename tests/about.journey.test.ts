import assert from 'node:assert/strict';
import { test } from 'node:test';
import { accessible, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const BOARD = '/boards/tidewatch';
const find = 'Find a card or do something';

test('a board says what it is for and how it works; its lead writes that there', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}/about`);
	await page.getByText('The warning service: harbours and ferries').waitFor();
	await page.getByText('One card a person; finish before you start.').waitFor();
	await accessible(page);
	await tidy(page);
	// Each figure opens its cards.
	const blocked = page.getByRole('link', { name: /^\d+ blocked$/ });
	const n = Number(/^\d+/.exec(await blocked.innerText())![0]);
	const to = await blocked.getAttribute('href');
	const shown = await visit(server.url, 'Ines Okoro', to!);
	await shown.page
		.locator('li[data-card]')
		.nth(n - 1)
		.waitFor();
	assert.equal(await shown.page.locator('li[data-card]').count(), n);
	await shown.context.close();
	await page.getByRole('button', { name: /^Change what Tidewatch is for/ }).click();
	await page.getByRole('textbox', { name: 'What Tidewatch is for' }).fill('Warnings **in time**.');
	await page.getByRole('button', { name: 'Keep' }).click();
	await page.locator('strong', { hasText: 'in time' }).waitFor();
	const other = await visit(server.url, 'Della Marsh', `${BOARD}/about`, {
		width: 390,
		height: 800,
		touch: true,
		dark: true,
	});
	await other.page.locator('strong', { hasText: 'in time' }).waitFor();
	assert.equal(await other.page.getByRole('button', { name: /^Change what/ }).count(), 0);
	await accessible(other.page);
	await tidy(other.page);
	quiet();
	other.quiet();
	await other.context.close();
	await context.close();
});

test('find-or-do does what a key does, to the card that had the focus, even with single keys off', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
	const card = page.getByRole('region', { name: 'Building', exact: true }).locator('li[data-card] a').first();
	const number = /^\d+/.exec((await card.innerText()).trim())![0];
	await page.evaluate(() => localStorage.setItem('harrow-single-keys', 'off'));
	await page.reload();
	await page.waitForFunction(() => document.documentElement.dataset.awake === 'yes');
	await card.focus();
	await page.keyboard.press('s');
	assert.equal(await page.getByRole('dialog').count(), 0, 'the key itself is off');
	const box = page.getByRole('combobox', { name: find });
	await box.focus();
	await box.fill('owners');
	await page.getByRole('option', { name: `Card ${number}: owners` }).click();
	await page.getByRole('dialog', { name: /owner|Who/i }).waitFor();
	await page.keyboard.press('Escape');
	await box.click();
	await box.fill('keys');
	await page.keyboard.press('Enter');
	await page.getByRole('dialog', { name: 'Keys on the board' }).waitFor();
	quiet();
	await context.close();
});

test('what a board does not use leaves its screens, and is there again when it is used again', async () => {
	const { rows } = await db.query<{ number: number }>(
		`update card set due = '2026-11-01', type = 'Repair', class = 'expedite'
		where id = (select c.id from card c join board b on b.id = c.board_id and b.key = 'TIDE'
			join board_column k on k.id = c.column_id and k.name = 'Building' where c.archived_at is null order by c.rank limit 1)
		returning number`,
	);
	const { number } = rows[0]!;
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}/set-up?part=board`);
	const used = page.getByRole('region', { name: 'What it uses' });
	for (const part of [
		'Hours worked and the timer',
		'Classes of service',
		'Start and due dates',
		'Kinds of card',
	]) {
		await used.getByRole('checkbox', { name: part }).click();
		await page.getByText(`${part} leave every screen`).first().waitFor();
	}
	assert.equal(await page.getByRole('link', { name: 'Timesheet' }).count(), 0);
	await page.goto(BOARD);
	const face = page.locator('li[data-card]', { has: page.locator(`a[href*="card=${number}"]`) }).first();
	await face.waitFor();
	assert.doesNotMatch(await face.innerText(), /Expedite|late/);
	await face.locator('a').click();
	const panel = page.getByRole('complementary');
	await panel.getByText('Stands in').waitFor();
	for (const gone of ['Class', 'Type', 'Due', 'Start', 'Time spent'])
		assert.equal(await panel.getByText(gone, { exact: true }).count(), 0, gone);
	await page.goto(`${BOARD}/rounds`);
	await page.getByRole('heading', { level: 1 }).first().waitFor();
	assert.equal(await page.getByText(new RegExp(`^${number}.* (was due|is late)`)).count(), 0);
	await page.goto(`${BOARD}/set-up?part=board`);
	await used.getByRole('checkbox', { name: 'Start and due dates' }).click();
	await page.getByText('Start and due dates are shown.').first().waitFor();
	await page.goto(BOARD);
	await face.getByText('late').first().waitFor();
	quiet();
	await context.close();
});
