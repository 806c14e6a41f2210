import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Page } from 'playwright-core';
import { accessible, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { pictureOf } from './support/files.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const BOARD = '/boards/tidewatch';

interface Row {
	id: string;
	number: number;
	title: string;
	reviewer: string | null;
	review_by: string | null;
	percent: number | null;
	start: string | null;
	due: string | null;
	private: boolean;
	description: string;
	checklist: { text: string; done: boolean; quantity?: string; state?: string }[];
	archived_reason: string | null;
}
const rowOf = async (number: number): Promise<Row> =>
	(
		await db.query<Row>(
			`select c.*, c.start::text, c.due::text, c.review_by::text, (select name from person where id = c.reviewer_id) as reviewer
			from card c join board b on b.id = c.board_id where b.key = 'TIDE' and c.number = $1`,
			[number],
		)
	).rows[0]!;
/** Cards in work on the board, the first of them first. */
const inWork = async (): Promise<number[]> =>
	(
		await db.query<{ number: number }>(
			`select c.number from card c join board b on b.id = c.board_id join board_column k on k.id = c.column_id
			where b.key = 'TIDE' and c.clock = 'running' and c.archived_at is null and k.kind = 'work' order by c.number desc`,
		)
	).rows.map(({ number }) => number);
const panelOf = (page: Page, number: number) =>
	page.getByRole('complementary', { name: `Card TIDE-${number}` });
/** Does something that sends a command, and waits for its answer. */
async function answered(page: Page, work: () => Promise<unknown>): Promise<void> {
	const answer = page.waitForResponse('**/api/commands');
	await work();
	assert.equal((await answer).status(), 200);
}

describe('a card in full', () => {
	test('has a reviewer by a day, a length that moves with its dates, and a share done', async () => {
		const [number] = await inWork();
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}?card=${number}`);
		const panel = panelOf(page, number!);
		await answered(page, () => panel.getByLabel('Reviewer').selectOption({ label: 'Yuki Sandel' }));
		await answered(page, async () => {
			await panel.getByLabel('Review by', { exact: true }).fill('2026-12-01');
			await page.keyboard.press('Tab');
		});
		const day = async (label: string, text: string) =>
			answered(page, async () => {
				await panel.getByLabel(label, { exact: true }).fill(text);
				await page.keyboard.press('Tab');
			});
		await day('Due', '2026-12-04');
		await day('Start', '2026-12-01');
		assert.equal(await panel.getByLabel('Length').inputValue(), '4 working days');
		// It starts three working days later, takes as long, and so is due three working days later.
		await day('Start', '2026-12-04');
		assert.equal((await rowOf(number!)).due, '2026-12-09');
		await day('Length', '2 days');
		assert.equal((await rowOf(number!)).due, '2026-12-07');
		await day('Done', '40');
		const row = await rowOf(number!);
		assert.deepEqual([row.reviewer, row.review_by, row.percent], ['Yuki Sandel', '2026-12-01', 40]);
		await panel.getByLabel('Done').fill('lots');
		await page.keyboard.press('Tab');
		await panel.getByText('is not a figure from 0 to 100 %').waitFor();
		await accessible(page);
		await tidy(page);
		quiet();
		await context.close();
	});

	test('takes many checklist lines at once, with how much, a state from the board’s list, and makes a card of one', async () => {
		const [, number] = await inWork();
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}/set-up?part=board`);
		await answered(page, async () => {
			await page.getByLabel('States of checklist lines, in their order').fill('needed, ordered, here');
			await page.keyboard.press('Tab');
		});
		await page.goto(`${BOARD}?card=${number}`);
		const panel = panelOf(page, number!);
		const before = (await rowOf(number!)).checklist.length;
		await panel.getByLabel('A new checklist line').focus();
		await answered(page, () =>
			page.evaluate(() => {
				const data = new DataTransfer();
				data.setData('text/plain', '- Shackles\n2) Chain\n\n[ ] Lamp');
				document.activeElement!.dispatchEvent(
					new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
				);
			}),
		);
		assert.deepEqual(
			(await rowOf(number!)).checklist.slice(before).map(({ text }) => text),
			['Shackles', 'Chain', 'Lamp'],
		);
		await answered(page, () => panel.getByLabel('Chain: state').selectOption('ordered'));
		await panel.getByText('1 ordered (').waitFor();
		// Reaching the last state ticks it off.
		await answered(page, () => panel.getByLabel('Lamp: state').selectOption('here'));
		await panel.getByLabel('Chain: more').click();
		await answered(page, async () => {
			await panel.getByLabel('How much').fill('12 m');
			await page.keyboard.press('Tab');
		});
		const [shackles, chain, lamp] = (await rowOf(number!)).checklist.slice(before);
		assert.deepEqual(
			[shackles!.state, chain!.state, chain!.quantity, lamp!.state, lamp!.done],
			[undefined, 'ordered', '12 m', 'here', true],
		);
		await accessible(page);
		await answered(page, () => panel.getByRole('button', { name: 'Make it a card' }).click());
		await page
			.getByText(/“Chain” is card \d+ in the backlog now/)
			.last()
			.waitFor();
		const { rows } = await db.query(`select title from card order by created_at desc, number desc limit 1`);
		assert.equal(rows[0].title, 'Chain, 12 m');
		quiet();
		await context.close();
	});

	test('takes files, several at once; a picture stands in front on the board', async () => {
		const [, , number] = await inWork();
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}?card=${number}`);
		const panel = panelOf(page, number!);
		await panel.getByText('pick them').waitFor();
		await panel.getByLabel(/^Put files here/).setInputFiles([
			{ name: 'quay.gif', mimeType: 'image/gif', buffer: pictureOf(Buffer.from('colour')) },
			{ name: 'depths.txt', mimeType: 'text/plain', buffer: Buffer.from('3, 4, 5') },
		]);
		await panel.getByRole('link', { name: 'depths.txt' }).waitFor();
		await panel.getByRole('button', { name: 'In front' }).waitFor();
		await accessible(page);
		const wait = page.waitForEvent('download');
		await panel.getByRole('link', { name: 'depths.txt' }).click();
		assert.equal((await wait).suggestedFilename(), 'depths.txt');
		await page.getByRole('button', { name: 'with…' }).click();
		await page.getByRole('checkbox', { name: 'Picture' }).check();
		await page.getByRole('checkbox', { name: 'Open checklist lines' }).check();
		await answered(page, () => page.getByRole('button', { name: 'Keep it for me' }).click());
		const face = page.locator(`li[data-card]`, { hasText: String(number) }).first();
		await face.locator('img').waitFor();
		// What is open on a checklist is ticked off where it stands.
		const [line] = (await rowOf(number!)).checklist.filter(({ done }) => !done);
		await answered(page, () => face.getByRole('checkbox', { name: line!.text }).click());
		assert.equal((await rowOf(number!)).checklist.find(({ text }) => text === line!.text)!.done, true);
		await accessible(page);
		await tidy(page);
		await answered(page, () => panel.getByRole('button', { name: 'Take off quay.gif' }).click());
		await page.getByText('quay.gif was taken off.').last().waitFor();
		await answered(page, () => page.getByRole('button', { name: 'Take it back' }).first().click());
		await panel.getByRole('link', { name: 'quay.gif', exact: true }).waitFor();
		quiet();
		await context.close();
	});

	test('what two write at once stands side by side, and nobody’s is lost', async () => {
		const [number] = await inWork();
		const mine = await visit(server.url, 'Ines Okoro', `${BOARD}?card=${number}`);
		const theirs = await visit(server.url, 'Yuki Sandel', `${BOARD}?card=${number}`);
		for (const [{ page }, words] of [
			[mine, 'Mine: two anchors.'],
			[theirs, 'Theirs: three anchors.'],
		] as const) {
			await page.getByRole('button', { name: /Change description|Write one: description/ }).click();
			await page.getByLabel('Description').fill(words);
		}
		await answered(theirs.page, () => theirs.page.getByRole('button', { name: 'Keep', exact: true }).click());
		await mine.page.getByText('Somebody else wrote here meanwhile:').waitFor();
		await mine.page.getByText('Theirs: three anchors.').waitFor();
		assert.equal(await mine.page.getByLabel('Description').inputValue(), 'Mine: two anchors.');
		assert.equal(await mine.page.getByRole('button', { name: 'Keep', exact: true }).isDisabled(), true);
		await accessible(mine.page);
		// It survives a reload too, with what it was begun from.
		await mine.page.reload();
		await mine.page.getByText('Somebody else wrote here meanwhile:').waitFor();
		await mine.page.getByRole('button', { name: 'Both, one below the other' }).click();
		await answered(mine.page, () => mine.page.getByRole('button', { name: 'Keep', exact: true }).click());
		assert.equal((await rowOf(number!)).description, 'Theirs: three anchors.\n\nMine: two anchors.');
		for (const one of [mine, theirs]) {
			one.quiet();
			await one.context.close();
		}
	});

	test('is private to those who have to do with it, while others only see that it is there', async () => {
		const { rows } = await db.query<{ number: number }>(
			`select c.number from card c join sprint s on s.id = c.sprint_id join board b on b.id = c.board_id
			where b.key = 'TIDE' and c.clock = 'running' and c.archived_at is null and s.closed_at is null
				and not exists (select from card_owner o join person p on p.id = o.person_id where o.card_id = c.id and p.name = 'Oskar Venn')
			order by c.number limit 1`,
		);
		const { number } = rows[0]!;
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}?card=${number}`);
		const { title } = await rowOf(number);
		const other = await visit(server.url, 'Oskar Venn', BOARD);
		await answered(page, () =>
			panelOf(page, number).getByRole('button', { name: 'Make it private' }).click(),
		);
		await panelOf(page, number).getByText('Private: its owners').waitFor();
		// On a page that was open it goes at once.
		const face = other.page.locator('li[data-card]', { hasText: String(number) });
		await face.filter({ hasText: 'Private card' }).waitFor();
		assert.equal(await other.page.getByText(title).count(), 0);
		await other.page.goto(`/cards/TIDE-${number}`);
		assert.equal(await other.page.getByText(title).count(), 0);
		quiet();
		await context.close();
		await other.context.close();
	});

	test('goes on to another board, after what does not fit there was asked; its old address leads there', async () => {
		const [, , , number] = await inWork();
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}?card=${number}`);
		await panelOf(page, number!).getByRole('button', { name: 'To another board' }).click();
		await page.getByLabel('The board').selectOption({ label: 'Shore desk, Skerrow Observatory' });
		await page.getByRole('button', { name: 'Move', exact: true }).click();
		await page.getByText('No place there for').waitFor();
		await accessible(page);
		await answered(page, () => page.getByRole('button', { name: 'Move without that' }).click());
		await page
			.getByText(/It is SHORE-\d+ now/)
			.first()
			.waitFor();
		assert.match((await rowOf(number!)).archived_reason!, /^Moved to SHORE-\d+$/);
		await page.goto(`/cards/TIDE-${number}`);
		await page.getByRole('complementary', { name: /Card SHORE-\d+/ }).waitFor();
		assert.match(page.url(), /boards\/shore-desk/);
		quiet(/409/);
		await context.close();
	});

	test('parts of it are moved, counted and handed over where they stand below it', async () => {
		const [, number] = await inWork();
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}?card=${number}`);
		const panel = panelOf(page, number!);
		await answered(page, async () => {
			await panel.getByLabel('A new sub-card').fill('First half');
			await page.keyboard.press('Enter');
		});
		const [, part] = /(\d+) First half/.exec(
			await panel.getByRole('link', { name: /First half/ }).innerText(),
		)!;
		await answered(page, () => panel.getByLabel(`${part} stands in`).selectOption({ label: 'Review' }));
		await answered(page, async () => {
			const left = panel.getByLabel(`${part}: left`);
			await left.fill(String(Number(await left.inputValue()) + 0.5));
			await page.keyboard.press('Tab');
		});
		await panel.getByRole('button', { name: `Owners of ${part}:` }).click();
		for (const title of ['Boatman', 'Schools'])
			await page.getByRole('checkbox', { name: `Sam Pike (${title})` }).waitFor();
		await page.getByRole('checkbox', { name: /Petra Lind/ }).check();
		await answered(page, () => page.getByRole('dialog').locator('button.go').click());
		const { rows } = await db.query(
			`select k.name as column, c."left", array(select p.name from card_owner o join person p on p.id = o.person_id where o.card_id = c.id) as owners
			from card c join board b on b.id = c.board_id join board_column k on k.id = c.column_id where b.key = 'TIDE' and c.number = $1`,
			[part],
		);
		assert.equal(rows[0].column, 'Review');
		assert.equal(rows[0].left % 1, 0.5);
		assert.ok(rows[0].owners.includes('Petra Lind'));
		quiet(/409/);
		await context.close();
	});
});

