import assert from 'node:assert/strict';
import { test } from 'node:test';
import { accessible, awake, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();

test('someone signs in with the keyboard alone, is told what is wrong, and signs out', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', '/');
	await page.getByRole('button', { name: /, you: / }).click();
	await page.getByRole('button', { name: 'Sign out' }).click();
	await page.waitForURL('**/sign-in');
	await awake(page);
	await accessible(page);
	await tidy(page);
	await page.getByLabel('E-mail address').focus();
	await page.keyboard.type('ines@tidewatch.example');
	await page.keyboard.press('Tab');
	await page.keyboard.type('not it');
	await page.keyboard.press('Enter');
	await page.getByText('This e-mail address and password do not belong together.').waitFor();
	assert.equal(
		await page.getByLabel('E-mail address').inputValue(),
		'ines@tidewatch.example',
		'what was typed stays',
	);
	await page.getByLabel('Password').fill('harrow demo');
	await page.keyboard.press('Enter');
	await page.getByRole('heading', { name: 'Skerrow Observatory' }).waitFor();
	await page.getByText('Demonstration: everything here is made up').waitFor();
	await accessible(page);
	await tidy(page);
	await page.getByRole('link', { name: 'Shore desk' }).click();
	await page.getByRole('region', { name: 'Preparing', exact: true }).waitFor();
	quiet(/401/);
	await context.close();
});

test('someone makes a token, sees its secret once, uses it and ends it', async () => {
	const { page, context, quiet } = await visit(server.url, 'Petra Lind', '/you');
	await accessible(page);
	await tidy(page);
	await page.getByRole('button', { name: 'Make a token' }).click();
	await page.getByText('The name must not be empty.').waitFor();
	await page.getByLabel('What the token is for').fill('Evening list');
	await page.getByRole('button', { name: 'Make a token' }).click();
	const secret = await page.getByRole('status').locator('code').innerText();
	const ask = () => fetch(`${server.url}/api/boards`, { headers: { authorization: `Bearer ${secret}` } });
	assert.equal((await ask()).status, 200);
	await page.reload();
	await awake(page);
	assert.equal(await page.getByText(secret).count(), 0);
	await page.getByRole('button', { name: 'End Evening list' }).click();
	await page.getByRole('button', { name: 'End Evening list' }).waitFor({ state: 'detached' });
	assert.equal((await ask()).status, 401);
	quiet(/422/);
	await context.close();
});

test('a card is dragged by its grip with a finger, while a finger on the card scrolls', async () => {
	const { page, context, quiet } = await visit(server.url, 'Yuki Sandel', '/boards/tidewatch', {
		width: 390,
		height: 844,
		touch: true,
	});
	const lined = page.getByRole('region', { name: 'Lined up', exact: true });
	const titles = () => lined.locator('li[data-card] .title').allInnerTexts();
	const before = await titles();
	const grip = (await lined.locator('li[data-card]').nth(0).locator('.grip').boundingBox())!;
	const below = (await lined.locator('li[data-card]').nth(2).boundingBox())!;
	const touch = await context.newCDPSession(page);
	const at = (type: string, x: number, y: number) =>
		touch.send('Input.dispatchTouchEvent', {
			type: type as 'touchStart',
			touchPoints: type === 'touchEnd' ? [] : [{ x, y }],
		});
	const [x, y] = [grip.x + grip.width - 12, grip.y + grip.height - 12];
	await at('touchStart', x, y);
	for (let step = 1; step <= 8; step++)
		await at('touchMove', x - step, y + ((below.y + below.height - 6 - y) * step) / 8);
	await at('touchEnd', 0, 0);
	await page.getByRole('status').filter({ hasText: 'position 3' }).first().waitFor();
	assert.deepEqual((await titles()).slice(0, 3), [before[1], before[2], before[0]]);
	// Held at the edge of the window, it goes on to the next column.
	const again = (await lined.locator('li[data-card]').nth(2).locator('.grip').boundingBox())!;
	await at('touchStart', again.x + 20, again.y + 20);
	for (const across of [300, 200, 300, 386]) await at('touchMove', across, again.y);
	await page.waitForFunction(() => document.querySelector('[aria-label="Board"]')!.scrollLeft > 330);
	await at('touchMove', 200, again.y);
	await at('touchEnd', 0, 0);
	await page
		.getByRole('status')
		.filter({ hasText: /is in Building, position/ })
		.first()
		.waitFor();
	quiet();
	await context.close();
});

test('who looks on only reads: no button that would be refused', async () => {
	const { page, context, quiet } = await visit(server.url, 'Della Marsh', '/boards/tidewatch?card=131');
	const panel = page.getByRole('complementary', { name: /^Card TIDE-/ });
	await panel.getByText('History').waitFor();
	// A list that is long may be shown whole: that is reading too.
	const buttons = (await panel.getByRole('button').allInnerTexts()).filter(
		(text) => !/^All \d+ entries$/.test(text),
	);
	// To watch a card is for everyone who sees it.
	assert.deepEqual(buttons, ['Close', 'Watch it']);
	assert.equal(await panel.getByLabel('Title').getAttribute('readonly'), '');
	await accessible(page);
	const card = page.locator('li[data-card] a').first();
	await card.focus();
	await page.keyboard.press('b');
	await page.keyboard.press('Shift+ArrowRight');
	assert.equal(await page.getByRole('dialog').count(), 0);
	const { rows } = await db.query(
		`select count(*) as n from command where person_id = (select id from person where name = 'Della Marsh')`,
	);
	assert.equal(Number(rows[0].n), 0);
	quiet();
	await context.close();
});

test('an address that leads nowhere says so, and leads back', async () => {
	const { page, context } = await visit(server.url, 'Ines Okoro', '/');
	for (const path of ['/nowhere', '/boards/nowhere', '/cards/TIDE-99999']) {
		await page.goto(path);
		await page.getByRole('heading', { name: 'Not found' }).waitFor();
		// Whatever else was to be done is as near as elsewhere.
		await page.getByRole('link', { name: 'My cards' }).waitFor();
		await accessible(page);
		await page.getByRole('link', { name: 'See all boards' }).click();
		await page.getByRole('heading', { name: 'Skerrow Observatory' }).waitFor();
	}
	await context.close();
});
