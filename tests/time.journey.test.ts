import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Page } from 'playwright-core';
import { accessible, awake, textOf, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const team = (await db.query<{ id: string }>('select id from team limit 1')).rows[0]!.id;
const cell = (page: Page, row: number, day: number) => page.locator(`[data-cell="${row}/${day}"]`);
const atCell = (page: Page, row: number, day: number) =>
	page.waitForFunction(
		(at) => (document.activeElement as HTMLElement | null)?.dataset.cell === at,
		`${row}/${day}`,
	);
const logged = async (person: string, day: string) =>
	(
		await db.query(
			`select t.hours::float as hours, t.note, t.billable from time_entry t join person p on p.id = t.person_id
			where p.name = $1 and t.day = $2 and t.withdrawn_at is null order by t.logged_at desc`,
			[person, day],
		)
	).rows;

describe('the timesheet', () => {
	test('a week is filled in with the keyboard alone; what cannot be is refused in words', async () => {
		const { page, context, quiet } = await visit(
			server.url,
			'Oskar Venn',
			`/teams/${team}/timesheet?week=2026-11-16`,
		);
		await accessible(page);
		await tidy(page);
		await cell(page, 0, 0).focus();
		const before = await cell(page, 0, 5).inputValue();
		assert.equal(before, '', 'nothing is logged on that Saturday');
		for (let i = 0; i < 5; i++) {
			await page.keyboard.press('ArrowRight');
			await atCell(page, 0, i + 1);
		}
		await page.keyboard.type('1:30');
		await page.keyboard.press('ArrowDown');
		await page
			.getByRole('status')
			.getByText(/^1\.5 h on [A-Z]+-\d+, Sat 21 Nov\.$/)
			.waitFor();
		assert.deepEqual(await logged('Oskar Venn', '2026-11-21'), [{ hours: 1.5, note: '', billable: false }]);
		await page.keyboard.press('ArrowUp');
		await atCell(page, 0, 5);

		// Enter opens the note and the billable mark of what is there.
		await page.keyboard.press('Enter');
		const dialog = page.getByRole('dialog', { name: /Sat 21 Nov$/ });
		await dialog.waitFor();
		await accessible(page);
		await page.waitForFunction(() => document.activeElement?.id === 'time-hours');
		await page.keyboard.type('2');
		await dialog.getByLabel('Note').focus();
		await page.keyboard.type('Between two tides');
		await dialog.getByLabel('Billable').focus();
		await page.keyboard.press('Space');
		await page.keyboard.press('Enter');
		await dialog.waitFor({ state: 'detached' });
		await page.waitForFunction(
			() => document.querySelector<HTMLInputElement>('[data-cell="0/5"]')!.value === '2',
		);
		assert.deepEqual(await logged('Oskar Venn', '2026-11-21'), [
			{ hours: 2, note: 'Between two tides', billable: true },
		]);

		// More than a day has is refused, and the cell is as it was.
		await cell(page, 0, 5).fill('25');
		await page.keyboard.press('Enter');
		await page.getByRole('alert').getByText('A day has at most 24 hours.').waitFor();
		assert.equal(await cell(page, 0, 5).inputValue(), '2');
		await cell(page, 0, 5).fill('soon');
		await page.keyboard.press('Enter');
		await page.getByRole('alert').getByText('write hours as 1.5').waitFor();

		// Emptied, it is taken back.
		await cell(page, 0, 5).fill('');
		await page.keyboard.press('Enter');
		await page
			.getByRole('status')
			.getByText(/^Nothing on /)
			.waitFor();
		assert.deepEqual(await logged('Oskar Venn', '2026-11-21'), []);
		quiet(/422/);
		await context.close();
	});

	test('days to come take nothing; another card is added by its key; a lead looks after somebody else', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `/teams/${team}/timesheet`);
		await page.getByText(/^You have logged/).waitFor();
		assert.equal(await cell(page, 0, 1).getAttribute('readonly'), '', 'tomorrow is still to come');
		await page.getByRole('combobox', { name: 'of' }).selectOption({ label: 'Tomas Reyl' });
		await page.getByText(/^Tomas Reyl has logged/).waitFor();
		await page.getByLabel('Another card').fill('buoy-1');
		await page.keyboard.press('Enter');
		await page.waitForFunction(() => document.activeElement?.closest('tr')?.textContent?.includes('BUOY-1'));
		await page.keyboard.type('0.5');
		await page.keyboard.press('Enter');
		await page.getByText('0.5 h on BUOY-1, Mon 23 Nov.').waitFor();
		assert.equal((await logged('Tomas Reyl', '2026-11-23'))[0].hours, 0.5);
		quiet();
		await context.close();
	});

	test('on a phone, in the dark', async () => {
		const { page, context, quiet } = await visit(server.url, 'Mara Coyle', `/teams/${team}/timesheet`, {
			width: 360,
			height: 780,
			dark: true,
			touch: true,
		});
		await accessible(page);
		await tidy(page);
		await cell(page, 0, 0).fill('0.25');
		await page.getByRole('button', { name: /^Note and billable mark: / }).click();
		const dialog = page.getByRole('dialog', { name: /Mon 23 Nov$/ });
		await dialog.getByLabel('Note').fill('On the quay');
		await accessible(page);
		await dialog.getByRole('button', { name: 'Keep' }).click();
		await dialog.waitFor({ state: 'detached' });
		const quarter = (await logged('Mara Coyle', '2026-11-23')).filter(({ hours }) => hours === 0.25);
		assert.deepEqual(
			quarter.map(({ note }) => note),
			['On the quay'],
			'one entry, with its note',
		);
		quiet();
		await context.close();
	});
});

