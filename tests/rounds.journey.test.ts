import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Page } from 'playwright-core';
import { accessible, awake, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { cardNumbered } from './support/planning.ts';
import { startServer } from './support/server.ts';
import { command, smallBoard } from './support/small-board.ts';
import { at, runningBoard, seen } from './support/sprint.ts';

const db = await useDatabase('demo');
const server = await startServer();
const ROUNDS = '/boards/tidewatch/rounds';
const PLACES = ['rounds', '', 'backlog', 'plan', 'settle', 'look-back', 'flow'];
const found = (page: Page, kind: string) =>
	page.locator('li.finding').filter({ has: page.getByText(kind, { exact: true }) });
/** The number of the one card that a finding is about. */
const numberIn = async (page: Page, kind: string) =>
	Number(await found(page, kind).first().locator('a.card b').innerText());
const talk = async (number: number) =>
	(
		await db.query(
			`select e.value from event e join card c on c.id = e.card_id join board b on b.id = c.board_id and b.key = 'TIDE'
			where c.number = $1 and e.kind = 'comment' order by e.seq desc limit 1`,
			[number],
		)
	).rows[0]?.value;

describe('the rounds', () => {
	test('each finding names its cards and is remedied where it stands', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', ROUNDS);
		const before = await page.locator('li.finding').count();
		assert.ok(before >= 5, `${before} findings`);
		await page.getByText(`${before} things need somebody`).waitFor();
		await accessible(page);
		await tidy(page);

		// Ask: what is said lands in the card's talk.
		const asked = await numberIn(page, 'Blocked');
		await found(page, 'Blocked').first().getByRole('button', { name: 'Ask' }).click();
		const dialog = page.getByRole('dialog', { name: `Ask on ${asked}` });
		await accessible(page);
		await dialog.getByRole('textbox').fill('Who rings them today?');
		await dialog.getByRole('button', { name: 'Ask' }).click();
		await page.getByText(`Said on card ${asked}.`).first().waitFor();
		assert.equal(await talk(asked), 'Who rings them today?');

		// Whom it waits for stands in the sentence from then on.
		await found(page, 'Blocked').first().getByRole('button', { name: 'Waits for…' }).click();
		const waits = page.getByRole('dialog', { name: `What does ${asked} wait for?` });
		await waits.getByRole('textbox').fill('the Friday boat');
		await waits.getByRole('button', { name: 'Keep' }).click();
		await found(page, 'Blocked')
			.getByText(/, waiting for the Friday boat\.$/)
			.waitFor();

		// Unblocked, it is gone from the list.
		const blocked = await found(page, 'Blocked').count();
		await found(page, 'Blocked').first().getByRole('button', { name: 'Unblock' }).click();
		await page.getByText(`Card ${asked} is no longer blocked.`).first().waitFor();
		await page.waitForFunction(
			(n) =>
				[...document.querySelectorAll('li.finding .kind')].filter((k) => k.textContent === 'Blocked').length <
				n,
			blocked,
		);

		// Over the promise: a card goes to somebody else, right here.
		const over = found(page, 'Over the promise').first();
		const whose = /^(\S+ \S+) holds/.exec(await over.locator('p').innerText())![1]!;
		if (await over.locator('summary').count()) await over.locator('summary').click();
		const [number] = /\d+/.exec(await over.locator('a b').first().innerText())!;
		await over.getByRole('button', { name: 'Owners' }).first().click();
		const owners = page.getByRole('dialog', { name: `Who owns ${number}?` });
		await owners.getByRole('checkbox', { name: new RegExp(whose) }).uncheck();
		await owners
			.getByRole('checkbox', { name: /Tomas Reyl|Yuki Sandel/ })
			.first()
			.check();
		await owners.getByRole('button', { name: /^Give it to/ }).click();
		await owners.waitFor({ state: 'detached' });
		await page.waitForFunction(
			async (url) => (await (await fetch(url)).json()).owners.length > 0,
			`/api/cards/TIDE-${number}`,
		);
		assert.ok(!(await cardNumbered(db, Number(number))).owners.includes(whose));
		quiet();
		await context.close();
	});

	test('whoever has nothing to do pulls the next card where it is said', async () => {
		const board = await runningBoard(db, [
			['In hand', 4],
			['Next up', 3],
			['Later', 3],
		]);
		await at('2026-11-23T10:00:00Z', async () => {
			const [first] = board.cards as [string];
			const send = async (name: string, more: object) =>
				command(board.lead, name, { ...(await seen(db, first))[0], ...more });
			await send('AssignCard', { owners: [board.member.id] });
			await send('MoveCard', { column: board.columns.Making });
			await send('MoveCard', { column: board.columns.Done });
		});
		const next = await startServer({ HARROW_NOW: '2026-11-24T10:00:00Z' });
		const { page, context, quiet } = await visit(next.url, board.member.name, `/boards/${board.slug}/rounds`);
		const idle = found(page, 'Nothing to do').filter({ hasText: board.member.name });
		await idle.getByText('This one waits in Ready.').waitFor();
		await idle.getByText('Next up').waitFor();
		await idle.getByRole('button', { name: 'Pull it' }).click();
		await page.getByText('Card 2 is in Making.').first().waitFor();
		await idle.waitFor({ state: 'detached' });
		const { rows } = await db.query(
			`select k.name, array(select person_id::text from card_owner o where o.card_id = c.id) as owners
			from card c join board_column k on k.id = c.column_id where c.id = $1`,
			[board.cards[1]],
		);
		assert.deepEqual(rows[0], { name: 'Making', owners: [board.member.id] });
		quiet();
		await context.close();
	});

	test('what can wait is put aside for today with a reason, for everybody, and is called back', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', ROUNDS);
		const sentence = await page.locator('li.finding p').first().innerText();
		await page
			.locator('li.finding')
			.first()
			.getByRole('button', { name: /^Not today/ })
			.click();
		const dialog = page.getByRole('dialog', { name: 'Put it aside for today?' });
		await dialog.getByRole('button', { name: 'Not today' }).click();
		await dialog.getByText('Give a reason').waitFor();
		await dialog.getByRole('textbox').fill('The boat comes tomorrow');
		await dialog.getByRole('button', { name: 'Not today' }).click();
		const aside = page.locator('section.aside li').filter({ hasText: sentence });
		await aside.getByText('Ines Okoro: The boat comes tomorrow').waitFor();
		await accessible(page);
		const other = await visit(server.url, 'Petra Lind', ROUNDS);
		await other.page.getByText('The boat comes tomorrow').waitFor();
		await aside.getByRole('button', { name: 'Show it again' }).click();
		await aside.waitFor({ state: 'detached' });
		await page.locator('li.finding').filter({ hasText: sentence }).first().waitFor();
		quiet();
		await context.close();
		await other.context.close();
	});

	test('a board on which all is well says so; a continuous board has rounds too; on a phone in the dark', async () => {
		const board = await smallBoard(db);
		const phone = { width: 360, height: 780, dark: true, touch: true };
		const well = await visit(server.url, board.lead.name, `/boards/${board.slug}/rounds`);
		await well.page.getByText('Nothing needs anybody just now.').waitFor();
		await accessible(well.page);
		await well.context.close();
		for (const path of [ROUNDS, '/boards/buoy-yard/rounds', '/boards/shore-desk/rounds']) {
			const { page, context, quiet } = await visit(server.url, 'Ines Okoro', path, phone);
			await page
				.getByText(/needs? (somebody|anybody)/)
				.first()
				.waitFor();
			await accessible(page);
			await tidy(page);
			quiet();
			await context.close();
		}
	});
});

