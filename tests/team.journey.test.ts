import assert from 'node:assert/strict';
import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, test } from 'node:test';
import { accessible, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const PLAN = '/boards/tidewatch/plan';

describe('people', () => {
	const people = async () =>
		`/teams/${(await db.query<{ id: string }>('select id from team limit 1')).rows[0]!.id}/people`;

	test('a member says when they are away; the plan of the others has less to give at once', async () => {
		const lead = await visit(server.url, 'Ines Okoro', PLAN);
		const gives = lead.page.locator('.row', { hasText: 'Tomas Reyl' }).locator('.sum');
		const before = await gives.innerText();
		const { page, context, quiet } = await visit(server.url, 'Tomas Reyl', await people());
		await accessible(page);
		await tidy(page);
		await page.getByRole('button', { name: 'Tomas Reyl Data' }).click();
		const panel = page.getByRole('complementary', { name: 'Tomas Reyl' });
		await panel.getByRole('button', { name: 'Month after' }).click();
		await panel.getByRole('button', { name: /^Tue 1 Dec/ }).click();
		await panel.getByRole('button', { name: /^Thu 3 Dec/ }).click({ modifiers: ['Shift'] });
		await panel.getByRole('button', { name: 'Say away' }).click();
		await panel.getByText('Tue 1 Dec to Thu 3 Dec').waitFor();
		await accessible(page);
		await lead.page.waitForFunction((text) => {
			const row = [...document.querySelectorAll('.row')].find((one) =>
				one.textContent!.includes('Tomas Reyl'),
			);
			return row && row.querySelector<HTMLElement>('.sum')!.innerText !== text;
		}, before);
		assert.equal(
			await panel.getByRole('button', { name: 'Keep the week' }).count(),
			0,
			'a member changes no week',
		);
		quiet();
		lead.quiet();
		await context.close();
		await lead.context.close();
	});

	test('a lead opens a week to its cards, changes a working week and shares, and is told what is too much', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', await people());
		await page.getByRole('button', { name: /^Yuki Sandel, week of 30 Nov/ }).click();
		const panel = page.getByRole('complementary', { name: 'Yuki Sandel' });
		await panel
			.getByRole('link', { name: /^TIDE-\d+/ })
			.first()
			.waitFor();
		await tidy(page);
		await panel.getByRole('textbox', { name: 'Wed' }).fill('4');
		await panel.getByRole('button', { name: 'Keep the week' }).click();
		await panel.getByText('The working week is kept.').waitFor();
		await panel.getByLabel('Buoy yard').fill('60');
		await panel.getByRole('button', { name: 'Keep the shares' }).click();
		await panel.getByText(/The shares of Yuki Sandel come to 160%/).waitFor();
		await panel.getByRole('button', { name: 'Yuki Sandel leaves the team' }).click();
		await panel.getByText(/Yuki Sandel still owns .* in hand or in a sprint/).waitFor();
		quiet(/409|422/);
		await context.close();
	});

	test('reads an iCalendar file, and refuses one that is none', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', await people());
		await page
			.getByRole('button', { name: /^Petra Lind/ })
			.first()
			.click();
		const panel = page.getByRole('complementary', { name: 'Petra Lind' });
		const file = join(tmpdir(), `harrow-${process.pid}.ics`);
		writeFileSync(file, 'no calendar');
		await panel.locator('input[type=file]').setInputFiles(file);
		await panel.getByText(/not an iCalendar file/).waitFor();
		writeFileSync(
			file,
			'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Course\r\nDTSTART;VALUE=DATE:20261209\r\nDTEND;VALUE=DATE:20261210\r\nEND:VEVENT\r\nEND:VCALENDAR',
		);
		await panel.locator('input[type=file]').setInputFiles(file);
		await panel.getByText('Wed 9 Dec, Course').waitFor();
		quiet(/422/);
		await context.close();
	});

	test('the people and their weeks', async () => {
		const { rows: teams } = await db.query<{ id: string }>('select id from team limit 1');
		const { page, context, quiet } = await visit(server.url, 'Bram Tolver', `/teams/${teams[0]!.id}/people`, {
			width: 390,
			height: 844,
			touch: true,
		});
		await accessible(page);
		await page.getByRole('button', { name: 'Bram Tolver Engineer' }).tap();
		await page
			.getByRole('complementary', { name: 'Bram Tolver' })
			.getByRole('heading', { name: 'Absences' })
			.waitFor();
		await tidy(page);
		quiet();
		await context.close();
	});
});

test('a lead sets up who settles, what an initiative may cost, and what an hour costs', async () => {
	const { page, context, quiet } = await visit(
		server.url,
		'Ines Okoro',
		'/boards/tidewatch/set-up?part=sprints',
	);
	await page.getByLabel('Members settle sprints too, not only leads').check();
	await page.getByLabel('Days that done cards stay on the board after closing').fill('soon');
	await page.getByRole('button', { name: 'Keep this' }).click();
	await page.getByRole('alert').getByText(/days/).first().waitFor();
	await page.getByLabel('Days that done cards stay on the board after closing').fill('2');
	await page.getByRole('button', { name: 'Keep this' }).click();
	await page.getByRole('link', { name: 'Initiatives', exact: true }).click();
	await page.getByRole('link', { name: 'Change the initiative Open figures' }).click();
	await page.getByLabel('Budget in hours').fill('much');
	await page.keyboard.press('Enter');
	await page.getByText('A budget is a number above 0, or empty for none.').waitFor();
	const kept = () => page.waitForResponse('**/api/commands');
	await page.getByLabel('Budget in hours').fill('800');
	await Promise.all([kept(), page.keyboard.press('Tab')]);
	await page.getByLabel('Budget in money').fill('42,000');
	await Promise.all([kept(), page.keyboard.press('Enter')]);
	await Promise.all([kept(), page.getByLabel('Led by').selectOption('Petra Lind')]);
	await page.goto('/boards/tidewatch/set-up?part=initiatives');
	await page.getByText('led by Petra Lind, has 800 h, may cost 42,000').waitFor();
	await accessible(page);
	await tidy(page);
	const { rows } = await db.query(`select members_settle, done_days from board where key = 'TIDE'`);
	assert.deepEqual(rows[0], { members_settle: true, done_days: 2 });

	// Members settle from now on, and the report sets the hours against the budget.
	const member = await visit(server.url, 'Petra Lind', '/boards/tidewatch/settle');
	await member.page.getByRole('button', { name: /^Close sprint \d+$/ }).waitFor();
	await member.page.goto('/boards/tidewatch/look-back/12');
	await member.page.getByRole('button', { name: /Open figures .* budget 800 h$/ }).waitFor();
	await member.context.close();

	const team = (await db.query<{ id: string }>('select id from team limit 1')).rows[0]!.id;
	await page.goto(`/teams/${team}/people`);
	await page.getByRole('button', { name: 'Tomas Reyl Data' }).click();
	const panel = page.getByRole('complementary', { name: 'Tomas Reyl' });
	await panel.getByLabel('What an hour costs').fill('99.5');
	await panel.getByRole('button', { name: 'Keep the rate' }).click();
	await panel.getByText('The rate is kept.').waitFor();
	const rates = await db.query(
		`select rate::float as rate from hourly_rate h join person p on p.id = h.person_id where p.name = 'Tomas Reyl' order by from_day desc limit 1`,
	);
	assert.equal(rates.rows[0].rate, 99.5);
	quiet();
	await context.close();
});