describe('as it stood', () => {
	test('is come to by key and from the ribbon, changes nothing, and is left by the same key', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		await page.keyboard.press('z');
		await page.getByLabel('The day').fill('2026-11-17');
		await page.getByLabel('At', { exact: true }).fill('14:00');
		await page.getByRole('button', { name: 'Look', exact: true }).click();
		await page.getByText('As it stood on Tue 17 Nov, 14:00:').waitFor();
		assert.match(page.url(), /at=2026-11-17T14/);
		assert.equal(await page.getByRole('button', { name: 'Add a card' }).count(), 0);
		await page.locator('.went').first().waitFor();
		await accessible(page);
		await tidy(page);
		await page.locator('li[data-card] a').first().focus();
		await page.keyboard.press('z');
		await page.getByRole('button', { name: 'Add a card' }).first().waitFor();
		assert.doesNotMatch(page.url(), /at=/);
		// Drawn along the past of the ribbon.
		const past = (await page.getByRole('link', { name: /^S12:/ }).boundingBox())!;
		await page.mouse.move(past.x + past.width - 4, past.y + 20);
		await page.mouse.down();
		await page.mouse.move(past.x + past.width / 2, past.y + 22, { steps: 4 });
		await page.mouse.up();
		await page.getByText(/As it stood on \w{3} \d+ \w{3}, \d\d:00:/).waitFor();
		await page.getByRole('button', { name: 'Back to now' }).click();
		await page.getByRole('button', { name: 'Add a card' }).first().waitFor();
		quiet();
		await context.close();
	});
});