describe('the timer', () => {
	test('runs on from page to page and after a reload, on a phone, until it is stopped', async () => {
		const { page, context, quiet } = await visit(server.url, 'Tomas Reyl', `/teams/${team}/timesheet`, {
			width: 390,
			height: 844,
			touch: true,
		});
		await page.locator('tbody th a').first().click();
		const panel = page.getByRole('complementary', { name: /^Card / });
		await panel.getByRole('button', { name: 'Start the timer' }).click();
		const stop = page.getByRole('button', { name: /^Stop the timer on / });
		await stop.waitFor();
		await page.reload();
		await awake(page);
		await stop.waitFor();
		// One a person: elsewhere it is refused, by naming where it runs.
		const running = (await stop.getAttribute('aria-label'))!.split(' ').at(-1)!;
		await page.goto(`/boards/tidewatch?card=${running === 'TIDE-1' ? 'TIDE-2' : 'TIDE-1'}`);
		await awake(page);
		await panel.getByRole('button', { name: 'Start the timer' }).click();
		await page.getByText(`Your timer runs on ${running}. Stop it there first.`).first().waitFor();
		await accessible(page);
		await db.query(
			`update timer set started_at = started_at - interval '90 minutes' where person_id = (select id from person where name = 'Tomas Reyl')`,
		);
		await stop.click();
		await stop.waitFor({ state: 'detached' });
		assert.ok((await logged('Tomas Reyl', '2026-11-23')).some(({ hours }) => hours === 1.5));
		quiet(/409/);
		await context.close();
	});

	test('one that was left on over night says so, and asks how much of it was work', async () => {
		const { page, context, quiet } = await visit(server.url, 'Yuki Sandel', '/boards/tidewatch');
		await page
			.getByText(/left on/)
			.first()
			.waitFor();
		await page.getByRole('button', { name: /^Stop the timer on / }).click();
		const dialog = page.getByRole('dialog', { name: 'How much of it was work?' });
		await dialog.getByText(/The timer was left on: it has run for/).waitFor();
		await accessible(page);
		await dialog.getByLabel('Hours').fill('45m');
		await dialog.getByRole('button', { name: 'Keep' }).click();
		await dialog.waitFor({ state: 'detached' });
		assert.equal((await logged('Yuki Sandel', '2026-11-22'))[0].hours, 0.75, 'on the day it was started');
		await page.getByRole('button', { name: /^Stop the timer on / }).waitFor({ state: 'detached' });
		quiet(/409/);
		await context.close();
	});
});