test('the board is walked with keys alone: notes land on the cards, who was not heard is said, the summary is copied', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', '/boards/tidewatch');
	await context.grantPermissions(['clipboard-read', 'clipboard-write']);
	await page.keyboard.press('Space');
	await page.keyboard.type('Walk the board');
	await page.keyboard.press('Enter');
	const where = page.getByRole('status').filter({ hasText: /card 1 of/ });
	await where.waitFor();
	await accessible(page);
	await tidy(page);
	const all = Number(/of (\d+)/.exec(await where.innerText())![1]);
	const shown = async () => Number(await page.locator('.walk article .number').innerText());
	const { rows } = await db.query<{ number: number }>(
		`select c.number from card c
		join board_column k on k.id = c.column_id join board b on b.id = c.board_id and b.key = 'TIDE'
		where k.kind <> 'done' and c.archived_at is null order by k.position desc, coalesce(c.started_at, c.entered_at), c.number`,
	);
	assert.equal(all, rows.length);
	const seen: number[] = [await shown()];
	await page.keyboard.press('n');
	await page.waitForFunction(() => document.activeElement?.id === 'walk-note');
	await page.keyboard.type('Ready for the tide on Thursday');
	await page.keyboard.press('Enter');
	await page.locator('.said').getByText('Ready for the tide on Thursday').waitFor();
	for (let i = 1; i < all; i++) {
		await page.keyboard.press('ArrowRight');
		await page.getByText(`card ${i + 1} of ${all}`).waitFor();
		seen.push(await shown());
	}
	assert.deepEqual(
		seen,
		rows.map(({ number }) => number),
		'from the last column backwards, oldest first',
	);
	await page.keyboard.press('ArrowLeft');
	await page.getByText(`card ${all - 1} of ${all}`).waitFor();
	await page.keyboard.press('ArrowRight');
	await page.keyboard.press('ArrowRight');
	await page.getByText('That was the board.').waitFor();
	assert.equal(await talk(seen[0]!), 'Ready for the tide on Thursday');
	const summary = await page.locator('pre').innerText();
	assert.match(summary, new RegExp(`TIDE-${seen[0]} .*: Ready for the tide on Thursday`));
	await accessible(page);
	await tidy(page);
	await page.getByRole('button', { name: 'Copy the summary' }).focus();
	await page.keyboard.press('Enter');
	await page.getByRole('button', { name: 'Copied' }).waitFor();
	assert.equal(await page.evaluate(() => navigator.clipboard.readText()), summary);
	await page.keyboard.press('Escape');
	await page.getByText(/need somebody/).waitFor();
	quiet();
	await context.close();
});

