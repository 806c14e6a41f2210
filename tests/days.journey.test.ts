import assert from 'node:assert/strict';
import { test } from 'node:test';
import ICAL from 'ical.js';
import { accessible, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const { rows: teams } = await db.query<{ id: string }>(`select team_id as id from board where key = 'TIDE'`);
const DAYS = `/teams/${teams[0]!.id}/people/days`;

test('a lead draws over days, puts somebody down, hears of a clash before it is kept, and frees the days', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `/teams/${teams[0]!.id}/people`);
	await page.getByRole('link', { name: 'Who is where, by day' }).click();
	await page.getByRole('region', { name: 'People and days' }).waitFor();
	await accessible(page);
	await tidy(page);
	const cell = (day: string) => page.getByRole('button', { name: new RegExp(`^Petra Lind, ${day}`) });
	const [from, to] = [(await cell('Tue 8 Dec').boundingBox())!, (await cell('Wed 9 Dec').boundingBox())!];
	await page.mouse.move(from.x + 10, from.y + 10);
	await page.mouse.down();
	await page.mouse.move(to.x + 10, to.y + 10, { steps: 4 });
	await page.mouse.up();
	const panel = page.getByRole('complementary', { name: 'Days of Petra Lind' });
	await panel.getByRole('heading', { name: 'Petra Lind, Tue 8 Dec to Wed 9 Dec' }).waitFor();
	await panel.getByLabel('Site').fill('Outer Skerry');
	await panel.getByRole('button', { name: 'Put down' }).click();
	await page.getByText('Petra Lind is put down for Outer Skerry, Tue 8 Dec to Wed 9 Dec.').waitFor();
	await page.getByRole('button', { name: /^Petra Lind, Tue 8 Dec.*Outer Skerry/ }).click();
	await panel.getByText('This would lie on Outer Skerry.').waitFor();
	await panel.getByLabel('Site').fill('Watch room');
	await panel.getByRole('button', { name: 'Put down' }).click();
	await panel.getByText(/is put down for Outer Skerry on Tue 8 Dec 2026/).waitFor();
	await panel.getByRole('button', { name: 'Let it take the place' }).click();
	await page.getByRole('button', { name: /^Petra Lind, Tue 8 Dec.*Watch room/ }).click();
	await panel.getByRole('button', { name: /^Free Tue 8 Dec/ }).click();
	await page.getByRole('button', { name: /^Petra Lind, Tue 8 Dec(?!.*Watch room)/ }).waitFor();
	await panel.getByLabel(/^Note on the week of/).fill('Home at noon');
	await panel.getByLabel(/^Note on the week of/).press('Tab');
	await page.getByText('The note is kept.').waitFor();
	// By key: two days, in one go.
	await panel.getByRole('button', { name: 'Close' }).click();
	await cell('Thu 10 Dec').focus();
	await page.keyboard.press('Shift+ArrowRight');
	await panel.getByRole('heading', { name: 'Petra Lind, Thu 10 Dec to Fri 11 Dec' }).waitFor();
	await page.keyboard.press('Escape');
	await panel.waitFor({ state: 'detached' });
	quiet(/409/);
	await context.close();
});

test('a member asks for days away where a lead agrees to them; the lead’s page follows, and agrees', async () => {
	const lead = await visit(server.url, 'Ines Okoro', DAYS);
	await lead.page.getByRole('checkbox', { name: 'a lead agrees to absences' }).check();
	await lead.page.getByText('Absences that members enter wait for a lead from now on.').waitFor();
	const member = await visit(server.url, 'Bram Tolver', `/teams/${teams[0]!.id}/people?person=`);
	await member.page
		.getByRole('button', { name: /^Bram Tolver/ })
		.first()
		.click();
	const panel = member.page.getByRole('complementary', { name: 'Bram Tolver' });
	await panel.getByLabel('Away from', { exact: true }).fill('2026-12-15');
	await panel.getByLabel('to', { exact: true }).fill('2026-12-16');
	await panel.getByRole('button', { name: 'Say away' }).click();
	await panel.getByText(/15 Dec to Wed 16 Dec.*waits for a lead/).waitFor();
	const waits = lead.page.getByRole('region', { name: 'Absences that wait' });
	await waits.getByText('Bram Tolver').waitFor();
	await accessible(lead.page);
	await waits.getByRole('button', { name: 'Agree', exact: true }).click();
	await lead.page.getByRole('button', { name: /^Bram Tolver, Tue 15 Dec; away/ }).waitFor();
	lead.quiet();
	member.quiet();
	await lead.context.close();
	await member.context.close();
});

test('use is told by week and month, of those with a title; on a phone too', async () => {
	const { page, context, quiet } = await visit(server.url, 'Yuki Sandel', DAYS, {
		...{ width: 390, height: 800, touch: true, dark: true },
	});
	await page.getByLabel('People with').selectOption('Engineer');
	await page.waitForURL(/with=Engineer/);
	const table = page.getByRole('region', { name: 'Use by week' });
	assert.equal(await table.getByRole('rowheader').count(), 3, 'two engineers, and all of them');
	await page.getByRole('combobox', { name: 'Use by' }).selectOption('month');
	await page
		.getByRole('region', { name: 'Use by month' })
		.getByRole('columnheader', { name: 'average' })
		.waitFor();
	await accessible(page);
	await tidy(page);
	await page.getByRole('button', { name: /^Yuki Sandel, Tue 24 Nov/ }).tap();
	await page.getByRole('complementary', { name: 'Days of Yuki Sandel' }).getByLabel('Site').waitFor();
	await accessible(page);
	quiet();
	await context.close();
});

test('a private address is made, read by a calendar, and ended', async () => {
	const { page, context, quiet } = await visit(server.url, 'Oskar Venn', '/you');
	await page.getByRole('button', { name: 'Make an address' }).click();
	const address = await page.getByLabel('The address, to be put into your calendar:').inputValue();
	const read = await (await fetch(address)).text();
	const root = new ICAL.Component(ICAL.parse(read) as unknown[]);
	const names = root.getAllSubcomponents('vevent').map((one) => String(one.getFirstPropertyValue('summary')));
	assert.ok(names.includes('Outer Skerry'), names.join());
	await accessible(page);
	await page.getByRole('button', { name: /^End the address of Your days/ }).click();
	await page.getByRole('button', { name: /^End the address/ }).waitFor({ state: 'detached' });
	assert.equal((await fetch(address)).status, 404);
	quiet();
	await context.close();
});