describe('the account', () => {
	const path = `/teams/${team}/account?from=2026-10-01&to=2026-10-31`;

	test('every figure opens to its cards, by whatever it is arranged, and leaves as a table', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', path);
		const { rows } = await db.query(
			`select round(sum(hours), 1)::float as hours, round(sum(hours) filter (where billable), 1)::float as billable
			from time_entry where day between '2026-10-01' and '2026-10-31' and withdrawn_at is null`,
		);
		await page.getByText(new RegExp(`^${rows[0].hours} h worked from Thu 1 Oct to Sat 31 Oct`)).waitFor();
		await accessible(page);
		await tidy(page);
		const table = page.getByRole('table').first();
		for (const by of ['person', 'board', 'initiative', 'label', 'type', 'sprint', 'month']) {
			await page.getByRole('combobox', { name: 'by' }).selectOption(by);
			await page.waitForURL(`**by=${by}`);
			const line = table.locator('tbody tr').first();
			await line.getByRole('button').click();
			const behind = page.getByRole('region', { name: 'Cards behind the figure' });
			const hours = await line.locator('.figure').first().innerText();
			await behind.getByText(new RegExp(`^\\d+ cards?, ${hours.replace('.', '\\.')}$`)).waitFor();
			await behind.getByRole('button', { name: 'Close' }).click();
		}
		const download = page.waitForEvent('download');
		await page.getByRole('link', { name: 'CSV' }).click();
		const text = await textOf(await download);
		assert.match(text, /^month,hours,billable,hours before,cost,hours without a rate\n2026-10,/);
		// Of two figures that are opened the later is shown, though the earlier one's cards come last.
		const use = page.getByRole('table').nth(1);
		let letGo = () => {};
		const held = new Promise<void>((resolve) => (letGo = resolve));
		await page.route(
			/\/account\/cards\?/,
			async (route) => {
				await held;
				await route.continue();
			},
			{ times: 1 },
		);
		const bram = use.getByRole('button', { name: 'Bram Tolver' });
		const heading = page.getByRole('region', { name: 'Cards behind the figure' }).getByRole('heading');
		const asked = page.waitForRequest(/\/account\/cards\?/);
		await bram.click();
		const early = await asked;
		await use.getByRole('button', { name: 'Yuki Sandel' }).click();
		await heading.getByText('Yuki Sandel: worked').waitFor();
		letGo();
		await (await early.response())!.finished();
		assert.equal(await heading.innerText(), 'Yuki Sandel: worked');
		await bram.click();
		await heading.getByText('Bram Tolver: worked').waitFor();
		quiet();
		await context.close();
	});

	test('a member sees hours, and no cost', async () => {
		const { page, context, quiet } = await visit(server.url, 'Petra Lind', path, {
			width: 360,
			height: 780,
			dark: true,
			touch: true,
		});
		await page.getByText(/ h worked from Thu 1 Oct/).waitFor();
		assert.equal(await page.getByText('€').count(), 0);
		await accessible(page);
		await tidy(page);
		quiet();
		await context.close();
	});

	test('carrying, splitting and re-sizing change nothing of what was worked when', async () => {
		const lead = await visit(server.url, 'Ines Okoro', path);
		const says = () => lead.page.getByRole('table').first().innerText();
		const before = await says();
		const { rows } = await db.query(
			`select c.number from card c join board b on b.id = c.board_id and b.key = 'TIDE'
			join time_entry t on t.card_id = c.id and t.day between '2026-10-01' and '2026-10-31'
			where c.archived_at is null limit 1`,
		);
		await lead.page.goto(`/boards/tidewatch?card=${rows[0].number}`);
		await awake(lead.page);
		const panel = lead.page.getByRole('complementary', { name: /^Card / });
		await panel.getByRole('button', { name: 'Change size' }).click();
		await lead.page.getByLabel('Size in hours').fill('31');
		await lead.page.keyboard.press('Enter');
		await panel.getByText(/^31 h/).waitFor();
		await lead.page.goto(path);
		await awake(lead.page);
		assert.equal(await says(), before);
		lead.quiet();
		await lead.context.close();
	});
});