test('a sprint past its end says so on every place of its board until it is settled', async () => {
	const late = await startServer({ HARROW_NOW: '2026-11-30T09:00:00Z' });
	const { page, context, quiet } = await visit(late.url, 'Ines Okoro', ROUNDS);
	const number = (
		await db.query(
			`select s.number from sprint s join board b on b.id = s.board_id and b.key = 'TIDE' where s.started_at is not null and s.closed_at is null`,
		)
	).rows[0].number;
	for (const place of PLACES) {
		await page.goto(`/boards/tidewatch/${place}`);
		await awake(page);
		await page
			.getByRole('link', { name: new RegExp(`^Sprint ${number} over, not settled`) })
			.getByText('over, not settled')
			.waitFor();
	}
	await page.goto(`/boards/tidewatch/look-back/${number}`);
	await page.getByText('It is over and not settled').waitFor();
	await page.goto(ROUNDS);
	await page.getByText(new RegExp(`Sprint ${number} ended 3 days ago and is not settled`)).waitFor();
	await page.getByRole('link', { name: 'Settle it' }).click();
	await page.getByText(`Sprint ${number} is over.`).waitFor();
	await accessible(page);
	await tidy(page);
	quiet();
	await context.close();
});

test('of very many findings the first are drawn, the rest as somebody comes to them, and on paper all', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', ROUNDS);
	const [lead] = (await db.query(`select id, name, initials, email from person where name = 'Ines Okoro'`))
		.rows;
	const [board] = (await db.query(`select id from board where slug = 'tidewatch'`)).rows;
	const cards = Array.from({ length: 90 }, (_, i) => ({ title: `Overdue ${i + 1}`, due: '2026-11-10' }));
	await command({ ...lead, scope: 'write' }, 'AddCards', { board: board.id, cards });
	const all = page.getByText(/\d\d\s+things\s+need\s+somebody/);
	const said = Number((await all.innerText()).split(/\s/)[0]);
	assert.ok(said > 90);
	const drawn = () => page.locator('li.finding').count();
	const first = await drawn();
	assert.ok(first < said, `${first} of ${said} drawn`);
	await accessible(page);
	await tidy(page);
	await page.locator('.page').evaluate((list) => list.scrollTo(0, list.scrollHeight));
	await page.waitForFunction((before) => document.querySelectorAll('li.finding').length > before, first);
	assert.ok((await drawn()) > first);
	await page.reload();
	await awake(page);
	assert.equal(await drawn(), first);
	await page.evaluate(() => dispatchEvent(new Event('beforeprint')));
	assert.equal(await drawn(), said);
	quiet();
	await context.close();
});
