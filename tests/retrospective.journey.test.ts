import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Page } from 'playwright-core';
import { accessible, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { drag, middle } from './support/planning.ts';
import { startServer } from './support/server.ts';

await useDatabase('demo');
const server = await startServer();

const column = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const phaseIs = (page: Page, name: string) =>
	page.locator('[aria-current="step"]', { hasText: name }).waitFor();
async function write(page: Page, place: string, words: string): Promise<void> {
	const box = page.getByLabel(`Write a note: ${place}`);
	await box.fill(words);
	await Promise.all([page.waitForResponse('**/api/commands'), box.press('Enter')]);
	await column(page, place).locator('article', { hasText: words }).waitFor();
}

describe('four people look back together', () => {
	test('from notes face down to what becomes a card, each page following', async () => {
		const lead = await visit(server.url, 'Ines Okoro', '/boards/tidewatch/look-back');
		await lead.page.getByRole('link', { name: 'Retrospectives' }).click();
		await lead.page.getByLabel('Column 3').fill('Next time');
		await lead.page.getByLabel('About').selectOption({ label: 'Sprint 13' });
		await accessible(lead.page);
		await tidy(lead.page);
		await lead.page.getByRole('button', { name: 'Begin' }).click();
		await phaseIs(lead.page, 'Writing');
		// What was agreed last time stands on top, and is ticked there.
		const before = lead.page.getByRole('region', { name: 'Agreed last time' });
		await Promise.all([
			lead.page.waitForResponse('**/api/commands'),
			before.getByRole('checkbox', { name: 'Done: Ask for permits when a card is sized' }).check(),
		]);
		await lead.page
			.getByRole('region', { name: 'To talk about' })
			.or(lead.page.getByRole('complementary', { name: 'To talk about' }))
			.getByRole('link')
			.first()
			.waitFor();

		const path = new URL(lead.page.url()).pathname;
		const [bram, yuki, petra] = await Promise.all([
			visit(server.url, 'Bram Tolver', path),
			visit(server.url, 'Yuki Sandel', path),
			visit(server.url, 'Petra Lind', path, { width: 390, height: 780, touch: true }),
		]);
		const all = [lead, bram, yuki, petra];
		await Promise.all([
			write(lead.page, 'Went well', 'We warned in time'),
			write(bram.page, 'Held us up', 'The mast was late'),
			write(yuki.page, 'Held us up', 'No mast for four days'),
			write(petra.page, 'Next time', 'Order the mast in summer'),
		]);
		// Nobody reads the others', and everybody sees that they are there.
		for (const { page } of all) {
			await page.getByText('4 notes').waitFor();
			assert.equal(await page.locator('article').count(), 1);
		}
		await column(petra.page, 'Held us up')
			.getByRole('img', { name: '2 notes of others, face down' })
			.waitFor();
		await accessible(petra.page);
		await tidy(petra.page);
		// What is begun stays in the browser past a reload.
		await yuki.page.getByLabel('Write a note: Went well').fill('Half a thou');
		await yuki.page.reload();
		await yuki.page.waitForFunction(() => document.documentElement.dataset.awake === 'yes');
		assert.equal(await yuki.page.getByLabel('Write a note: Went well').inputValue(), 'Half a thou');

		await lead.page.getByRole('button', { name: 'Turn the notes over' }).click();
		for (const { page } of all) {
			await phaseIs(page, 'Reading');
			await page.locator('article', { hasText: 'The mast was late' }).waitFor();
		}
		// One lays a note with the mouse, another by choosing.
		const late = bram.page.locator('article', { hasText: 'The mast was late' });
		const [, laid] = await Promise.all([
			drag(bram.page, bram.page.locator('article', { hasText: 'No mast' }), await middle(late)),
			bram.page.waitForResponse('**/api/commands'),
		]);
		assert.equal(laid.status(), 200);
		await column(yuki.page, 'Held us up').locator('.under article', { hasText: 'No mast' }).waitFor();
		await accessible(yuki.page);
		await petra.page.getByRole('button', { name: /^Lay on another ?: Order the mast in summer/ }).click();
		await Promise.all([
			petra.page.waitForResponse('**/api/commands'),
			petra.page
				.getByLabel('Lay it on: Order the mast in summer')
				.selectOption({ label: 'The mast was late' }),
		]);
		await column(lead.page, 'Held us up').locator('.under article', { hasText: 'Order the mast' }).waitFor();
		await Promise.all([
			lead.page.waitForResponse('**/api/commands'),
			lead.page.getByRole('button', { name: /^By itself ?: Order the mast in summer/ }).click(),
		]);

		await lead.page.getByRole('button', { name: 'Vote', exact: true }).click();
		for (const { page } of [bram, petra]) {
			await phaseIs(page, 'Voting');
			for (const left of [
				'2 votes of yours are left',
				'1 vote of yours is left',
				'All your votes are given',
			]) {
				await page.getByRole('button', { name: /^Vote ?: The mast was late/ }).click();
				await page.getByText(left).waitFor();
				const given = await page.getByRole('button', { name: /^Take one back ?: The mast was late/ }).count();
				assert.equal(given, 1);
				// Each goes to the same note by another press: one press gives one.
			}
			assert.equal(await page.getByRole('button', { name: /^Vote ?: / }).count(), 0);
		}
		await lead.page.getByText('2 people have voted').waitFor();
		await accessible(petra.page);
		await lead.page.getByRole('button', { name: 'Count the votes' }).click();
		await column(yuki.page, 'Held us up').getByRole('img', { name: '6 votes' }).waitFor();

		// A member writes what is agreed, as a card of hers with a day.
		const agree = yuki.page.getByRole('form', { name: 'Agree on something' });
		await agree.getByLabel('What is agreed').fill('Order masts in July');
		await agree.getByLabel('Who sees to it').selectOption({ label: 'Yuki Sandel' });
		await agree.getByRole('textbox', { name: 'By when' }).fill('4 dec');
		await agree.getByRole('textbox', { name: 'By when' }).press('Enter');
		await Promise.all([
			yuki.page.waitForResponse('**/api/commands'),
			agree.getByRole('button', { name: 'Agree' }).click(),
		]);
		const agreed = petra.page.getByRole('region', { name: 'Agreed now' });
		await agreed.getByText('Order masts in July').waitFor();
		await agreed.getByText('in the backlog', { exact: true }).waitFor();
		await accessible(yuki.page);
		await tidy(yuki.page);
		await lead.page.getByRole('button', { name: 'Close it' }).click();
		await phaseIs(bram.page, 'Closed');
		await lead.page.goto(`${server.url}/boards/tidewatch/look-back/13`);
		await lead.page.getByRole('link', { name: 'Agreed in the retrospective' }).waitFor();
		await lead.page.getByText('Order masts in July').waitFor();
		for (const one of all) {
			one.quiet();
			await one.context.close();
		}
	});

	test('without authors one’s own notes are known to one’s own browser alone', async () => {
		const lead = await visit(server.url, 'Ines Okoro', '/boards/buoy-yard/retrospectives');
		await lead.page.getByLabel(/^anonymous/).check();
		await lead.page.getByRole('button', { name: 'Begin' }).click();
		await phaseIs(lead.page, 'Writing');
		await write(lead.page, 'Held us up', 'I could not say this');
		await lead.page.reload();
		await lead.page.waitForFunction(() => document.documentElement.dataset.awake === 'yes');
		const own = lead.page.locator('article', { hasText: 'I could not say this' });
		await own.getByRole('button', { name: 'Change' }).click();
		await lead.page.getByLabel('The note', { exact: true }).fill('I can say this');
		await Promise.all([lead.page.waitForResponse('**/api/commands'), lead.page.keyboard.press('Enter')]);
		const elsewhere = await visit(server.url, 'Ines Okoro', new URL(lead.page.url()).pathname);
		await elsewhere.page.getByText('1 note lies here').waitFor();
		assert.equal(await elsewhere.page.locator('article').count(), 0);
		await lead.page.getByRole('button', { name: 'Turn the notes over' }).click();
		const turned = elsewhere.page.locator('article', { hasText: 'I can say this' });
		await turned.waitFor();
		await phaseIs(lead.page, 'Reading');
		assert.equal(await turned.getByText('IO').count(), 0);
		assert.equal(await lead.page.getByRole('button', { name: /^Change/ }).count(), 0);
		await accessible(elsewhere.page);
		for (const one of [lead, elsewhere]) {
			one.quiet();
			await one.context.close();
		}
	});
});
