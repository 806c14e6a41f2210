import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Locator, Page } from 'playwright-core';
import { accessible, awake, textOf, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import type { Person } from '../src/lib/server/sign-in.ts';
import { command } from './support/small-board.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const BOARD = '/boards/tidewatch';

const cards = (within: Locator) => within.locator('li[data-card] a');
const spoken = (page: Page) => page.getByRole('status').first();
const numberOf = async (card: Locator) => /^\d+/.exec((await card.innerText()).trim())![0];
const rowOf = async (number: string) =>
	(
		await db.query<{ owners: string[]; class: string; size: number; due: string | null; title: string }>(
			`select c.class, c.size, c.due, c.title,
				array(select p.name from card_owner o join person p on p.id = o.person_id where o.card_id = c.id order by 1) as owners
			from card c join board b on b.id = c.board_id where b.key = 'TIDE' and c.number = $1`,
			[number],
		)
	).rows[0]!;
async function drag(page: Page, card: Locator, to: Locator): Promise<void> {
	const [a, b] = [(await card.boundingBox())!, (await to.boundingBox())!];
	await page.mouse.move(a.x + 40, a.y + 20);
	await page.mouse.down();
	await page.mouse.move(a.x + 60, a.y + 30, { steps: 3 });
	await page.mouse.move(b.x + b.width / 2, b.y + Math.min(b.height - 10, 80), { steps: 8 });
	await page.mouse.up();
}

describe('a board arranged by a field', () => {
	test('hands a card over by dragging it to somebody, in one step that is taken back', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		await page.getByRole('combobox', { name: 'Arranged by' }).selectOption('owners');
		await page.getByText('Arranged by owners; dragging hands a card over.').waitFor();
		await accessible(page);
		await tidy(page);
		const column = (name: string) => page.getByRole('region', { name, exact: true });
		const card = cards(column('Petra Lind')).first();
		const number = await numberOf(card);
		const before = (await rowOf(number)).owners;
		await drag(page, card, column('Oskar Venn'));
		await spoken(page)
			.filter({ hasText: `Card ${number}: owners Oskar Venn.` })
			.waitFor();
		assert.deepEqual(
			(await rowOf(number)).owners,
			[...before.filter((name) => name !== 'Petra Lind'), 'Oskar Venn'].sort(),
		);
		await page.keyboard.press('Control+z');
		await cards(column('Petra Lind')).filter({ hasText: number }).waitFor();
		assert.deepEqual((await rowOf(number)).owners, before);
		quiet();
		await context.close();
	});

	test('in lanes of another one gives both by key, and says where the card is', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}?by=type&lanes=class`);
		const cell = (type: string, lane: string) =>
			page.getByRole('group', { name: new RegExp(`^(Cards in )?${type}, ${lane}( is empty)?$`) });
		const card = cards(cell('Work', 'Standard')).first();
		const number = await numberOf(card);
		await card.focus();
		await page.keyboard.press('Shift+Home');
		await page.keyboard.press('Shift+ArrowUp');
		await spoken(page)
			.filter({ hasText: `Card ${number}: type Work.` })
			.waitFor();
		assert.equal((await rowOf(number)).class, 'fixed');
		await page.keyboard.press('Shift+ArrowLeft');
		const told = page
			.getByText('Cards are added where the board is arranged by its own columns and lanes.')
			.first();
		await page.keyboard.press('n');
		await told.waitFor();
		// Nor in lanes alone: a card that is new has no value yet.
		await page.goto(`${BOARD}?lanes=class`);
		await awake(page);
		await page.keyboard.press('n');
		await told.waitFor();
		quiet();
		await context.close();
	});

	test('says that what is known from elsewhere is not dragged', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}?by=blocked`);
		const card = cards(page.getByRole('region', { name: 'blocked', exact: true })).first();
		await card.focus();
		await page.keyboard.press('Shift+ArrowRight');
		await page.getByText('Cards are not dragged from one blocked to another').first().waitFor();
		quiet();
		await context.close();
	});
});

