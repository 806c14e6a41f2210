import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Page } from 'playwright-core';
import { accessible, textOf, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const { rows: teams } = await db.query<{ id: string }>(`select team_id as id from board where key = 'TIDE'`);
const PANORAMA = `/teams/${teams[0]!.id}/panorama`;

/** A chain of the demo: a card that waits, and the one that waits for it; both have dates. */
async function pair(nth = 0): Promise<{ first: string; second: string; ids: [string, string] }> {
	const { rows } = await db.query<{ first: string; second: string; ids: [string, string] }>(
		`select x.key || '-' || a.number as first, y.key || '-' || b.number as second, array[a.id::text, b.id::text] as ids
		from card_link l join card a on a.id = l.from_id join card b on b.id = l.to_id
		join board x on x.id = a.board_id join board y on y.id = b.board_id
		where l.kind = 'blocks' and a.clock = 'none' and b.clock = 'none' and a.due is not null and b.start > a.due
		order by a.start, a.number`,
	);
	return rows[nth]!;
}
const datesOf = async (ids: readonly string[]) =>
	(
		await db.query<{ said: string }>(
			`select c.start || ' ' || c.due as said from unnest($1::uuid[]) with ordinality n(id, i) join card c on c.id = n.id order by i`,
			[ids],
		)
	).rows.map(({ said }) => said);
const bar = (page: Page, key: string) => page.getByRole('link', { name: new RegExp(`^${key} `) });
/** Drags a bar so many days of ten pixels to the right. */
async function drag(page: Page, key: string, days: number): Promise<void> {
	const box = (await bar(page, key).boundingBox())!;
	const [x, y] = [box.x + 6, box.y + box.height / 2];
	await page.mouse.move(x, y);
	await page.mouse.down();
	await page.mouse.move(x + 12, y, { steps: 3 });
	await page.mouse.move(x + days * 10, y, { steps: 4 });
	await page.mouse.up();
}

describe('the timeline', () => {
	test('a bar that is dragged takes along what hangs on it, after asking; one step takes it back', async () => {
		const { first, second, ids } = await pair();
		const before = await datesOf(ids);
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', '/boards/tidewatch');
		await page.getByRole('link', { name: 'Panorama' }).click();
		await page.getByRole('group', { name: 'Timeline' }).waitFor();
		await page.getByRole('heading', { name: /initiatives, .* to do with a date on 3 boards/ }).waitFor();
		await accessible(page);
		await tidy(page);
		await bar(page, first).scrollIntoViewIfNeeded();
		await drag(page, first, 14);
		const slip = page.getByRole('dialog', { name: new RegExp(`^${first} moves`) });
		await slip.getByText(second).first().waitFor();
		assert.deepEqual(await datesOf(ids), before, 'nothing is moved before it is agreed');
		await slip.getByRole('button', { name: /^Move all/ }).click();
		await page
			.getByText(new RegExp(`^${first} lies from .* moved along`))
			.first()
			.waitFor();
		const after = await datesOf(ids);
		assert.ok(after[0]! > before[0]! && after[1]! > before[1]!);
		await page.getByRole('button', { name: 'Take it back' }).click();
		await page.getByText('Taken back.').first().waitFor();
		assert.deepEqual(await datesOf(ids), before);
		quiet();
		await context.close();
	});

	test('by key a card is moved a working day, made longer, left, kept, and its dependencies followed', async () => {
		const { first, second, ids } = await pair();
		const before = await datesOf(ids);
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', PANORAMA);
		await bar(page, first).focus();
		await page.keyboard.press('Shift+ArrowLeft');
		await page
			.getByRole('status')
			.getByText(/Enter keeps it, Escape leaves it/)
			.waitFor();
		await page.keyboard.press('Escape');
		await page.getByRole('status').getByText('It stays where it was.').waitFor();
		await page.keyboard.press('ArrowRight');
		await page.waitForFunction(
			(key) => document.activeElement?.getAttribute('aria-label')?.startsWith(`${key} `),
			second,
		);
		await page.keyboard.press('.');
		await page.keyboard.press('Enter');
		await page
			.getByText(new RegExp(`^${second} lies from`))
			.first()
			.waitFor();
		const after = await datesOf(ids);
		assert.equal(after[0], before[0]);
		assert.ok(after[1]! > before[1]!, 'its end moved on');
		await page.keyboard.press('Control+z');
		await page.getByText('Taken back.').first().waitFor();
		assert.deepEqual(await datesOf(ids), before);
		await page.keyboard.press('?');
		await page.getByRole('dialog', { name: 'Keys of the panorama' }).waitFor();
		quiet();
		await context.close();
	});

	test('two leads drag the same chain at once: one wins, the other is told what changed', async () => {
		const { first, ids } = await pair();
		const [one, two] = [
			await visit(server.url, 'Ines Okoro', PANORAMA),
			await visit(server.url, 'Ines Okoro', PANORAMA),
		];
		for (const { page } of [one, two]) {
			await bar(page, first).scrollIntoViewIfNeeded();
			await drag(page, first, 14);
			await page.getByRole('dialog', { name: new RegExp(`^${first} moves`) }).waitFor();
		}
		await one.page.getByRole('button', { name: /^Move all/ }).click();
		await one.page
			.getByText(new RegExp(`^${first} lies from`))
			.first()
			.waitFor();
		const after = await datesOf(ids);
		await two.page.getByRole('button', { name: /^Move all/ }).click();
		await two.page.getByText(/after you last saw it|not what you were shown/).waitFor();
		assert.deepEqual(await datesOf(ids), after);
		await one.page.getByRole('button', { name: 'Take it back' }).click();
		await one.page.getByText('Taken back.').first().waitFor();
		await one.context.close();
		await two.context.close();
	});

	test('rows by people, by months, of one board, of what is late; as CSV and as a picture', async () => {
		const { page, context, quiet } = await visit(server.url, 'Bram Tolver', PANORAMA);
		await page.getByLabel('Rows by').selectOption('people');
		await page.getByRole('button', { name: /^Bram Tolver/ }).waitFor();
		await page.getByLabel('Time by').selectOption('months');
		await page.getByLabel('Boards', { exact: true }).selectOption('Buoy yard');
		await page.waitForURL(/boards=buoy-yard/);
		assert.equal(await page.getByRole('link', { name: /^TIDE-\d+ / }).count(), 0);
		const [csv] = await Promise.all([
			page.waitForEvent('download'),
			page.getByRole('link', { name: 'CSV' }).click(),
		]);
		const text = await textOf(csv);
		assert.match(text, /^card,title,board,initiative,start,due,state,owners,waits for\n/);
		assert.ok(text.includes('BUOY-') && !text.includes('TIDE-1,'));
		const [svg] = await Promise.all([
			page.waitForEvent('download'),
			page.getByRole('button', { name: 'SVG' }).click(),
		]);
		assert.match(await textOf(svg), /^<svg xmlns="http:\/\/www.w3.org\/2000\/svg"[\s\S]*BUOY-/);
		await page.getByRole('checkbox', { name: 'late only' }).check();
		await page.waitForURL(/late=yes/);
		await page.getByLabel('With these words').fill('nothing is called so');
		await page.keyboard.press('Enter');
		await page.getByText('Nothing here has a date, and there is no initiative.').waitFor();
		await page.getByRole('link', { name: 'Look at everything' }).click();
		await page.getByRole('button', { name: /Gauges for every harbour/ }).waitFor();
		quiet();
		await context.close();
	});

	test('cards are narrowed by any field, in every reading, and kept as a lens; figures open to their cards', async () => {
		const { page, context, quiet } = await visit(server.url, 'Bram Tolver', PANORAMA);
		const heading = page.getByRole('heading', { level: 1 });
		const dated = async () => Number(/(\d+) cards? to do/.exec(await heading.innerText())![1]);
		const all = await dated();
		await page.getByRole('button', { name: 'and… by any field' }).click();
		const menu = page.getByRole('group', { name: 'Narrow by any field' });
		await menu.getByLabel('Field', { exact: true }).selectOption('Due');
		await menu.getByLabel('late', { exact: true }).check();
		await page.waitForURL(/where=due/);
		await menu.getByText('late', { exact: true }).last().waitFor();
		await accessible(page);
		await page.keyboard.press('Escape');
		await page.getByRole('button', { name: 'Let go: late' }).waitFor();
		const late = await dated();
		assert.ok(late > 0 && late < all, `${late} of ${all}`);
		const open = async (figure: RegExp, title: string) => {
			await heading.getByRole('button', { name: figure }).click();
			const behind = page.getByRole('region', { name: 'Cards behind the figure' });
			await behind.getByRole('heading', { name: title }).waitFor();
			const keys = await behind.getByRole('listitem').count();
			await behind.getByRole('button', { name: 'Close' }).click();
			await behind.waitFor({ state: 'detached' });
			return keys;
		};
		assert.equal(await open(/to do with a date/, 'To do with a date'), late);
		assert.equal(await open(/late\./, 'Late'), late);
		await page.getByRole('button', { name: 'lens ▾' }).click();
		await page.getByLabel('Keep this lens as').fill('What is late');
		await page.getByRole('button', { name: 'Keep it', exact: true }).click();
		await page.getByText('The lens What is late is kept.').waitFor();
		await page.getByRole('button', { name: 'Let go: late' }).click();
		await page.waitForURL((url) => !url.search.includes('where'));
		assert.equal(await dated(), all);
		const [, loose] = /(\d+) cards have no date and hang on nothing/.exec(await heading.innerText())!;
		assert.equal(await open(/have no date/, 'Without a date'), Number(loose));
		// The same choice over boards by kind of column: their slots say nothing of it.
		await page.getByLabel('Looked at as').selectOption('boards by kind of column');
		const inHand = page.getByRole('button', { name: /of \d+ slots?/ });
		await inHand.first().waitFor();
		await page.getByRole('button', { name: 'lens ▾' }).click();
		await page.getByRole('button', { name: 'What is late', exact: true }).click();
		await page.getByRole('button', { name: 'Let go: late' }).waitFor();
		await page.getByRole('button', { name: 'through What is late ▾' }).waitFor();
		await page.getByLabel('Looked at as').selectOption('boards by kind of column');
		await page.getByRole('columnheader', { name: 'In hand' }).waitFor();
		assert.equal(await inHand.count(), 0);
		// Two conditions on one field, as an address may have them, both hold.
		await page.goto(`${PANORAMA}?where=due:~late&where=due:~soon`);
		await page
			.getByRole('button', { name: /^Let go:/ })
			.nth(1)
			.waitFor();
		assert.equal(await dated(), 0);
		quiet();
		await context.close();
	});

	test('a milestone is added, says what comes before it, and what will be late', async () => {
		const { first, ids } = await pair();
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', PANORAMA);
		await page.getByRole('button', { name: 'Add a milestone' }).click();
		const dialog = page.getByRole('dialog');
		await dialog.getByLabel('Name').fill('Sluice opens');
		const [, due] = (await datesOf(ids))[0]!.split(' ') as [string, string];
		const { rows } = await db.query<{ day: string }>('select ($1::date - 1)::text as day', [due]);
		await dialog.getByLabel('Day of the milestone').fill(rows[0]!.day);
		await dialog.getByRole('button', { name: 'Add it' }).click();
		await dialog.waitFor({ state: 'detached' });
		await page.getByRole('button', { name: 'Sluice opens' }).click();
		await page.getByRole('dialog', { name: 'Sluice opens' }).getByText('Nothing yet.').waitFor();
		const pick = page.getByRole('combobox', { name: 'A card that must be done before it' });
		await pick.fill(first);
		await page.getByRole('option', { name: new RegExp(first) }).waitFor();
		await pick.press('Enter');
		await page.getByRole('dialog').getByText('1 day after it').waitFor();
		await accessible(page);
		await page.getByRole('dialog').getByRole('button', { name: 'Take the milestone away' }).click();
		await page.getByRole('button', { name: 'Sluice opens' }).waitFor({ state: 'detached' });
		quiet();
		await context.close();
	});

	test('on a phone, in the dark, a finger drags a bar too', async () => {
		const { first, ids } = await pair();
		const before = await datesOf(ids);
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', PANORAMA, {
			...{ width: 390, height: 800, touch: true, dark: true },
		});
		await bar(page, first).scrollIntoViewIfNeeded();
		await accessible(page);
		await tidy(page);
		// Its left end, which stands in sight whatever the width.
		const box = (await bar(page, first).boundingBox())!;
		const [x, y] = [Math.max(box.x, 140) + 5, box.y + box.height / 2];
		const touch = await context.newCDPSession(page);
		const send = (type: string, at?: number) =>
			touch.send('Input.dispatchTouchEvent', {
				type: type as 'touchStart',
				touchPoints: at === undefined ? [] : [{ x: at, y }],
			});
		await send('touchStart', x);
		for (const step of [8, 24, 40, 60, 80]) await send('touchMove', x + step);
		await send('touchEnd');
		await page.getByRole('dialog').getByRole('button', { name: 'Leave it' }).click();
		assert.deepEqual(await datesOf(ids), before);
		quiet();
		await context.close();
	});
});

