import assert from 'node:assert/strict';
import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, test } from 'node:test';
import type { Locator } from 'playwright-core';
import { accessible, textOf, tidy, until, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { cardNumbered, drag, numberOf, rows, spoken } from './support/planning.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const BACKLOG = '/boards/tidewatch/backlog';

const titleOf = async (row: Locator) => (await row.locator('a.title .words').innerText()).trim();

/** The title of a card that waits on no sprint's list, has no sub-cards, and whose title begins no other's. */
const waiting = async (where: string) =>
	(
		await db.query<{ title: string }>(
			`select c.title from card c join board b on b.id = c.board_id and b.key = 'TIDE'
			where c.column_id is null and c.sprint_id is null and c.archived_at is null and ${where}
				and not exists (select from card p where p.parent_id = c.id)
				and (select count(*) from card t where t.board_id = c.board_id and t.title like c.title || '%') = 1
			order by c.rank limit 1`,
		)
	).rows[0]!.title;

describe('a lead refines the backlog', () => {
	test('adds one line after the other, sized at its end, and takes the last back', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BACKLOG);
		await accessible(page);
		await tidy(page);
		const field = page.getByRole('textbox', { name: 'Add a card to the backlog' });
		await field.fill('Bell on the north pier 6h');
		await field.press('Enter');
		// Below what is ranked and ready, and it says where.
		const bell = rows(page).filter({ hasText: 'Bell on the north pier' });
		await bell.waitFor();
		await spoken(page)
			.getByText(/^Added “Bell on the north pier” as \d+, at position \d+ of \d+\.$/)
			.waitFor();
		const place = Number(await bell.getAttribute('aria-posinset'));
		assert.ok(place > 1, 'not before what is ready');
		assert.equal(await bell.getByLabel(/^Size of/).inputValue(), '6');
		assert.equal(
			await field.evaluate((element) => element === document.activeElement),
			true,
			'the cursor stays',
		);
		await page.keyboard.type('Second bell');
		await page.keyboard.press('Enter');
		const second = rows(page).filter({ hasText: 'Second bell' });
		await second.waitFor();
		assert.equal(Number(await second.getAttribute('aria-posinset')), place + 1, 'right below the first');
		await second.locator('a.title').focus();
		await page.keyboard.press('Control+z');
		await rows(page).getByText('Second bell').waitFor({ state: 'detached' });
		await page.getByLabel('New cards go').selectOption('top');
		await field.fill('A bell before all others');
		await field.press('Enter');
		await rows(page).first().getByText('A bell before all others').waitFor();
		quiet();
		await context.close();
	});

	test('pastes many lines, sees what they become, and makes them in one step', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BACKLOG);
		const field = page.getByRole('textbox', { name: 'Add a card to the backlog' });
		await field.evaluate((element) => {
			const data = new DataTransfer();
			data.setData(
				'text/plain',
				'Winter watch 12h\n\tRota for the holidays 4h\n\tSpare batteries\n- [ ] ask the yard\nHarbour bell list',
			);
			element.dispatchEvent(
				new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
			);
		});
		const dialog = page.getByRole('dialog', { name: 'Add 4 cards from lines' });
		await dialog.getByText('1 checklist line').waitFor();
		await accessible(page);
		await dialog.getByRole('button', { name: 'Add 4 cards' }).click();
		const parent = rows(page).filter({ hasText: 'Winter watch' });
		await parent.getByText('0 of 2 parts').waitFor();
		assert.equal(await parent.getByTitle('The sum of its parts').innerText(), '4');
		await page.getByText('4 cards were made.').last().waitFor();
		await page.getByRole('button', { name: 'Take it back' }).click();
		await parent.waitFor({ state: 'detached' });
		quiet();
		await context.close();
	});

	test('orders by keyboard: a step, the top, a position; and by dragging', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BACKLOG);
		const third = await titleOf(rows(page).nth(2));
		await rows(page).nth(2).locator('a.title').focus();
		await page.keyboard.press('Shift+ArrowUp');
		await spoken(page).filter({ hasText: 'is at position 2 of' }).waitFor();
		assert.equal(await titleOf(rows(page).nth(1)), third);
		assert.equal(
			(await page.evaluate(() => document.activeElement!.querySelector('.words')!.textContent))!.trim(),
			third,
			'the focus goes with the card',
		);
		await page.keyboard.press('Shift+Home');
		await spoken(page).filter({ hasText: 'is at position 1 of' }).waitFor();
		await page.keyboard.press('g');
		const dialog = page.getByRole('dialog', { name: /Where to put/ });
		await dialog.getByRole('textbox').fill('0');
		await dialog.getByRole('button', { name: 'Put it there' }).click();
		await dialog.getByText(/whole number from 1 to/).waitFor();
		await dialog.getByRole('textbox').fill('4');
		await dialog.getByRole('button', { name: 'Put it there' }).click();
		await page.waitForFunction(
			(title) => document.querySelectorAll('li[data-card] a.title .words')[3]?.textContent?.trim() === title,
			third,
		);
		const first = await titleOf(rows(page).first());
		const target = (await rows(page).nth(5).boundingBox())!;
		await drag(page, rows(page).first().locator('a.title'), {
			x: target.x + 200,
			y: target.y + target.height - 6,
		});
		await page.waitForFunction(
			(title) => document.querySelectorAll('li[data-card] a.title .words')[5]?.textContent?.trim() === title,
			first,
		);
		await spoken(page).filter({ hasText: 'is at position 6 of' }).waitFor();
		const { rows: stored } = await db.query(
			`select title from card c join board b on b.id = c.board_id where b.key = 'TIDE' and column_id is null and archived_at is null order by c.rank limit 6`,
		);
		assert.equal(stored[5].title, first, 'and the server has it so');
		quiet();
		await context.close();
	});

	test('changes cards in place, and many at once', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BACKLOG);
		const row = rows(page).nth(3);
		const number = await numberOf(row);
		await row.locator('a.title').focus();
		await page.keyboard.press('s');
		await page.keyboard.type('7.5');
		await page.keyboard.press('Enter');
		await row.getByLabel(/^Type of/).selectOption('Repair');
		await row.getByLabel(/^Initiative of/).selectOption('Open figures');
		await row.locator('a.title').focus();
		await page.keyboard.press('l');
		const labels = page.getByRole('dialog', { name: /^Labels of/ });
		await labels.getByLabel('A new label').fill('north quay');
		await labels.getByRole('button', { name: 'Keep' }).click();
		await row.getByText('north quay').waitFor();
		const stored = await cardNumbered(db, number);
		assert.deepEqual([Number(stored.size), stored.type], [7.5, 'Repair']);
		await rows(page).nth(1).getByRole('checkbox').click();
		await rows(page)
			.nth(4)
			.getByRole('checkbox')
			.click({ modifiers: ['Shift'] });
		const bar = page.getByRole('group', { name: 'What to do with the picked cards' });
		await bar.getByText('4 cards picked').waitFor();
		await tidy(page);
		await bar.getByRole('button', { name: 'Owners' }).click();
		const owners = page.getByRole('dialog', { name: 'Who owns these 4?' });
		await owners
			.getByText(/room for|over/)
			.first()
			.waitFor();
		await accessible(page);
		await owners.getByLabel('Petra Lind').check();
		await owners.getByRole('button', { name: 'Give it to them' }).click();
		await page.waitForFunction(
			() => document.querySelectorAll('li[data-card] .owners [title="Petra Lind"]').length >= 4,
		);
		await bar.getByLabel('Sprint').selectOption({ label: 'on the list of 16' });
		await row.getByRole('link', { name: 'S16' }).waitFor();
		// What is shown at once is sent one after the other.
		await until(
			page,
			async (url) => {
				const card = await (await fetch(url)).json();
				return card.owners.length > 0 && card.sprint === 16;
			},
			`/api/cards/TIDE-${number}`,
		);
		assert.deepEqual((await cardNumbered(db, number)).owners, ['Petra Lind']);
		await page.keyboard.press('Escape');
		quiet();
		await context.close();
	});

	test('splits a card, and arranges by initiative', async () => {
		const title = await waiting('c."left" between 12 and 100');
		const { page, context, quiet } = await visit(
			server.url,
			'Ines Okoro',
			`${BACKLOG}?text=${encodeURIComponent(title)}`,
		);
		const row = rows(page).filter({ hasText: title }).first();
		await row.locator('a.title').focus();
		await page.keyboard.press('x');
		const dialog = page.getByRole('dialog', { name: /^Split/ });
		await dialog.getByLabel('The new card is called').fill('Neap tides, the far gauges');
		await dialog.getByLabel(/^What goes to it/).fill('999');
		await dialog.getByRole('button', { name: 'Split it' }).click();
		await dialog.getByText(/^Only .* is left/).waitFor();
		await dialog.getByLabel(/^What goes to it/).fill('10');
		await dialog.getByRole('button', { name: 'Split it' }).click();
		await dialog.waitFor({ state: 'detached' });
		await page.goto(`${server.url}${BACKLOG}?text=far+gauges`);
		await rows(page).filter({ hasText: 'Neap tides, the far gauges' }).waitFor();
		await page.goto(server.url + BACKLOG);
		await page.getByLabel('Arranged').selectOption('initiative');
		await page
			.getByRole('heading', { name: /^(Gauges for every harbour|Nights without false alarms|Open figures)/ })
			.first()
			.waitFor();
		await accessible(page);
		quiet();
		await context.close();
	});

	test('reads a table with columns of its own, corrects the mapping, and is told of every bad line', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BACKLOG);
		const file = join(tmpdir(), `harrow-${process.pid}.csv`);
		writeFileSync(
			file,
			'Thing,Effort in hours,Until\nNew rope for the bell,3,2026-12-11\nOil for the light,lots,\n',
		);
		await page.getByRole('button', { name: 'Read a table' }).click();
		const dialog = page.getByRole('dialog', { name: 'Read cards from a table' });
		await dialog.locator('input[type=file]').setInputFiles(file);
		await dialog.getByText('Line 1: say which column holds the title.').waitFor();
		await dialog.getByLabel('Title').selectOption('Thing');
		await dialog.getByLabel('Size').selectOption('Effort in hours');
		await dialog.getByText('Line 3: size: “lots” is not a figure from 0 to 9,999.').waitFor();
		// Good lines are not held back by a bad one, and are said to be only those.
		await dialog.getByRole('button', { name: 'Make only the 1 card' }).waitFor();
		await accessible(page);
		const cards = async () => Number((await db.query('select count(*) as n from card')).rows[0].n);
		const before = await cards();
		await dialog.getByLabel('Size').selectOption('none');
		await dialog.getByLabel('Due').selectOption('Until');
		await dialog.getByRole('button', { name: 'Make 2 cards' }).click();
		await page.getByText('2 cards were made.').last().waitFor();
		assert.equal(await cards(), before + 2);
		writeFileSync(file, 'x'.repeat(1_200_000));
		await page.getByRole('button', { name: 'Read a table' }).click();
		await dialog.locator('input[type=file]').setInputFiles(file);
		await dialog.getByText(/has 1\.2 MB\. A file of cards may have at most 1 MB/).waitFor();
		quiet(/422/);
		await context.close();
	});

	test('saves what is shown as a table that can be read again', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BACKLOG}?text=bell`);
		const [file] = await Promise.all([
			page.waitForEvent('download'),
			page.getByRole('link', { name: 'Save as CSV' }).click(),
		]);
		const lines = (await textOf(file)).trim().split('\n');
		assert.match(lines[0]!, /^key,title,.*owners,.*size,left,.*,part of$/);
		assert.equal(lines.length - 1, await rows(page).count());
		assert.ok(lines.slice(1).every((line) => /bell/i.test(line)));
		quiet();
		await context.close();
	});
});

test('a card opens beside the backlog: description, checklist, parts, links and talk, live in another window', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BACKLOG);
	const other = await visit(server.url, 'Bram Tolver', BACKLOG);
	// A card that waits, and has a checklist of its own.
	const title = await waiting('jsonb_array_length(c.checklist) = 3');
	const row = rows(page).filter({ hasText: title }).first();
	const number = await numberOf(row);
	await row.locator('a.title').click();
	const panel = page.getByRole('complementary', { name: `Card TIDE-${number}` });
	await panel.getByRole('button', { name: 'Change description' }).click();
	await panel
		.getByLabel('Description')
		.fill('First **the yard**, then\n\n- masts\n- <script>alert(1)</script>bells');
	await panel.getByRole('button', { name: 'Preview' }).click();
	await panel.locator('.markdown strong', { hasText: 'the yard' }).waitFor();
	assert.equal(await panel.locator('.markdown script').count(), 0);
	await panel.getByRole('button', { name: 'Keep', exact: true }).click();
	await panel.locator('.markdown li', { hasText: 'masts' }).waitFor();

	const line = panel.getByLabel('A new checklist line');
	for (const text of ['Tell the yard', 'Switch it off']) {
		await line.fill(text);
		await line.press('Enter');
		await panel.getByRole('checkbox', { name: text }).waitFor();
	}
	const texts = () =>
		panel
			.getByLabel(/^Checklist line/)
			.evaluateAll((list) => list.map((one) => (one as HTMLInputElement).value));
	const before = await texts();
	await panel.getByRole('button', { name: 'Switch it off: up' }).click();
	await page.waitForFunction(
		(last) =>
			[...document.querySelectorAll<HTMLInputElement>('[aria-label^="Checklist line"]')].at(-1)?.value ===
			last,
		'Tell the yard',
	);
	assert.deepEqual((await texts()).slice(0, -2), before.slice(0, -2));
	await panel.getByRole('checkbox', { name: 'Tell the yard' }).click();
	await other.page
		.locator('li[data-card]')
		.filter({ hasText: title })
		.getByText(/^1\/\d ticked$/)
		.waitFor();

	await panel.getByLabel('A new sub-card').fill('Ask who still carries one');
	await panel.getByLabel('A new sub-card').press('Enter');
	await panel.getByText(/^0 of 1 done/).waitFor();
	await panel.getByText(/in its sub-cards/).waitFor();
	await rows(page).filter({ hasText: 'Ask who still carries one' }).waitFor();

	const target = await numberOf(rows(page).first());
	await panel.getByLabel('The other card').fill(String(target));
	await panel.getByLabel('The other card').press('Enter');
	await panel.getByRole('link', { name: new RegExp(`^blocks ${target} `) }).waitFor();

	await panel.getByLabel('Talk').fill('Who tells the *night desk*?');
	await panel.getByRole('button', { name: 'Say it' }).click();
	await panel.locator('em', { hasText: 'night desk' }).waitFor();
	await panel.getByText('Ines Okoro ticked off: Tell the yard.').waitFor();
	await accessible(page);
	await tidy(page);
	await page.goto(`/cards/TIDE-${number}`);
	await panel.getByText('Ines Okoro said something.').waitFor();
	quiet();
	other.quiet();
	await context.close();
	await other.context.close();
});

describe('on a phone', () => {
	test('the backlog at 390 px', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BACKLOG, {
			width: 390,
			height: 844,
			touch: true,
		});
		await rows(page).first().waitFor();
		await accessible(page);
		await tidy(page);
		quiet();
		await context.close();
	});
});