test('conditions on any field narrow the board in plain words, several at once, and stand in the address', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
	const all = await page.locator('li[data-card]').count();
	await page.getByRole('button', { name: 'and… by any field' }).click();
	const menu = page.getByRole('group', { name: 'Narrow by any field' });
	await menu.getByRole('combobox', { name: 'Field' }).selectOption('labels');
	await menu.getByRole('checkbox', { name: 'data' }).click();
	await accessible(page);
	await menu.getByRole('combobox', { name: 'One or none of these' }).selectOption('none');
	await page.getByRole('button', { name: 'Let go: not data' }).waitFor();
	await menu.getByRole('combobox', { name: 'Field' }).selectOption('size');
	await menu.getByRole('combobox', { name: 'Field' }).selectOption('age');
	await menu.getByRole('combobox', { name: 'Field' }).selectOption('type');
	await menu.getByRole('checkbox', { name: 'Work' }).click();
	await page.keyboard.press('Escape');
	await page.getByRole('button', { name: 'Let go: Work' }).waitFor();
	const shown = await page.locator('li[data-card]').count();
	assert.ok(shown > 0 && shown < all);
	await page
		.getByRole('heading', { level: 1 })
		.getByText(/\d+ cards not shown\./)
		.waitFor();
	await page.reload();
	await page.getByRole('button', { name: 'Let go: not data' }).waitFor();
	assert.equal(await page.locator('li[data-card]').count(), shown);
	await page.getByRole('button', { name: 'Show all' }).click();
	await page.waitForFunction((n) => document.querySelectorAll('li[data-card]').length === n, all);
	// Words of a description are looked for as well.
	const card = cards(page.getByRole('region', { name: 'Building', exact: true })).first();
	const number = await numberOf(card);
	await db.query(
		`update card set description = 'Mind the guillemots' where number = $1 and board_id = (select id from board where key = 'TIDE')`,
		[number],
	);
	await page.getByLabel('With these words').fill('guillemots mind');
	await page.waitForFunction(() => document.querySelectorAll('li[data-card]').length === 1);
	await cards(page.getByRole('region', { name: 'Building', exact: true }))
		.filter({ hasText: number })
		.waitFor();
	await page.getByLabel('With these words').fill('no such words');
	await page.getByText('No card here has “no such words” in its number, title, description').waitFor();
	quiet();
	await context.close();
});