describe('initiatives by stage', () => {
	test('move by key, are held where a stage is full, let through with a reason, and added', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${PANORAMA}?as=stages`);
		const under = page.getByRole('region', { name: 'Under way' });
		await under.getByText('4 of 4').waitFor();
		await accessible(page);
		await tidy(page);
		const figures = page.getByRole('region', { name: 'Agreed' }).getByRole('link', { name: 'Open figures' });
		await figures.focus();
		await page.keyboard.press('Shift+ArrowRight');
		const dialog = page.getByRole('dialog', { name: 'Under way is full' });
		await dialog.getByText(/Under way is full \(4 of 4\)/).waitFor();
		await dialog.getByLabel('Why it is let through').fill('The ministry asks');
		await dialog.getByRole('button', { name: 'Let it through' }).click();
		await under.getByText('let through: The ministry asks').waitFor();
		await page.getByRole('button', { name: 'Take it back' }).click();
		await page.getByText('Taken back.').first().waitFor();
		await page.getByLabel('A new initiative').fill('Lamps along the pier');
		await page.getByRole('button', { name: 'Add it' }).click();
		await page
			.getByRole('region', { name: 'In no stage yet' })
			.getByRole('link', { name: 'Lamps along the pier' })
			.click();
		await page.getByRole('heading', { name: 'Lamps along the pier' }).waitFor();
		quiet(/409/);
		await context.close();
	});
});

test('boards by kind of column open to their cards', async () => {
	const { page, context, quiet } = await visit(server.url, 'Petra Lind', `${PANORAMA}?as=kinds`);
	const cell = page
		.getByRole('row', { name: /^Buoy yard/ })
		.getByRole('button')
		.nth(1);
	const n = Number(/^\d+/.exec((await cell.textContent())!.trim())![0]);
	await cell.click();
	const behind = page.getByRole('region', { name: 'Cards behind the figure' });
	await behind.getByRole('heading', { name: 'In hand on Buoy yard' }).waitFor();
	assert.equal(await behind.getByRole('listitem').count(), n);
	await accessible(page);
	await tidy(page);
	quiet();
	await context.close();
});

test('an initiative’s page says how it goes, opens its hours to their cards, and is set where it stands', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', '/boards/buoy-yard');
	// From another board that shares it one comes to where it is at home.
	await page.goto('/boards/buoy-yard/initiatives/Gauges%20for%20every%20harbour');
	await page.waitForURL(/\/boards\/tidewatch\/initiatives\//);
	await page.getByText(/\d+% done:/).waitFor();
	await page.getByRole('heading', { name: /^Hours over time/ }).waitFor();
	await accessible(page);
	await tidy(page);
	await page.getByLabel('Work told apart by').selectOption('quarter');
	await page.getByRole('button', { name: /^Everyone, Q4 2026/ }).click();
	await page.getByRole('region', { name: 'Cards behind the figure' }).getByRole('link').first().waitFor();
	await page.getByText('What is set of it').click();
	await page.getByLabel('Budget in hours').fill('900');
	await page.getByLabel('Budget in hours').press('Tab');
	await page.getByText(/worked of 900 h/).waitFor();
	await page.getByLabel('What it is for').fill('A gauge at each of them.');
	await page.getByLabel('What it is for').press('Tab');
	await page.getByText('A gauge at each of them.').first().waitFor();
	quiet();
	await context.close();
});
