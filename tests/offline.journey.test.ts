import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Page } from 'playwright-core';
import { accessible, tidy, until, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { startServer, stopServer, type Running } from './support/server.ts';

const db = await useDatabase('demo');

/** Whether an address is kept on the device. */
const isKept = (page: Page, path: string) =>
	until(
		page,
		async (wanted) => {
			for (const name of await caches.keys())
				for (const { url } of await (await caches.open(name)).keys())
					if (new URL(url).pathname + new URL(url).search === wanted) return true;
			return false;
		},
		path,
	);
/** How many commands the browser keeps. */
const waiting = (page: Page, n: number) =>
	until(
		page,
		async (many) => {
			const asked = indexedDB.open('harrow');
			const db = await new Promise<IDBDatabase>((resolve) => (asked.onsuccess = () => resolve(asked.result)));
			const counted = db.transaction('outbox').objectStore('outbox').count();
			const found = await new Promise<number>(
				(resolve) => (counted.onsuccess = () => resolve(counted.result)),
			);
			db.close();
			return found === many;
		},
		n,
	);
const again = (server: Running) => startServer({ PORT: new URL(server.url).port, ORIGIN: server.url });

test('a phone without a connection goes on: thirty changes wait through a reload, and are sent in order; two are refused', async () => {
	const server = await startServer();
	const { rows } = await db.query<{ id: string; key: string; who: string }>(
		`select c.id, b.key || '-' || c.number as key, p.name as who from card c
		join board b on b.id = c.board_id and b.key = 'TIDE'
		join card_owner o on o.card_id = c.id
		join person p on p.id = o.person_id and p.name <> 'Ines Okoro'
		where c.clock = 'running' and c.archived_at is null
		order by p.name, c.number limit 1`,
	);
	const { id, key, who } = rows[0]!;
	const { page, context } = await visit(server.url, who, '/mine', {
		width: 390,
		height: 780,
		touch: true,
		offline: true,
	});
	await page.evaluate(() => navigator.serviceWorker.ready);
	await isKept(page, '/mine');
	await page.getByRole('link', { name: new RegExp(`^${key} `) }).click();
	await page.getByLabel('Talk', { exact: true }).waitFor();
	const board = new URL(page.url());
	await isKept(page, board.pathname + board.search);
	await isKept(page, `/api/cards/${key}`);

	// The connection is gone: what was read is there, and says since when.
	await stopServer(server.process);
	await page.goto(`${server.url}/mine`);
	await page.getByText(/^Not connected: kept on this device, as it was on/).waitFor();
	await page.getByRole('link', { name: new RegExp(`^${key} `) }).waitFor();
	await accessible(page);
	await tidy(page);
	await page.goto(board.href);
	const talk = page.getByLabel('Talk', { exact: true });
	await talk.waitFor();

	// Two changes that will meet those of somebody else, and 28 that will not.
	const title = page.getByLabel('Title', { exact: true });
	await title.fill('What I would call it');
	await page.keyboard.press('Tab');
	await waiting(page, 1);
	for (let i = 1; i <= 14; i++) {
		await talk.fill(`Word ${i}`);
		await page.keyboard.press('Control+Enter');
		await waiting(page, 1 + i);
	}
	// The browser is closed in the middle of it, and opened again.
	await page.close();
	const later = await context.newPage();
	await later.goto(board.href);
	await later.getByLabel('Talk', { exact: true }).waitFor();
	await waiting(later, 15);
	for (let i = 15; i <= 28; i++) {
		await later.getByLabel('Talk', { exact: true }).fill(`Word ${i}`);
		await later.keyboard.press('Control+Enter');
		await waiting(later, 1 + i);
	}
	await later.getByLabel('Title', { exact: true }).fill('And what I call it now');
	await later.keyboard.press('Tab');
	await waiting(later, 30);
	await later
		.getByText(/30 changes wait/)
		.first()
		.waitFor();
	await db.query(`update card set title = 'What others call it', version = version + 7 where id = $1`, [id]);

	await again(server);
	await waiting(later, 0);
	await later
		.getByRole('status')
		.filter({
			hasText: /was refused: .*You wrote.*What I would call it.*There stands now.*What others call it/s,
		})
		.first()
		.waitFor();
	const { rows: said } = await db.query<{ value: string }>(
		`select value from event where card_id = $1 and kind = 'comment' and value like 'Word %' order by seq`,
		[id],
	);
	assert.deepEqual(
		said.map(({ value }) => value),
		Array.from({ length: 28 }, (_, i) => `Word ${i + 1}`),
	);
	const { rows: now } = await db.query<{ title: string }>('select title from card where id = $1', [id]);
	assert.equal(now[0]!.title, 'What others call it');

	// Whoever signs out leaves nothing behind.
	await later.goto(`${server.url}/mine`);
	await later.getByRole('button', { name: /, you: / }).click();
	await later.getByRole('button', { name: 'Sign out' }).click();
	await later.waitForURL('**/sign-in');
	assert.deepEqual(
		await later.evaluate(async () => {
			const kept = await caches.keys();
			const pages = await Promise.all(
				kept.filter((name) => name.includes('pages')).map((name) => caches.open(name)),
			);
			return (await Promise.all(pages.map((cache) => cache.keys()))).flat().map(({ url }) => url);
		}),
		[],
	);
	await context.close();
});