describe('a board read as a list', () => {
	const cell = (page: Page, row: number, column: number) => page.locator(`[data-cell="${row} ${column}"]`);

	test('is typed into, ordered by several fields, and saved as it is shown', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		await page.getByRole('combobox', { name: 'Read as' }).selectOption('list');
		const grid = page.getByRole('grid', { name: 'Cards as a list' });
		await grid.getByRole('columnheader', { name: 'Title' }).waitFor();
		await accessible(page);
		await tidy(page);
		const number = await grid.locator('a').first().innerText();
		await cell(page, 0, 0).focus();
		await page.keyboard.press('Enter');
		await page.keyboard.type('Another title');
		await page.keyboard.press('Enter');
		await cell(page, 0, 0).filter({ hasText: 'Another title' }).waitFor();
		await page.keyboard.press('ArrowRight');
		await page.keyboard.press('ArrowRight');
		await page.keyboard.press('Enter');
		await page.keyboard.type('Oskar Venn, Petra Lind');
		await page.keyboard.press('Enter');
		await cell(page, 0, 2).filter({ hasText: 'Oskar Venn, Petra Lind' }).waitFor();
		await page.keyboard.press('ArrowRight');
		await page.keyboard.press('Enter');
		await page.keyboard.type('many');
		await page.keyboard.press('Enter');
		await page.getByRole('alert').getByText(`Size of ${number}: “many” is not a figure`).waitFor();
		await page.keyboard.press('Control+a');
		await page.keyboard.type('7,5 h');
		// The owners before it may not have been answered yet.
		const sized = page.waitForResponse((answer) => Boolean(answer.request().postData()?.includes('7.5')));
		await Promise.all([sized, page.keyboard.press('Enter')]);
		await cell(page, 0, 3).filter({ hasText: '7.5 h' }).waitFor();
		const row = await rowOf(number);
		assert.deepEqual(
			[row.title, row.owners, Number(row.size)],
			['Another title', ['Oskar Venn', 'Petra Lind'], 7.5],
		);
		await grid.getByRole('button', { name: 'Column' }).click();
		await grid.getByRole('button', { name: 'Size' }).click({ modifiers: ['Shift'] });
		await grid.getByRole('columnheader', { name: /^Size ?↑2$/ }).waitFor();
		assert.match(page.url(), /sort=column%2Csize/);
		await page.getByRole('combobox', { name: 'Arranged by' }).selectOption('labels');
		await grid
			.getByText(/\d+ cards?, [\d.]+ h left/)
			.first()
			.waitFor();
		const saving = page.waitForEvent('download');
		await page.getByRole('button', { name: 'Save as CSV' }).click();
		const file = await textOf(await saving);
		assert.match(file, /^key,title,column,owners,size,left,due,labels,initiative\n/);
		assert.match(file, new RegExp(`TIDE-${number},Another title,Lined up`));
		quiet();
		await context.close();
	});

	test('takes a paste over several cells whole, or not at all', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}?as=list&sort=-number`);
		const paste = (text: string) =>
			cell(page, 0, 5).evaluate((element, copied) => {
				const data = new DataTransfer();
				data.setData('text/plain', copied);
				element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
			}, text);
		await cell(page, 0, 5).waitFor();
		const before = await cell(page, 0, 5).innerText();
		await paste('3.12.2026\tnight, quay\nsoonish\tnight');
		await page
			.getByRole('alert')
			.getByText(/^Nothing was pasted\. Due of \d+: “soonish” is not a day/)
			.waitFor();
		assert.equal(await cell(page, 0, 5).innerText(), before);
		await paste('3.12.2026\tnight, quay\n4.12.2026\tnight');
		await page.getByText('4 cells changed.').first().waitFor();
		await cell(page, 1, 5).filter({ hasText: 'Fri 4 Dec' }).waitFor();
		await cell(page, 0, 6).filter({ hasText: 'night, quay' }).waitFor();
		await paste(Array.from({ length: 200 }, () => '1\t1\t1\t1').join('\n'));
		await page.getByText('800 cells were copied; at most 500 are pasted at once.').waitFor();
		quiet();
		await context.close();
	});
});

test('a board read as a month shows what is due when, and moves it by key and by dragging', async () => {
	const { rows } = await db.query<{ card: string; version: number; number: number; lead: Person }>(
		`select c.id as card, c.version, c.number,
			(select json_build_object('id', id, 'name', name, 'initials', initials, 'email', email, 'scope', 'write')
			from person where name = 'Ines Okoro') as lead
		from card c join board b on b.id = c.board_id and b.key = 'TIDE'
		join board_column k on k.id = c.column_id and k.name = 'Review'
		where c.archived_at is null limit 1`,
	);
	const { card: id, version, lead } = rows[0]!;
	await command(lead, 'DateCard', { card: id, version, due: '2026-11-25' });
	const number = String(rows[0]!.number);
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}?as=month`);
	const day = (on: string) => page.locator(`[data-day="${on}"]`);
	const card = day('2026-11-25').getByRole('link', { name: new RegExp(`^${number} `) });
	await card.waitFor();
	await page.getByText('Sprint 13 starts').waitFor();
	await accessible(page);
	await tidy(page);
	await card.focus();
	await page.keyboard.press('Shift+ArrowRight');
	await day('2026-11-26')
		.getByRole('link', { name: new RegExp(`^${number} `) })
		.waitFor();
	await spoken(page)
		.filter({ hasText: `Card ${number} is due on 26 Nov.` })
		.waitFor();
	await Promise.all([
		page.waitForResponse('**/api/commands'),
		drag(page, day('2026-11-26').getByRole('link', { name: new RegExp(`^${number} `) }), day('2026-12-04')),
	]);
	await day('2026-12-04')
		.getByRole('link', { name: new RegExp(`^${number} `) })
		.waitFor();
	assert.equal((await rowOf(number)).due, '2026-12-04');
	await page.getByRole('button', { name: 'The month after' }).click();
	await page.getByRole('heading', { name: 'December 2026' }).waitFor();
	await page.getByRole('button', { name: 'This month' }).click();
	await page.getByRole('heading', { name: 'November 2026' }).waitFor();
	quiet();
	await context.close();

	// With a finger, on a phone.
	const phone = await visit(server.url, 'Ines Okoro', `${BOARD}?as=month&month=2026-12`, {
		width: 390,
		height: 780,
		touch: true,
	});
	const there = (on: string) => phone.page.locator(`[data-day="${on}"]`);
	const held = there('2026-12-04').getByRole('link', { name: new RegExp(`^${number} `) });
	await held.scrollIntoViewIfNeeded();
	const [from, to] = [(await held.boundingBox())!, (await there('2026-12-03').boundingBox())!];
	const fingers = await phone.context.newCDPSession(phone.page);
	const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', part: number) =>
		fingers.send('Input.dispatchTouchEvent', {
			type,
			touchPoints:
				type === 'touchEnd'
					? []
					: [
							{
								x: from.x + 20 + (to.x + 30 - from.x - 20) * part,
								y: from.y + 10 + (to.y + 50 - from.y - 10) * part,
							},
						],
		});
	await Promise.all([
		phone.page.waitForResponse('**/api/commands'),
		(async () => {
			await touch('touchStart', 0);
			for (const part of [0.25, 0.5, 0.75, 1]) await touch('touchMove', part);
			await touch('touchEnd', 1);
		})(),
	]);
	assert.equal((await rowOf(number)).due, '2026-12-03');
	phone.quiet();
	await phone.context.close();
});

