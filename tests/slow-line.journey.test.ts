import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { setImmediate as rest } from 'node:timers/promises';
import type { BrowserContext, Locator, Page } from 'playwright-core';
import { accessible, awake, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { numberOf, rows, spoken } from './support/planning.ts';
import { signIn, startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const BOARD = '/boards/tidewatch';
const { rows: teams } = await db.query('select id from team');
const team = teams[0].id as string;
const LATE_MS = 800;

/** Every answer to what is sent comes so much later. */
const slow = (context: BrowserContext) =>
	context.route('**/api/**', async (route) => {
		if (route.request().url().includes('/live')) return route.continue();
		await new Promise((resolve) => setTimeout(resolve, LATE_MS));
		await route.continue();
	});
/**
 * Lets no command reach the server; the answer lets them through again. What is on its way while a route is taken
 * away may never be answered by the browser: it stays, and lets through.
 */
async function cutOff(context: BrowserContext): Promise<() => void> {
	let away = true;
	await context.route('**/api/commands', (route) => (away ? route.abort() : route.continue()));
	return () => void (away = false);
}
const column = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const cards = (of: Locator) => of.locator('li[data-card]');
const eventually = async (what: () => Promise<boolean>): Promise<void> => {
	while (!(await what())) await rest();
};

/** Holds back what the pages are made of; `letGo` lets all of it come, and from then on whatever is asked for. */
async function heldBack(context: BrowserContext, what: RegExp) {
	const held: (() => Promise<void>)[] = [];
	let late = true;
	await context.route(what, (route) => {
		if (!late) return route.continue();
		held.push(() => route.continue());
	});
	return {
		any: () => held.length > 0,
		letGo: async () => {
			late = false;
			await Promise.all(held.map((go) => go()));
		},
	};
}

describe('with every answer 800 ms late', () => {
	test('an hour typed into the timesheet, with Enter and an arrow at once, is logged once', async () => {
		const { page, context, quiet } = await visit(server.url, 'Tomas Reyl', `/teams/${team}/timesheet`);
		await slow(context);
		const today = page.locator('[data-cell$="/0"]');
		const cell = today.first();
		const key = /^\S+/.exec((await cell.getAttribute('aria-label'))!)![0].replace(',', '');
		const before = await db.query(
			`select coalesce(sum(hours), 0) as h, count(*) as n from time_entry e join card c on c.id = e.card_id join board b on b.id = c.board_id
			where b.key || '-' || c.number = $1 and e.day = '2026-11-23' and e.withdrawn_at is null and e.person_id = (select id from person where name = 'Tomas Reyl')`,
			[key],
		);
		await cell.focus();
		await page.keyboard.type('2');
		await page.keyboard.press('Enter');
		await page.keyboard.press('ArrowDown');
		await page.keyboard.type('1');
		await page.keyboard.press('ArrowUp');
		await page
			.getByRole('status')
			.getByText(new RegExp(`^1 h on (?!${key},)`))
			.waitFor();
		const { rows: logged } = await db.query(
			`select sum(hours) as h, count(*) as n from time_entry e join card c on c.id = e.card_id join board b on b.id = c.board_id
			where b.key || '-' || c.number = $1 and e.day = '2026-11-23' and e.withdrawn_at is null and e.person_id = (select id from person where name = 'Tomas Reyl')`,
			[key],
		);
		assert.deepEqual([Number(logged[0].h), Number(logged[0].n)], [2, Math.max(1, Number(before.rows[0].n))]);
		quiet();
		await context.close();
	});

	test('a refused reason stays in its dialog; moves made quickly one after the other all arrive', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		await slow(context);
		const lined = column(page, 'Lined up');
		const number = await numberOf(cards(lined).first());
		const card = lined.getByRole('link', { name: new RegExp(`^${number}`) });
		await card.focus();
		await page.keyboard.press('b');
		const dialog = page.getByRole('dialog');
		await dialog.getByRole('textbox').fill('The crane is booked');
		// Meanwhile somebody else blocks it: what was typed is refused.
		const meanwhile = (by: number) =>
			db.query(
				`update card set version = version + $2 where number = $1 and board_id = (select id from board where key = 'TIDE')`,
				[number, by],
			);
		await meanwhile(1);
		await dialog.getByRole('button', { name: 'Mark as blocked' }).click();
		await dialog.getByText('Sending…').waitFor();
		await dialog.getByRole('alert').filter({ hasText: 'changed card' }).waitFor();
		assert.equal(await dialog.getByRole('textbox').inputValue(), 'The crane is booked');
		await page.keyboard.press('Escape');
		await dialog.waitFor({ state: 'detached' });
		await meanwhile(-1);

		const other = cards(lined).nth(2);
		const moved = await numberOf(other);
		await other.locator('a').focus();
		for (let i = 0; i < 2; i++) await page.keyboard.press('Shift+ArrowUp');
		await spoken(page)
			.filter({ hasText: new RegExp(`^Card ${moved} is in Lined up, position 1`) })
			.waitFor();
		await eventually(async () => {
			const { rows: first } = await db.query(
				`select c.number from card c join board_column k on k.id = c.column_id
				where k.name = 'Lined up' and k.board_id = (select id from board where key = 'TIDE') and c.archived_at is null order by c.rank limit 1`,
			);
			return first[0].number === moved;
		});
		assert.equal(await numberOf(cards(lined).first()), moved);
		quiet(/409/);
		await context.close();
	});
});

test('whoever types a place and presses Enter before anything has come goes there once it has; no card is made of it', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
	const parts = await heldBack(context, /\/_app\//);
	const made = async () => (await db.query(`select count(*)::int as n from card`)).rows[0].n;
	const before = await made();
	await page.keyboard.press('Space');
	const answered = page.waitForResponse((response) => response.url().endsWith('q=Settle'));
	await page.keyboard.type('Settle');
	// That no card has the word is known before the places are.
	await (await answered).finished();
	await eventually(async () => parts.any());
	await page.keyboard.press('Enter');
	await parts.letGo();
	await page.waitForURL(`**${BOARD}/settle`);
	assert.equal(await made(), before);
	quiet();
	await context.close();
});

test('what is typed before the page is awake is looked for once it is', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
	const scripts = await heldBack(context, /\/_app\/.*\.js/);
	await page.goto(`${BOARD}/flow`, { waitUntil: 'commit' });
	await page.getByRole('combobox', { name: 'Find a card or do something' }).fill('settle');
	assert.equal(await page.evaluate(() => document.documentElement.dataset.awake), undefined);
	await scripts.letGo();
	await page.getByRole('option', { name: /^Settle/ }).click();
	await page.waitForURL(`**${BOARD}/settle`);
	quiet();
	await context.close();
});

