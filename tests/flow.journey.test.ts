import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { accessible, textOf, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const FLOW = '/boards/tidewatch/flow';

describe('a lead reads how work flows', () => {
	test('from a dot, a bar, a band and an age to the cards behind them, and to a card', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', FLOW);
		await accessible(page);
		await tidy(page);
		const picked = page.getByRole('region', { name: 'Cards behind the figure' });
		const chart = (name: string) => page.getByRole('group', { name });

		const dot = chart('Days each finished card took').locator('[role=button]:has(.late)').first();
		const [, key, days, day] = /^(TIDE-\d+) .*, (\d+) days, finished (.+)$/.exec(
			(await dot.getAttribute('aria-label'))!,
		)!;
		await dot.click();
		await picked.getByRole('heading', { name: `Finished ${day} after ${days} days` }).waitFor();
		await picked.getByRole('link', { name: key! }).waitFor();

		const bar = chart('Cards finished each week').getByRole('button').first();
		const finished = Number(/: (\d+) finished$/.exec((await bar.getAttribute('aria-label'))!)![1]);
		await bar.click();
		await picked.getByText(`${finished} card${finished === 1 ? '' : 's'}`, { exact: true }).waitFor();
		assert.equal(await picked.getByRole('listitem').count(), finished);

		const band = chart('Cards in each column').getByRole('button', { name: /^Building/ });
		await band.focus();
		await page.keyboard.press('Enter');
		await picked.getByRole('heading', { name: 'In Building on Mon 23 Nov' }).waitFor();
		const standing = (
			await db.query(
				`select count(*) as n from card c join board_column k on k.id = c.column_id where k.name = 'Building' and c.archived_at is null`,
			)
		).rows[0].n;
		assert.equal(await picked.getByRole('listitem').count(), Number(standing), 'as many as stand there');

		const cardOpens = (card: string) =>
			page
				.getByRole('complementary', { name: `Card ${card}` })
				.getByRole('heading', { name: 'History' })
				.waitFor();
		const link = picked.getByRole('link').first();
		const card = /^TIDE-\d+/.exec((await link.innerText()).trim())![0];
		await link.click();
		await cardOpens(card);

		const age = chart('Age of the cards in hand').getByRole('button').last();
		const [aged] = /^TIDE-\d+/.exec((await age.getAttribute('aria-label'))!)!;
		assert.notEqual(aged, card);
		await age.focus();
		await page.keyboard.press('Enter');
		await cardOpens(aged);
		quiet();
		await context.close();
	});

	test('one range over all charts: by date, by dragging over weeks, by keyboard', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', FLOW);
		const dots = page.getByRole('group', { name: 'Days each finished card took' }).getByRole('button');
		const all = await dots.count();
		await page.getByLabel('From', { exact: true }).fill('2026-11-01');
		await page.waitForURL(/from=2026-11-01/);
		await page
			.getByRole('heading', { level: 1 })
			.getByText(/^1 Nov to 23 Nov/)
			.waitFor();
		const fewer = await dots.count();
		assert.ok(fewer < all && fewer > 0, `${fewer} of ${all}`);
		assert.match(
			await page.getByRole('heading', { level: 1 }).innerText(),
			new RegExp(`: ${fewer} cards finished`),
		);

		const weeks = page.getByRole('group', { name: /drag over them/ }).getByRole('button');
		// Aimed at the middle of a week, once it stands still.
		await weeks.nth(4).hover();
		await page.mouse.down();
		await weeks.nth(7).hover();
		await weeks.nth(9).hover();
		await page.mouse.up();
		await page.waitForURL((url) => url.searchParams.get('from') !== '2026-11-01');
		await page.waitForFunction(() => document.querySelectorAll('button[aria-pressed="true"]').length === 6);

		await weeks.last().focus();
		await page.keyboard.press('Enter');
		await page.waitForFunction(() => document.querySelectorAll('button[aria-pressed="true"]').length === 1);
		quiet();
		await context.close();
	});

	test('in working days, as a picture, and as figures', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', FLOW);
		const calendar = await page.getByText(/^Half of \d+ cards took/).innerText();
		await page.getByLabel('Days that count').selectOption('working');
		await page.waitForURL(/days=working/);
		await page.getByText(calendar).waitFor({ state: 'detached' });
		const [picture] = await Promise.all([
			page.waitForEvent('download'),
			page.getByRole('button', { name: 'Picture of Cumulative flow' }).click(),
		]);
		const svg = await textOf(picture);
		assert.equal(picture.suggestedFilename(), 'cumulative-flow.svg');
		assert.match(svg, /^<svg[\s\S]*fill="rgb/);
		assert.doesNotMatch(svg, /class=/);
		await page.getByLabel('Figures of Finished each week').click();
		await page.getByRole('table').getByRole('row').nth(1).waitFor();
		const [file] = await Promise.all([
			page.waitForEvent('download'),
			page.getByRole('link', { name: 'weeks' }).click(),
		]);
		const rows = (await textOf(file)).trim().split('\n');
		const shown = await page.getByRole('table').getByRole('row').count();
		assert.equal(rows.length, shown, 'the file and the table hold the same weeks');
		quiet();
		await context.close();
	});

	test('what is done on the board moves the figures', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', FLOW);
		const other = await visit(server.url, 'Bram Tolver', '/boards/tidewatch');
		const before = Number(
			/(\d+) cards finished/.exec(await page.getByRole('heading', { level: 1 }).innerText())![1],
		);
		const card = other.page
			.getByRole('region', { name: 'Field trial', exact: true })
			.locator('li[data-card] a')
			.first();
		await card.focus();
		await other.page.keyboard.press('Shift+ArrowRight');
		await page
			.getByRole('heading', { level: 1 })
			.getByText(`${before + 1} cards finished`)
			.waitFor();
		quiet();
		other.quiet();
		await context.close();
		await other.context.close();
	});
});

for (const [what, options] of [
	['in the dark', { dark: true }],
	['on a phone', { width: 390, height: 844, touch: true }],
	['at 360 px', { width: 360, height: 740, touch: true }],
] as const)
	test(`the flow page ${what}`, async () => {
		const { page, context, quiet } = await visit(server.url, 'Oskar Venn', '/boards/buoy-yard/flow', options);
		await accessible(page);
		await tidy(page);
		quiet();
		await context.close();
	});

test('a range in which nothing happened says so', async () => {
	const { page, context, quiet } = await visit(
		server.url,
		'Ines Okoro',
		`${FLOW}?from=2020-01-01&to=2020-03-01`,
	);
	await page.getByText('No card was finished in this range.').first().waitFor();
	await accessible(page);
	await tidy(page);
	quiet();
	await context.close();
});
