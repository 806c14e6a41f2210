import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Page } from 'playwright-core';
import { balances } from '../src/core/sprint/settle.ts';
import { accessible, awake, textOf, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { drag, middle } from './support/planning.ts';
import { startServer } from './support/server.ts';
import { at, ledgerOf, plannedBoard, type SprintBoard } from './support/sprint.ts';

const db = await useDatabase('empty');
const GOAL = 'The mast stands';
/** A clock that is set and goes on: what happens in a sprint happens after its start. */
const server = await startServer({ HARROW_NOW: '2026-11-23T09:00:00Z+' });

const newBoard = () =>
	at('2026-11-22T16:00:00Z', async () => {
		const board = await plannedBoard(db, [
			['Raise the mast', 12],
			['Wire the radio', 6],
			['Paint the hut', 4],
			['Write it up', 2],
		]);
		await db.query(`update sprint set goal = $2 where board_id = $1 and number = 1`, [board.id, GOAL]);
		await db.query(
			`insert into card_owner select c.id, $2 from card c where c.board_id = $1 on conflict do nothing`,
			[board.id, board.member.id],
		);
		return board;
	});
const card = (page: Page, title: string) => page.locator('li[data-card]').filter({ hasText: title });
const column = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const row = (page: Page, title: string) => page.locator('.row[data-card]').filter({ hasText: title });
const latest = async (board: SprintBoard, table: string) =>
	(
		await db.query(
			`select t.* from ${table} t join card c on c.id = t.card_id where c.board_id = $1 order by t.logged_at desc limit 1`,
			[board.id],
		)
	).rows[0];

describe('a whole sprint, from its start to the start of the next', () => {
	test('with the mouse', async () => {
		const board = await newBoard();
		const { page, context, quiet } = await visit(server.url, board.lead.name, `/boards/${board.slug}/plan`);
		await page.getByRole('button', { name: 'Agree and start sprint 1' }).click();
		await page.waitForURL(`**/boards/${board.slug}`);
		await column(page, 'Ready').getByText('Raise the mast').waitFor();

		// Work: hours on a card, with a note and a billable mark.
		await drag(page, card(page, 'Raise the mast').locator('a').first(), await middle(column(page, 'Making')));
		await column(page, 'Making').getByText('Raise the mast').waitFor();
		await card(page, 'Raise the mast').locator('a').first().click();
		const panel = page.getByRole('complementary', { name: new RegExp(`^Card ${board.key}-`) });
		await panel.getByRole('button', { name: 'Log time' }).click();
		const dialog = page.getByRole('dialog', { name: /^Log time on/ });
		await dialog.getByLabel('Hours').fill('2h 30m');
		await dialog.getByLabel('Note').fill('Guy wires first');
		await dialog.getByLabel('Billable').check();
		await accessible(page);
		await dialog.getByRole('button', { name: 'Keep' }).click();
		await panel.getByText('2.5 h worked, 9.5 h left of 12 h.').waitFor();
		const entry = await latest(board, 'time_entry');
		assert.deepEqual([entry.hours, entry.note, entry.billable], [2.5, 'Guy wires first', true]);

		// A surprise comes in, and something blocks.
		await panel.getByRole('button', { name: 'Close' }).click();
		await column(page, 'Ready').getByRole('button', { name: /^Add/ }).click();
		await page.getByRole('textbox', { name: /title/i }).fill('Lightning struck the hut');
		await page.keyboard.press('Enter');
		await card(page, 'Lightning struck the hut').waitFor();
		await page.keyboard.press('Escape');
		await card(page, 'Wire the radio').locator('a').first().click();
		await panel.getByRole('button', { name: 'Block' }).click();
		await page.getByLabel('Reason, and who or what is waited for').fill('No licence yet');
		await page.getByRole('button', { name: 'Mark as blocked' }).click();
		await panel.getByText('No licence yet').first().waitFor();
		await panel.getByRole('button', { name: 'Close' }).click();
		await drag(page, card(page, 'Write it up').locator('a').first(), await middle(column(page, 'Done')));
		await column(page, 'Done').getByText('Write it up').waitFor();

		// Settle: each unfinished card is decided, and the ledger always adds up.
		await page.getByRole('link', { name: 'Settle', exact: true }).click();
		await page.getByText('4 are not: decide each.').waitFor();
		await accessible(page);
		await tidy(page);
		const close = page.getByRole('button', { name: 'Close sprint 1' });
		assert.equal(await close.isDisabled(), true);
		await page.getByText('4 undecided').waitFor();
		for (const [title, decision, reason] of [
			['Raise the mast', 'Split', 'bigger than it looked'],
			['Wire the radio', 'Carry', 'blocked'],
			['Paint the hut', 'Backlog', 'pushed out by surprises'],
			['Lightning struck the hut', 'Drop', 'other'],
		] as const) {
			const here = row(page, title);
			const held = here.getByRole('button', { name: /undecided/ });
			if (await held.count()) await held.click();
			await here.getByRole('button', { name: new RegExp(`${decision}`) }).click();
			await here.getByRole('combobox').selectOption({ label: reason });
			if (reason === 'other') await here.getByLabel('The reason in words').fill('A false alarm');
			if (decision === 'Split') {
				await page.getByLabel('Finished in sprint 1').fill('The mast lies ready');
				await page.getByLabel(/^New card, linked/).fill('Raise the mast itself');
			}
		}
		await page.getByText('4 of 4 decided').waitFor();
		const sides = page.getByRole('group', { name: 'What became of it' });
		await sides.getByRole('button', { name: '9.5 h split off' }).click();
		await page.getByRole('region', { name: 'Cards behind the figure' }).getByText('Raise the mast').waitFor();
		await page.getByText(/Sprint 2 would start \d+% full/).click();
		await page
			.getByText(/of [\d.]+ h$/)
			.first()
			.waitFor();
		await accessible(page);
		await close.click();
		const outcome = page.getByRole('dialog', { name: 'Close sprint 1' });
		await outcome.getByLabel('Partly').check();
		await outcome.getByLabel('In the team’s words').fill('It lies ready.');
		await accessible(page);
		await outcome.getByRole('button', { name: 'Close sprint 1' }).click();
		await page.getByRole('heading', { name: 'Sprint 1 is settled.' }).waitFor();
		const ledger = await ledgerOf(board, 1);
		assert.ok(balances(ledger));
		assert.deepEqual(
			[ledger.committed, ledger.splitOff, ledger.carried, ledger.returned, ledger.delivered],
			[24, 9.5, 6, 4, 4.5],
		);
		await accessible(page);
		await tidy(page);

		// Its report says all of it, and leaves as a file.
		await page.getByRole('link', { name: 'report', exact: true }).click();
		await page.getByText('The goal was partly met.').waitFor();
		await page.getByText('It lies ready.').waitFor();
		await page.getByRole('heading', { name: 'Not finished' }).waitFor();
		await page.getByText('A false alarm', { exact: true }).waitFor();
		const download = page.waitForEvent('download');
		await page.getByRole('link', { name: 'Markdown' }).click();
		const text = await textOf(await download);
		assert.match(text, /## Ledger/);
		assert.match(text, /Wire the radio: carry, 6 h left; blocked/);
		await accessible(page);
		await tidy(page);

		// The next one is started straight on, with only what is left.
		await page.getByRole('link', { name: 'Settle', exact: true }).click();
		await page.getByRole('button', { name: 'Start sprint 2' }).click();
		await page.getByText(/^Sprint 2 runs until/).waitFor();
		assert.equal((await ledgerOf(board, 2)).committed, 15.5);
		quiet();
		await context.close();
	});

	test('with the keyboard alone', async () => {
		const board = await newBoard();
		const { page, context, quiet } = await visit(server.url, board.lead.name, `/boards/${board.slug}/plan`);
		const to = async (words: string) => {
			await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
			await page.keyboard.press('Space');
			await page.keyboard.type(words);
			await page.keyboard.press('Enter');
		};
		await page.getByRole('button', { name: 'Agree and start sprint 1' }).focus();
		await page.keyboard.press('Enter');
		await page.waitForURL(`**/boards/${board.slug}`);
		const focused = () => page.evaluate(() => document.activeElement?.textContent ?? '');
		await card(page, 'Raise the mast').locator('a').first().focus();
		await page.keyboard.press('Shift+ArrowRight');
		await column(page, 'Making').getByText('Raise the mast').waitFor();
		await page.waitForFunction(
			() =>
				document.activeElement?.matches('a') &&
				document.activeElement.textContent?.includes('Raise the mast'),
		);
		await page.keyboard.press('l');
		await page.getByRole('dialog', { name: /^Log time on/ }).waitFor();
		await page.waitForFunction(() => document.activeElement?.id === 'time-hours');
		await page.keyboard.type('3:15');
		await page.keyboard.press('Enter');
		await page
			.getByText(/3\.25 h logged on/)
			.first()
			.waitFor();
		await page.waitForFunction(
			() =>
				document.activeElement?.matches('a') &&
				document.activeElement.textContent?.includes('Raise the mast'),
		);
		assert.match(await focused(), /Raise the mast/, 'the card has the focus again');
		await page.keyboard.press('b');
		await page.getByRole('dialog', { name: /^What blocks/ }).waitFor();
		await page.waitForFunction(() => document.activeElement?.tagName === 'TEXTAREA');
		await page.keyboard.type('The crane is away');
		await page.keyboard.press('Enter');
		await column(page, 'Making').getByText('The crane is away').waitFor();
		// It shows at once; the dialog closes with the answer.
		await page.getByRole('dialog').waitFor({ state: 'detached' });
		await card(page, 'Write it up').locator('a').first().focus();
		await page.keyboard.press('n');
		await page.waitForFunction(() => document.activeElement?.matches('input, textarea'));
		await page.keyboard.type('Storm took the cable');
		await page.keyboard.press('Enter');
		await card(page, 'Storm took the cable').waitFor();
		await page.keyboard.press('Escape');
		await card(page, 'Write it up').locator('a').first().focus();
		for (const place of ['Making', 'Check', 'Done']) {
			await page.keyboard.press('Shift+ArrowRight');
			await column(page, place).getByText('Write it up').waitFor();
		}

		// What shows at once has been answered too.
		const done = `select from card c join board b on b.id = c.board_id where b.slug = $1 and c.title = 'Write it up' and c.clock = 'done'`;
		while (!(await db.query(done, [board.slug])).rowCount);
		await to('Settle');
		await page.getByText('4 are not: decide each.').waitFor();
		// Undecided cards hold the closing; picked ones are decided together.
		const current = () => page.locator('.row.current');
		await current().getByText('Raise the mast').waitFor();
		await page.keyboard.press('1');
		await current().getByRole('combobox').waitFor();
		await page.waitForFunction(() => document.activeElement?.tagName === 'SELECT');
		await page.keyboard.type('waiting');
		await page.keyboard.press('Tab');
		await page.evaluate(() => (document.activeElement as HTMLElement).blur());
		await page.keyboard.press('ArrowDown');
		await page.keyboard.press('p');
		await page.keyboard.press('ArrowDown');
		await page.keyboard.press('p');
		await page.keyboard.press('3');
		await page.waitForFunction(() => document.activeElement?.tagName === 'SELECT');
		await page.keyboard.type('not');
		await page.getByText('3 of 4 decided').waitFor();
		await page.evaluate(() => (document.activeElement as HTMLElement).blur());
		await page.keyboard.press('End');
		await page.keyboard.press('4');
		await page.waitForFunction(() => document.activeElement?.tagName === 'SELECT');
		await page.keyboard.type('pushed');
		await page.getByText('4 of 4 decided').waitFor();

		// What was said so far is there after the page was read anew.
		await page.reload();
		await awake(page);
		await page.getByText('4 of 4 decided').waitFor();
		await page.getByRole('button', { name: 'Close sprint 1' }).focus();
		await page.keyboard.press('Enter');
		await page.getByRole('dialog', { name: 'Close sprint 1' }).waitFor();
		await page.waitForFunction(() => document.activeElement?.closest('dialog'));
		await page.getByRole('radio', { name: 'No' }).focus();
		await page.keyboard.press('Space');
		await page.keyboard.press('Enter');
		await page.getByRole('heading', { name: 'Sprint 1 is settled.' }).waitFor();
		const ledger = await ledgerOf(board, 1);
		assert.ok(balances(ledger) && ledger.open === 0);
		assert.deepEqual([ledger.carried, ledger.returned], [8.75, 10]);

		// Taken back, everything is as it was; then closed again and the next one started.
		await page.getByRole('button', { name: 'Take the closing back' }).focus();
		await page.keyboard.press('Enter');
		await page.getByText('4 are not: decide each.').waitFor();
		assert.equal((await ledgerOf(board, 1)).open, 18.75);
		for (let i = 0; i < 4; i++) {
			await page.keyboard.press('3');
			await page.waitForFunction(() => document.activeElement?.tagName === 'SELECT');
			await page.keyboard.type('scope');
			await page.getByText(`${i + 1} of 4 decided`).waitFor();
			await page.evaluate(() => (document.activeElement as HTMLElement).blur());
			await page.keyboard.press('ArrowDown');
		}
		await page.getByRole('button', { name: 'Close sprint 1' }).focus();
		await page.keyboard.press('Enter');
		await page
			.getByRole('dialog', { name: 'Close sprint 1' })
			.getByRole('button', { name: /^Close sprint/ })
			.focus();
		await page.keyboard.press('Enter');
		await page.getByRole('button', { name: 'Start sprint 2' }).focus();
		await page.keyboard.press('Enter');
		await page.getByText(/^Sprint 2 runs until/).waitFor();
		await to('Look back');
		await page.getByRole('heading', { name: 'Velocity' }).waitFor();
		quiet();
		await context.close();
	});

	test('a member sees what is decided, and that only leads settle', async () => {
		const board = await newBoard();
		const lead = await visit(server.url, board.lead.name, `/boards/${board.slug}/plan`);
		await lead.page.getByRole('button', { name: 'Agree and start sprint 1' }).click();
		await lead.page.waitForURL(`**/boards/${board.slug}`);
		const { page, context, quiet } = await visit(
			server.url,
			board.member.name,
			`/boards/${board.slug}/settle`,
		);
		await page.getByText('Only leads settle on this board.').waitFor();
		assert.equal(await page.getByRole('button', { name: /^Close sprint/ }).count(), 0);
		assert.equal(await page.getByText('decide each').count(), 0, 'what one may not do is not asked of one');
		quiet();
		await context.close();
		await lead.context.close();
	});
});