test('cards of a finding that was unfolded before the page is awake are there once it is', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
	const scripts = await heldBack(context, /\/_app\/.*\.js/);
	await page.goto(`${BOARD}/rounds`, { waitUntil: 'commit' });
	const cards = page.locator('.finding details').first();
	await cards.locator('summary').click();
	assert.equal(await cards.locator('li').count(), 0);
	await scripts.letGo();
	await cards.locator('li').first().waitFor();
	quiet();
	await context.close();
});

test('what is done without a connection is kept across a reload, said before leaving, and sent when it is back', async () => {
	const { page, context } = await visit(server.url, 'Ines Okoro', `${BOARD}/backlog`);
	const joined = await cutOff(context);
	const field = page.getByRole('textbox', { name: 'Add a card to the backlog' });
	await field.fill('Written in the tunnel 3h');
	await field.press('Enter');
	await page.getByText(/kept here and sent when the connection is back: 1 change waits/).waitFor();
	let asked = false;
	page.on('dialog', (dialog) => {
		asked = dialog.type() === 'beforeunload';
		void dialog.accept();
	});
	await page.reload();
	await awake(page);
	assert.equal(asked, true, 'leaving was asked about');
	await page.getByText(/kept here and sent when the connection is back: 1 change waits/).waitFor();
	assert.equal((await db.query(`select from card where title = 'Written in the tunnel'`)).rowCount, 0);
	joined();
	const answered = page.waitForResponse('**/api/commands');
	await page.evaluate(() => window.dispatchEvent(new Event('online')));
	assert.equal((await answered).status(), 200);
	await rows(page).filter({ hasText: 'Written in the tunnel' }).waitFor();
	assert.equal(
		(await db.query(`select from card where title = 'Written in the tunnel'`)).rowCount,
		1,
		'once',
	);
	await context.close();
});