describe('many cards', () => {
	test('get one value of any field in one step, and are copied', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		const cards = page.locator('li[data-card] a');
		await cards.nth(0).focus();
		await page.keyboard.press('p');
		await cards.nth(1).focus();
		await page.keyboard.press('p');
		const bar = page.getByRole('group', { name: 'What to do with the picked cards' });
		await bar.getByText('2 cards picked').waitFor();
		const numbers = await Promise.all(
			[0, 1].map(async (i) => Number(/^\d+/.exec((await cards.nth(i).innerText()).trim())![0])),
		);
		const before = await Promise.all(numbers.map(rowOf));
		await bar.getByRole('button', { name: 'Any field' }).click();
		await page.getByRole('dialog').getByLabel('Field').selectOption('due');
		await page.getByLabel('Is from now on').fill('11 dec');
		await accessible(page);
		await answered(page, () => page.getByRole('button', { name: 'Change 2 cards' }).click());
		for (const number of numbers) assert.equal((await rowOf(number)).due, '2026-12-11');
		await page.getByRole('dialog').waitFor({ state: 'detached' });
		await answered(page, () => page.keyboard.press('Control+z'));
		for (const [i, number] of numbers.entries()) assert.equal((await rowOf(number)).due, before[i]!.due);
		await bar.getByRole('button', { name: 'Copy' }).click();
		await answered(page, () =>
			page.getByRole('dialog').getByRole('button', { name: 'Copy', exact: true }).click(),
		);
		await page
			.getByText(/\d+ and \d+ wait in the backlog/)
			.last()
			.waitFor();
		quiet();
		await context.close();
	});
});