test('a board read as a tally counts by two fields, and each figure opens its cards', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}?as=tally`, { dark: true });
	await page.getByRole('table', { name: 'Cards by Owners and Column' }).waitFor();
	await accessible(page);
	await tidy(page);
	const figure = page.getByRole('button', { name: /^Yuki Sandel: \d+$/ });
	const n = Number(await figure.innerText());
	await figure.click();
	const behind = page.getByRole('region', { name: 'Cards behind the figure' });
	await behind.getByText(`${n} cards`, { exact: true }).waitFor();
	assert.equal(await behind.getByRole('link').count(), n);
	await page.getByRole('combobox', { name: 'Count' }).selectOption('left');
	await page.getByRole('combobox', { name: 'Rows' }).selectOption('labels');
	await page.getByRole('button', { name: /^All: \d+(\.\d)? h$/ }).waitFor();
	quiet();
	await context.close();
});

test('a way of looking is kept as a lens, found by its name, and let go', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}?by=owners`);
	await page.getByRole('button', { name: 'lens ▾' }).click();
	await page.getByLabel('Keep this lens as').fill('Who has what');
	await accessible(page);
	await page.getByRole('button', { name: 'Keep it' }).click();
	await page.getByRole('button', { name: 'through Who has what ▾' }).waitFor();
	await page.goto(`${BOARD}/flow`);
	const box = page.getByRole('combobox', { name: 'Find a card or do something' });
	await box.fill('who has what');
	await page.getByRole('option', { name: 'Look through the lens Who has what' }).click();
	await page.getByText('Arranged by owners').waitFor();
	await page.getByRole('button', { name: 'through Who has what ▾' }).click();
	await page.getByRole('button', { name: 'The board as it is' }).click();
	await page.getByRole('region', { name: 'Building', exact: true }).waitFor();
	await page.getByRole('button', { name: 'lens ▾' }).click();
	await page.getByRole('button', { name: 'Let go of the lens Who has what' }).click();
	await page.getByText('The lens Who has what is let go.').first().waitFor();
	quiet();
	await context.close();
});

test('several cards are picked on the board, and moved in one step that is taken back', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
	const lined = page.getByRole('region', { name: 'Lined up', exact: true });
	const [one, two] = [await numberOf(cards(lined).nth(0)), await numberOf(cards(lined).nth(1))];
	await cards(lined).nth(0).focus();
	await page.keyboard.press('p');
	await page.keyboard.press('ArrowDown');
	await page.keyboard.press('Shift+p');
	const bar = page.getByRole('group', { name: 'What to do with the picked cards' });
	await bar.getByText(/^2 cards picked/).waitFor();
	await accessible(page);
	await bar.getByRole('combobox', { name: 'Move to' }).selectOption('Field trial');
	const trial = page.getByRole('region', { name: 'Field trial', exact: true });
	for (const number of [one, two])
		await trial
			.getByRole('link', { name: new RegExp(`^${number}`) })
			.first()
			.waitFor();
	await page.keyboard.press('Escape');
	await bar.waitFor({ state: 'detached' });
	await page.keyboard.press('Control+z');
	for (const number of [one, two])
		await lined
			.getByRole('link', { name: new RegExp(`^${number}`) })
			.first()
			.waitFor();
	quiet();
	await context.close();
});