test('what waits on a line that died is sent over the new one; a browser that keeps nothing says to leave the page open', async () => {
	const { page, context } = await visit(server.url, 'Ines Okoro', `${BOARD}/backlog`);
	await context.addInitScript(() => {
		IDBFactory.prototype.open = () => {
			throw new Error('This browser keeps nothing');
		};
	});
	await page.reload();
	await awake(page);
	let asked = 0;
	let dead = true;
	// The first two answers never come.
	await context.route('**/api/commands', (route) => {
		asked++;
		if (!dead) return route.continue();
	});
	const field = page.getByRole('textbox', { name: 'Add a card to the backlog' });
	await field.fill('Written on a dead line 3h');
	await field.press('Enter');
	await eventually(async () => asked === 1);
	await page.evaluate(() => window.dispatchEvent(new Event('online')));
	await eventually(async () => asked === 2);
	dead = false;
	const said = page.getByText(
		/leave this page open: what you change is sent when the connection is back: 1 change waits/,
	);
	await said.waitFor();
	await page.evaluate(() => window.dispatchEvent(new Event('online')));
	await rows(page).filter({ hasText: 'Written on a dead line' }).waitFor();
	await said.waitFor({ state: 'detached' });
	assert.equal(
		(await db.query(`select from card where title = 'Written on a dead line'`)).rowCount,
		1,
		'once',
	);
	await context.close();
});

test('a change is said to be kept only once the device has kept it', async () => {
	const { page, context } = await visit(server.url, 'Ines Okoro', `${BOARD}/backlog`);
	const joined = await cutOff(context);
	// Another window of the same browser holds what is kept for a moment: the device is slow.
	const other = await context.newPage();
	await other.goto(`${server.url}/guide`);
	await other.evaluate(
		() =>
			new Promise<void>((held) => {
				const asked = indexedDB.open('harrow', 1);
				asked.onsuccess = () => {
					const store = asked.result.transaction('outbox', 'readwrite').objectStore('outbox');
					const until = Date.now() + 1500;
					const hold = () => {
						if (Date.now() < until) store.count().onsuccess = hold;
						else document.title = 'let go';
					};
					hold();
					held();
				};
			}),
	);
	const field = page.getByRole('textbox', { name: 'Add a card to the backlog' });
	await field.fill('Written on a slow device 3h');
	await field.press('Enter');
	await page.getByText(/kept here and sent when the connection is back: 1 change waits/).waitFor();
	assert.equal(await other.title(), 'let go');
	joined();
	await rows(page).filter({ hasText: 'Written on a slow device' }).waitFor();
	await context.close();
});

test('a colleague’s change of a card never wipes what one is typing, and two titles are not mixed', async () => {
	const mine = await visit(server.url, 'Ines Okoro', BOARD);
	const theirs = await visit(server.url, 'Bram Tolver', BOARD);
	const number = await numberOf(cards(column(mine.page, 'Lined up')).nth(1));
	for (const { page } of [mine, theirs]) {
		await page.goto(`${BOARD}?card=${number}`);
		await awake(page);
	}
	const title = (page: Page) => page.getByRole('complementary').getByLabel('Title', { exact: true });
	await title(mine.page).fill('My own wording');
	await title(theirs.page).fill('Their wording');
	await title(theirs.page).press('Enter');
	const panel = mine.page.getByRole('complementary', { name: `Card TIDE-${number}` });
	await panel.getByText('Meanwhile somebody called it “Their wording”').waitFor();
	assert.equal(await title(mine.page).inputValue(), 'My own wording');
	await accessible(mine.page);
	await panel.getByRole('button', { name: 'Keep mine' }).click();
	await column(theirs.page, 'Lined up').getByText('My own wording').waitFor();
	mine.quiet();
	theirs.quiet();
	await mine.context.close();
	await theirs.context.close();
});