describe('with one hand on a phone', () => {
	test('a card is found, opened, moved, ticked, photographed, talked of, logged on and put away', async () => {
		const [number] = await inWork();
		const phone = { width: 360, height: 740, touch: true };
		const { page, context, quiet } = await visit(server.url, 'Yuki Sandel', BOARD, phone);
		await page.getByRole('combobox', { name: /Find/ }).fill(String(number));
		await page.getByRole('option', { name: new RegExp(`TIDE-${number}`) }).tap();
		const panel = panelOf(page, number!);
		await panel.getByLabel('Title').waitFor();
		await tidy(page);
		await answered(page, () => panel.getByLabel('Stands in').selectOption({ index: 2 }));
		const [open] = (await rowOf(number!)).checklist.filter(({ done }) => !done);
		await answered(page, () => panel.getByRole('checkbox', { name: open!.text }).tap());
		await panel.getByLabel(/^Put files here/).setInputFiles({
			name: 'photo.gif',
			mimeType: 'image/gif',
			buffer: pictureOf(Buffer.from('photos')),
		});
		await panel.getByRole('link', { name: 'photo.gif', exact: true }).waitFor();
		await panel.getByLabel('Talk').fill('On my way to the quay');
		await answered(page, () => panel.getByRole('button', { name: 'Say it' }).tap());
		await panel.getByRole('button', { name: 'Log time' }).tap();
		await page.getByLabel('Hours').fill('1.5');
		await answered(page, () =>
			page.getByRole('dialog').getByRole('button', { name: 'Keep', exact: true }).tap(),
		);
		await panel.getByRole('button', { name: 'Archive this card' }).tap();
		await page.getByLabel(/Reason|Why/).fill('Done by the harbour');
		await answered(page, () =>
			page
				.getByRole('button', { name: /^Archive/ })
				.last()
				.tap(),
		);
		assert.equal((await rowOf(number!)).archived_reason, 'Done by the harbour');
		quiet(/409/);
		await context.close();
	});
});