test('a card is sent to any column from its own page on a phone; a full one that holds asks for a reason', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD, {
		width: 390,
		height: 844,
		touch: true,
	});
	const number = await numberOf(cards(column(page, 'Lined up')).nth(1));
	await page.goto(`${BOARD}?card=${number}`);
	await awake(page);
	await page.getByLabel('Stands in').waitFor();
	const heights = await page
		.getByRole('complementary', { name: /^Card / })
		.locator('dl :is(select, input:not([type="checkbox"]))')
		.evaluateAll((fields) => fields.map((field) => field.getBoundingClientRect().height));
	assert.ok(heights.length > 4, 'the card has fields to choose and to write in');
	assert.ok(Math.min(...heights) >= 44, `a finger meets each of them: ${heights.join(', ')}`);
	await page.getByLabel('Stands in').selectOption({ label: 'Field trial, 2 of 4' });
	await eventually(async () => {
		const { rows: at } = await db.query(
			`select k.name from card c join board_column k on k.id = c.column_id where c.number = $1 and c.board_id = (select id from board where key = 'TIDE')`,
			[number],
		);
		return at[0]?.name === 'Field trial';
	});
	await db.query(
		`update board_column set wip_limit = 1, limit_mode = 'hold' where name = 'Review' and board_id = (select id from board where key = 'TIDE')`,
	);
	await page.reload();
	await awake(page);
	await page.getByLabel('Stands in').selectOption({ label: 'Review, 1 of 1' });
	const dialog = page.getByRole('dialog', { name: 'Let it through?' });
	await dialog.getByRole('textbox').fill('The harbour waits for it');
	await dialog.getByRole('button', { name: 'Let it through' }).tap();
	await page.getByText('let through: The harbour waits for it').filter({ visible: true }).first().waitFor();
	await accessible(page);
	quiet(/409/);
	await context.close();
});

test('rounds show an unplanned card that was taken off and put on again, and a part that fails leaves the rest', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}/rounds`);
	await page.getByRole('heading', { level: 1 }).getByText('need somebody').waitFor();
	const { rows: unplanned } = await db.query(
		`select c.id, c.version from card c join sprint s on s.id = c.sprint_id
		where s.started_at is not null and s.closed_at is null and c.unplanned and c.clock <> 'done' and c.board_id = (select id from board where key = 'TIDE') limit 1`,
	);
	const [one] = unplanned.length
		? unplanned
		: (
				await db.query(
					`update card c set unplanned = true from sprint s where s.id = c.sprint_id and s.started_at is not null and s.closed_at is null
						and c.clock <> 'done' and c.board_id = (select id from board where key = 'TIDE') returning c.id, c.version`,
				)
			).rows;
	const send = (sprint: number | null, version: number) =>
		page.evaluate(
			async ([card, at, to]) => {
				const { board } = await (await fetch('/api/boards')).json().then((list) => ({
					board: list.find((known: { key: string }) => known.key === 'TIDE'),
				}));
				const head = await (await fetch(`/api/boards/${board.slug}`)).json();
				const answer = await fetch('/api/commands', {
					method: 'POST',
					headers: { 'content-type': 'application/json' },
					body: JSON.stringify({
						id: crypto.randomUUID(),
						command: 'PlanCards',
						input: { board: head.id, cards: [{ card, version: at }], sprint: to },
					}),
				});
				return answer.status;
			},
			[one!.id, version, sprint] as const,
		);
	assert.equal(await send(null, one!.version), 200);
	assert.equal(await send(13, one!.version + 1), 200);
	await page.reload();
	await awake(page);
	await page.getByRole('heading', { level: 1 }).getByText('need somebody').waitFor();
	assert.ok((await page.getByRole('listitem').count()) > 3, 'the findings are there');
	quiet();
	await context.close();
});

test('a board is there before its history is read; the ribbon comes when it is', async () => {
	// A process that has read nothing yet, and cannot: all that happened is held.
	const fresh = await startServer();
	const { page, context, quiet } = await visit(fresh.url, 'Ines Okoro', '/notices');
	const holder = await db.connect();
	await holder.query('begin');
	await holder.query('lock table event in access exclusive mode');
	await page.goto(BOARD, { waitUntil: 'commit' });
	await page.waitForFunction(() => document.documentElement.dataset.awake === 'yes');
	const time = page.getByRole('navigation', { name: 'Time' });
	await time.getByText('The history is being read…').waitFor();
	await accessible(page);
	const card = cards(column(page, 'Lined up')).first();
	await card.locator('a').click();
	await page.getByRole('complementary').getByRole('heading', { level: 2 }).waitFor();
	await holder.query('rollback');
	holder.release();
	await time.getByRole('link', { name: /^Sprint \d+/ }).waitFor();
	assert.equal(await time.getByText('The history is being read…').count(), 0);
	quiet();
	await context.close();
});

test('a page that is refused says so by its status, also while the ribbon is on its way', async () => {
	const fresh = await startServer();
	const cookie = await signIn(fresh.url, 'Ines Okoro');
	const holder = await db.connect();
	await holder.query('begin');
	await holder.query('lock table event in access exclusive mode');
	for (const [path, status] of [
		['/flow?from=yesterday', 422],
		['/look-back/999', 404],
		['', 200],
	] as const) {
		const stopped = new AbortController();
		const answer = await fetch(`${fresh.url}${BOARD}${path}`, {
			headers: { cookie },
			signal: stopped.signal,
		});
		assert.equal(answer.status, status, path);
		stopped.abort();
	}
	await holder.query('rollback');
	holder.release();
});

test('whoever leaves while a page still comes in takes nothing from others, however it is compressed', async () => {
	const fresh = await startServer();
	const cookie = await signIn(fresh.url, 'Ines Okoro');
	const holder = await db.connect();
	await holder.query('begin');
	await holder.query('lock table event in access exclusive mode');
	for (const encoding of ['br', 'gzip', 'identity']) {
		const stopped = new AbortController();
		const answer = await fetch(`${fresh.url}${BOARD}`, {
			headers: { cookie, 'accept-encoding': encoding },
			signal: stopped.signal,
		});
		assert.equal(answer.headers.get('content-encoding') ?? 'identity', encoding);
		// It has begun, and waits for its ribbon.
		await answer.body!.getReader().read();
		stopped.abort();
	}
	await holder.query('rollback');
	holder.release();
	const whole = await fetch(`${fresh.url}${BOARD}`, { headers: { cookie } });
	assert.match(await whole.text(), /<\/html>/);
	assert.equal(fresh.process.exitCode, null, fresh.log());
});

test('where the history cannot be read the board says so in the place of its ribbon, and goes on', async () => {
	const fresh = await startServer();
	const { page, context } = await visit(fresh.url, 'Ines Okoro', '/notices');
	const holder = await db.connect();
	await holder.query('begin');
	await holder.query('lock table event in access exclusive mode');
	await page.goto(BOARD, { waitUntil: 'commit' });
	await page.waitForFunction(() => document.documentElement.dataset.awake === 'yes');
	const time = page.getByRole('navigation', { name: 'Time' });
	await time.getByText('The history is being read…').waitFor();
	await holder.query(
		`select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'`,
	);
	await time.getByText('The history could not be read.').waitFor();
	await accessible(page);
	await holder.query('rollback');
	holder.release();
	await page.reload();
	await time.getByRole('link', { name: /^Sprint \d+/ }).waitFor();
	await context.close();
});
