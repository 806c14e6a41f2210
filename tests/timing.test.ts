import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { get } from 'node:http';
import { gzipSync } from 'node:zlib';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import type { Page } from 'playwright-core';
import { instantText } from '../src/core/calendar/instant.ts';
import { checkLedgers } from '../src/lib/server/questions/check.ts';
import { accessible, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { largeBoard, largePanorama, largePlan, wideBoard } from './support/large-board.ts';
import { manySprints } from './support/many-sprints.ts';
import { signIn, startServer, stopServer } from './support/server.ts';
import { within } from './support/within.ts';

const db = await useDatabase('demo');
const slug = await largeBoard(db);
const larger = await largeBoard(db, 5000, 'Larger');
const wide = await wideBoard(db);
const many = await largePlan(db, 'Ines Okoro');
const long = await manySprints(db);
const panorama = await largePanorama(db, 'Ines Okoro');
const server = await startServer({ HARROW_LOG: 'warn' });
const cookie = await signIn(server.url, 'Ines Okoro');

/** The 95th of 100 frames while the pointer goes along a path, in the middle one of three times. */
async function framesOf(page: Page, path: (part: number) => [x: number, y: number]): Promise<number> {
	const p95s: number[] = [];
	for (let round = 0; round < 3; round++) {
		await page.evaluate(() => {
			const frames: number[] = [];
			let last = performance.now();
			const count = (now: number) => {
				frames.push(now - last);
				last = now;
				if ((window as unknown as { counting: boolean }).counting) requestAnimationFrame(count);
			};
			Object.assign(window, { counting: true, frames });
			requestAnimationFrame(count);
		});
		for (let i = 0; i < 60; i++) await page.mouse.move(...path(i / 60));
		const frames = await page.evaluate(() => {
			Object.assign(window, { counting: false });
			return (window as unknown as { frames: number[] }).frames.slice(1).sort((a, b) => a - b);
		});
		assert.ok(frames.length > 20, `${frames.length} frames`);
		p95s.push(frames[Math.ceil(frames.length * 0.95) - 1]!);
	}
	return p95s.sort((a, b) => a - b)[1]!;
}

test('a board with 2,000 open cards draws only what is seen, and keys, focus and counts stay right', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `/boards/${slug}`);
	const ready = page.getByRole('region', { name: 'Ready', exact: true });
	const drawn = () => page.locator('li[data-card]').count();
	await ready.getByText('1500 wait').waitFor();
	assert.ok((await drawn()) < 150, `${await drawn()} of 2,000 are drawn`);
	await accessible(page);

	const focused = () =>
		page.evaluate(() => document.activeElement!.closest('li')!.getAttribute('aria-posinset'));
	await ready.locator('li[data-card] a').first().focus();
	assert.equal(await focused(), '1');
	assert.equal(await ready.locator('li[data-card]').first().getAttribute('aria-setsize'), '1500');
	for (let i = 0; i < 25; i++) await page.keyboard.press('ArrowDown');
	await page.waitForFunction(
		() => document.activeElement?.closest('li')?.getAttribute('aria-posinset') === '26',
	);
	await page.keyboard.press('End');
	await page.waitForFunction(
		() => document.activeElement?.closest('li')?.getAttribute('aria-posinset') === '1500',
	);
	assert.ok((await drawn()) < 200);
	await page.keyboard.press('Shift+ArrowUp');
	await page.getByRole('status').filter({ hasText: 'position 1499; 1500 cards there' }).first().waitFor();
	await page.waitForFunction(
		() => document.activeElement?.closest('li')?.getAttribute('aria-posinset') === '1499',
	);
	await page.keyboard.press('Home');
	await page.waitForFunction(
		() => document.activeElement?.closest('li')?.getAttribute('aria-posinset') === '1',
	);
	quiet();
	await context.close();
});

test('dragging on it, 95 of 100 frames come within 33 ms, and a move is shown in the next frame', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `/boards/${slug}`);
	const card = page.getByRole('region', { name: 'Ready', exact: true }).locator('li[data-card]').nth(3);
	const from = (await card.boundingBox())!;
	const to = (await page.getByRole('region', { name: 'Making', exact: true }).boundingBox())!;
	await page.mouse.move(from.x + 30, from.y + 20);
	await page.mouse.down();
	await page.mouse.move(from.x + 60, from.y + 40, { steps: 4 });
	await within(33, 'ms', () =>
		framesOf(page, (part) => [
			from.x + (to.x - from.x) * part + 120 * Math.sin(part * 9),
			from.y + 250 * Math.abs(Math.sin(part * 7)),
		]),
	);
	await page.mouse.move(to.x + 100, to.y + 200, { steps: 3 });
	await page.mouse.up();
	await page.getByRole('region', { name: 'Making', exact: true }).getByText('301 in hand').waitFor();
	quiet();
	await context.close();
});

test('a timeline of 12 boards, 5,000 dated cards and 8,000 links opens in under 200 ms and draws only what is seen', async () => {
	const path = `/teams/${panorama}/panorama`;
	const answer = await fetch(`${server.url}/api${path}`, { headers: { cookie } });
	const { cards, links } = (await answer.json()) as Record<'cards' | 'links', unknown[]>;
	assert.deepEqual([cards.length, links.length], [5000, 8000]);
	// The page itself, as its server draws it, before it is compressed for the line.
	await within(200, 'ms', () => answersIn(path, { 'accept-encoding': 'identity' }));
	const { page, context, quiet } = await visit(
		server.url,
		'Ines Okoro',
		`/teams/${panorama}/panorama?of=boards`,
	);
	await page.getByRole('button', { name: /^Wide 10/ }).click();
	const bars = page.locator('a.bar');
	await bars.nth(5).waitFor();
	assert.ok((await bars.count()) < 80, `${await bars.count()} bars are drawn`);
	const box = (await bars.nth(2).boundingBox())!;
	const [x, y] = [box.x + 6, box.y + box.height / 2];
	await page.mouse.move(x, y);
	await page.mouse.down();
	await page.mouse.move(x + 14, y, { steps: 4 });
	// With all that hangs on it, on every day that it passes.
	await within(33, 'ms', () => framesOf(page, (part) => [x + 300 * Math.abs(Math.sin(part * 4)), y]));
	await page.keyboard.press('Escape');
	await page.mouse.up();
	quiet();
	await context.close();
});

test('a list of 5,000 cards draws only what is seen, and goes by smoothly', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `/boards/${larger}?as=list`);
	const rows = page.getByRole('grid').getByRole('row');
	await rows.nth(10).waitFor();
	assert.ok((await rows.count()) < 120, `${await rows.count()} rows are drawn`);
	// The 95th of 100 frames while a wheel is turned as fast as hands do: a notch of 100 px every second frame.
	await within(33, 'ms', () =>
		page.evaluate(async () => {
			const list = document.querySelector<HTMLElement>('[role="grid"]')!;
			list.scrollTop = 0;
			const frames: number[] = [];
			let last = await new Promise(requestAnimationFrame);
			for (let i = 0; i < 120; i++) {
				if (i % 2) list.scrollTop += 100;
				const now = await new Promise(requestAnimationFrame);
				frames.push(now - last);
				last = now;
			}
			return frames.sort((a, b) => a - b)[Math.ceil(frames.length * 0.95) - 1]!;
		}),
	);
	assert.ok((await rows.count()) < 120);
	await page.getByRole('grid').evaluate((list) => (list.scrollTop = list.scrollHeight));
	await page.getByText('Card number 5000').first().waitFor();
	quiet();
	await context.close();
});

test('a board of twelve columns and five lanes with 2,000 cards is arranged, narrowed and opened in under 100 ms', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `/boards/${wide}`);
	await page.locator('li[data-card]').first().waitFor();
	/** How long it takes from what somebody does until the screen shows it, the page not having slept meanwhile. */
	const shownIn = async (act: string, shown: string): Promise<number> =>
		page.evaluate(
			async ([act, shown]) => {
				const done = new Function(`return ${shown}`) as () => boolean;
				const began = performance.now();
				new Function(act!)();
				while (!done()) await new Promise(requestAnimationFrame);
				return performance.now() - began;
			},
			[act, shown],
		);
	const choose = (name: string, value: string) =>
		`const it = document.querySelector('select[aria-label="${name}"]'); it.value = '${value}'; it.dispatchEvent(new Event('change', { bubbles: true }));`;
	const column = (name: string) =>
		`[...document.querySelectorAll('h2')].some((one) => one.textContent.includes('${name}'))`;
	const nowhere = (selector: string) => `!document.querySelector('${selector}')`;
	const words = (text: string) =>
		`const it = document.querySelector('input[aria-label="With these words"]'); it.value = '${text}'; it.dispatchEvent(new Event('input', { bubbles: true }));`;
	const first = await page.locator('li[data-card]').first().getAttribute('data-card');
	/** What is done, how the screen tells that it shows, and how it is taken back. */
	const doing: Record<string, [act: string, shown: string, back: () => Promise<unknown>]> = {
		'arranged by owner': [
			choose('Arranged by', 'owners'),
			column('Bram Tolver'),
			() => shownIn(choose('Arranged by', ''), column('Step 3')),
		],
		'in lanes of labels': [
			choose('Lanes', 'labels'),
			`[...document.querySelectorAll('button')].some((one) => /^\\W*mast/.test(one.textContent))`,
			() => shownIn(choose('Lanes', ''), `document.body.textContent.includes('Lane 3')`),
		],
		'narrowed by words': [
			words('number 1999 '),
			nowhere(`li[data-card="${first}"]`),
			() => shownIn(words(''), `!${nowhere(`li[data-card="${first}"]`)}`),
		],
		'a card opened beside it': [
			`document.querySelector('li[data-card="${first}"] a').click()`,
			`!!document.querySelector('aside h2, [role="complementary"] h2')`,
			async () => {
				await page.keyboard.press('Escape');
				await page.locator('aside h2, [role="complementary"] h2').first().waitFor({ state: 'detached' });
			},
		],
	};
	for (const [what, [act, shown, back]] of Object.entries(doing)) {
		await shownIn(act, shown);
		await back();
		const took: number[] = [];
		await within(100, `ms until it is ${what}`, async () => {
			took.push(await shownIn(act, shown));
			await back();
			return took.at(-1)!;
		});
	}
	// Lanes out of sight are drawn when somebody goes there, by key too.
	const inLane = () =>
		page.evaluate(() => document.activeElement?.closest<HTMLElement>('[data-lane]')?.dataset.lane ?? null);
	await shownIn(choose('Lanes', 'lane'), `document.querySelectorAll('section.band').length > 2`);
	await page.locator('li[data-card]').first().waitFor();
	const lanes = await page.locator('section.band').count();
	const drawn = await page.locator('section.band:has([data-lane])').count();
	assert.ok(drawn < lanes, `${drawn} of ${lanes} lanes are drawn`);
	await page.locator('li[data-card] a').first().focus();
	const top = await inLane();
	await page.keyboard.press('End');
	await page.keyboard.press('ArrowDown');
	await page.waitForFunction((top) => {
		const lane = document.activeElement?.closest<HTMLElement>('[data-lane]')?.dataset.lane;
		return lane && lane !== top;
	}, top);
	quiet();
	await context.close();
});

test('a move is on the screen in the next frame and confirmed in under 100 ms, on the board of the demo', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', '/boards/tidewatch');
	const cards = page.getByRole('region', { name: 'Lined up', exact: true }).locator('li[data-card] a');
	await within(100, 'ms', async () => {
		const confirmed: number[] = [];
		for (let i = 0; i < 8; i++) {
			await cards.nth(i % 2).focus();
			const number = Number(/^\d+/.exec((await cards.nth(i % 2).innerText()).trim())![0]);
			const answered = page.waitForResponse('**/api/commands');
			const frames = await page.evaluate(
				([id, down]) =>
					new Promise<number>((resolve) => {
						const place = () =>
							[...document.querySelectorAll('li[data-card]')]
								.find((li) => li.textContent!.trim().startsWith(String(id)))!
								.getAttribute('aria-posinset');
						const before = place();
						let waited = 0;
						const look = () => {
							waited++;
							if (place() !== before || waited > 20) resolve(waited);
							else requestAnimationFrame(look);
						};
						document.activeElement!.dispatchEvent(
							new KeyboardEvent('keydown', {
								key: down ? 'ArrowDown' : 'ArrowUp',
								shiftKey: true,
								bubbles: true,
								cancelable: true,
							}),
						);
						requestAnimationFrame(look);
					}),
				[number, i % 2 === 0] as const,
			);
			assert.ok(frames <= 2, `shown after ${frames} frames`);
			const response = await answered;
			await response.finished();
			confirmed.push(response.request().timing().responseEnd);
		}
		return confirmed.sort((a, b) => a - b)[4]!;
	});
	quiet();
	await context.close();
});

test('a backlog of 2,300 cards draws only what is seen, and a card moved by key is there in the next frame', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `/boards/${many}/backlog`);
	const rows = page.getByRole('region', { name: 'Backlog' }).locator('li[data-card]');
	await page.getByText('2300 cards wait').waitFor();
	assert.ok((await rows.count()) < 80, `${await rows.count()} rows are drawn`);
	await rows.nth(2).locator('a.title').focus();
	await page.keyboard.press('End');
	await page.waitForFunction(
		() => document.activeElement?.closest('li')?.getAttribute('aria-posinset') === '2300',
	);
	const frames = await page.evaluate(
		() =>
			new Promise<number>((resolve) => {
				const card = document.activeElement!.closest<HTMLElement>('li')!.dataset.card;
				const place = () => document.querySelector(`li[data-card="${card}"]`)?.getAttribute('aria-posinset');
				let waited = 0;
				const look = () => {
					waited++;
					if (place() === '2299' || waited > 20) resolve(waited);
					else requestAnimationFrame(look);
				};
				document.activeElement!.dispatchEvent(
					new KeyboardEvent('keydown', { key: 'ArrowUp', shiftKey: true, bubbles: true, cancelable: true }),
				);
				requestAnimationFrame(look);
			}),
	);
	assert.ok(frames <= 2, `shown after ${frames} frames`);
	await page.getByRole('status').filter({ hasText: 'is at position 2299 of 2300' }).first().waitFor();
	quiet();
	await context.close();
});

test('on a plan of 40 people and 300 cards, placing shows in the next frame', async () => {
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `/boards/${many}/plan`);
	await page.getByText(/^Sprint 1 holds/).waitFor();
	assert.equal(await page.locator('a.block').count(), 300);
	const shown: number[] = [];
	for (let i = 0; i < 5; i++) {
		await page
			.locator('[data-person] a.block')
			.nth(i * 9)
			.focus();
		shown.push(
			await page.evaluate(
				() =>
					new Promise<number>((resolve) => {
						const row = () =>
							document.querySelector(`a.block[data-card="${card}"]`)?.closest<HTMLElement>('[data-person]')
								?.dataset.person;
						const card = (document.activeElement as HTMLElement).dataset.card;
						const before = row();
						let waited = 0;
						const look = () => {
							waited++;
							if (row() !== before || waited > 20) resolve(waited);
							else requestAnimationFrame(look);
						};
						document.activeElement!.dispatchEvent(
							new KeyboardEvent('keydown', {
								key: 'ArrowDown',
								shiftKey: true,
								bubbles: true,
								cancelable: true,
							}),
						);
						requestAnimationFrame(look);
					}),
			),
		);
	}
	assert.ok(Math.max(...shown) <= 2, `shown after ${shown.join(', ')} frames`);
	await page
		.getByRole('status')
		.filter({ hasText: /given to Person/ })
		.first()
		.waitFor();
	quiet();
	await context.close();
});

test('the first load of the board ships less than 130 kB of compressed script', async () => {
	const { page, context } = await visit(server.url, 'Ines Okoro', '/boards/tidewatch');
	await context.close();
	const again = await visit(server.url, 'Ines Okoro', '/');
	let bytes = 0;
	const waiting: Promise<void>[] = [];
	again.page.on('response', (response) => {
		if (!/\.js$/.test(new URL(response.url()).pathname)) return;
		waiting.push(response.body().then((body) => void (bytes += gzipSync(body, { level: 6 }).length)));
	});
	await again.context.clearCookies({ name: 'none' });
	await (
		await again.context.newCDPSession(again.page)
	).send('Network.setCacheDisabled', { cacheDisabled: true });
	await again.page.goto('/boards/tidewatch');
	await again.page.waitForFunction(() => document.documentElement.dataset.awake === 'yes');
	await again.page.waitForLoadState('networkidle', { timeout: 4000 }).catch(() => undefined);
	await Promise.all(waiting);
	assert.ok(bytes > 20_000 && bytes < 130_000, `${bytes} bytes`);
	void page;
	await again.context.close();
});

/** Median milliseconds in which the server answers for a page, once it is warm. */
async function answersIn(path: string, headers = {}): Promise<number> {
	const took: number[] = [];
	for (let i = 0; i < 25; i++) {
		const began = performance.now();
		const response = await fetch(`${server.url}${path}`, { headers: { cookie, ...headers } });
		await response.text();
		assert.equal(response.status, 200);
		took.push(performance.now() - began);
	}
	return took.slice(5).sort((a, b) => a - b)[10]!;
}

test('the server answers for the board of the demo in under 50 ms when warm', async () => {
	await within(50, 'ms', () => answersIn('/boards/tidewatch'));
});

test('the board of 60 sprints is a true one: its ledgers add up', async () => {
	assert.deepEqual((await checkLedgers('SPRINTS')).wrong, []);
});

test('a page of 2,000 cards is sent in under 80 kB, and what is read may be compressed', async () => {
	const ask = (path: string, encoding: string) =>
		new Promise<{ bytes: number; encoding: string | undefined }>((resolve, reject) =>
			get(`${server.url}${path}`, { headers: { cookie, 'accept-encoding': encoding } }, (response) => {
				let bytes = 0;
				response.on('data', (chunk: Buffer) => (bytes += chunk.length));
				response.on('end', () => resolve({ bytes, encoding: response.headers['content-encoding'] }));
			}).on('error', reject),
		);
	for (const way of ['br', 'gzip']) {
		const page = await ask(`/boards/${slug}`, way);
		assert.equal(page.encoding, way);
		assert.ok(page.bytes < 80_000, `${page.bytes} bytes by ${way}`);
	}
	assert.equal((await ask('/api/boards/tidewatch', 'gzip;q=0.5, br;q=0')).encoding, 'gzip');
	assert.equal((await ask('/api/boards/tidewatch', 'identity')).encoding, undefined);
	assert.equal((await ask('/health', 'br')).encoding, undefined, 'little is sent as it is');
});

test('on a long history what somebody does and takes back shows in the next page, in under 100 ms', async () => {
	const [card] = (
		await db.query(
			`select c.id, c.version from card c join board b on b.id = c.board_id where b.key = 'SPRINTS' and c.clock = 'running' limit 1`,
		)
	).rows;
	const tell = async (command: string, input: object) => {
		const id = randomUUID();
		const response = await fetch(`${server.url}/api/commands`, {
			method: 'POST',
			headers: { cookie, origin: server.url, 'content-type': 'application/json' },
			body: JSON.stringify({ id, command, input }),
		});
		assert.equal(response.status, 200, await response.clone().text());
		return id;
	};
	const left = async () => {
		const began = performance.now();
		const response = await fetch(`${server.url}/boards/${long}/look-back/60`, { headers: { cookie } });
		const [, said] = /([\d.]+) h are left/.exec((await response.text()).replaceAll(/<[^>]*>/g, ''))!;
		return { said: Number(said), took: performance.now() - began };
	};
	const before = (await left()).said;
	let { version } = card;
	await within(100, 'ms', async () => {
		const sized = await tell('SizeCard', { card: card.id, version: version++, size: 20 });
		const done = await left();
		assert.equal(done.said, before + 12, 'eight more hours became twenty');
		await tell('UndoCommand', { of: sized });
		version++;
		const back = await left();
		assert.equal(back.said, before);
		return Math.max(done.took, back.took);
	});
});

test('burndown and velocity of 60 sprints with 60 cards each are answered in under 100 ms when warm', async () => {
	const { page, context } = await visit(server.url, 'Ines Okoro', `/boards/${long}/look-back`);
	await page
		.getByText(/^In sprint 59, [1-9]/)
		.first()
		.waitFor();
	assert.equal(
		await page.getByRole('group', { name: 'Velocity of each sprint' }).getByRole('button').count(),
		118,
	);
	await context.close();
	for (const path of ['look-back', 'look-back/60', 'look-back/30', 'settle'])
		await within(100, 'ms', async () => {
			const median = await answersIn(`/boards/${long}/${path}`);
			console.log(`# ${path} of 60 sprints: ${Math.round(median)} ms`);
			return median;
		});
});

test('while a process reads a long history for the first time others wait less than 250 ms', async () => {
	await within(250, 'ms', async () => {
		await db.query('delete from fold_snapshot');
		const fresh = await startServer({ HARROW_LOG: 'warn' });
		const mine = { cookie: await signIn(fresh.url, 'Ines Okoro') };
		let over = false;
		const page = fetch(`${fresh.url}/boards/${long}/flow`, { headers: mine }).finally(() => (over = true));
		const waited: number[] = [];
		while (!over) {
			const began = performance.now();
			await fetch(`${fresh.url}/health`);
			waited.push(performance.now() - began);
		}
		assert.equal((await page).status, 200);
		await stopServer(fresh.process);
		assert.ok(waited.length > 3, 'others were answered meanwhile');
		return Math.max(...waited);
	});
});

test('a history of 100,000 events is measured in under 5 seconds and 300 MB', async () => {
	const columns = ['Ready', 'Making', 'Check', 'Done'];
	const lines = ['card,at,event,value'];
	for (let card = 0; lines.length <= 100_000; card++)
		for (let step = 0; step < 8; step++) {
			const at = instantText(
				Date.UTC(2025, 0, 1) + card * 2_000_000 + ((card * 7 + step * 13) % 40) * 3_600_000 * step,
			);
			lines.push(
				`C-${card},${at},${step ? `column,${columns[(step * 5 + card) % 4]}` : `created,Card ${card}`}`,
			);
		}
	const folder = mkdtempSync(join(tmpdir(), 'harrow-'));
	after(() => rmSync(folder, { recursive: true }));
	writeFileSync(join(folder, 'large.csv'), lines.join('\n'));
	const measure = `
		import { measure } from './src/cli/measure.ts';
		const began = performance.now();
		const code = await measure(['--board', 'src/core/testing/vectors/small/board.json', '--history', ${JSON.stringify(join(folder, 'large.csv'))}, '--as-of', '2026-05-01T00:00Z']);
		process.stderr.write(JSON.stringify({ code, seconds: (performance.now() - began) / 1000, megabytes: process.resourceUsage().maxRSS / 1024 }));`;
	await within(5, 's', async () => {
		const { stderr } = spawnSync(
			process.execPath,
			['--import', 'tsx', '--input-type=module', '-e', measure],
			{
				encoding: 'utf8',
				maxBuffer: 1e9,
			},
		);
		const { code, seconds, megabytes } = JSON.parse(stderr.slice(stderr.lastIndexOf('{')));
		assert.equal(code, 0);
		assert.ok(megabytes < 300, `${megabytes} MB`);
		return seconds;
	});
});

test('10,000 notices of one person are shown in under 100 ms, and so are the questions among them', async () => {
	await db.query(
		`insert into notice (person_id, board_id, card_id, seqs, kinds, times, at, read_at)
		select p.id, e.board_id, e.card_id, array[e.seq], array['moved'], 1, timestamptz '2026-11-23T14:00Z' - e.n * interval '7 minutes',
			case when e.n > 40 then timestamptz '2026-11-23T14:10Z' end
		from person p, (
			select e.*, row_number() over (order by e.at desc, e.seq desc) as n from event e
			join board b on b.id = e.board_id and b.key = 'SPRINTS'
			where e.kind = 'column' and e.card_id is not null
			limit 10100
		) e
		where p.email = 'ines@tidewatch.example'
		on conflict do nothing`,
	);
	const { rows } = await db.query<{ n: number }>(
		`select count(*)::int as n from notice n join person p on p.id = n.person_id where p.email = 'ines@tidewatch.example'`,
	);
	assert.ok(rows[0]!.n >= 10_000, `${rows[0]!.n} notices`);
	await db.query('analyze notice');
	for (const path of ['/notices', '/notices?of=asks'])
		await within(100, 'ms', async () => {
			const median = await answersIn(path);
			console.log(`# ${path}: ${Math.round(median)} ms`);
			return median;
		});
});

// The last one: it leaves the database with more boards than the others are tried with.
test('with 500 boards and 2,000 people home, find-or-do and a board with its owner picker answer in under 100 ms', async () => {
	const { rows } = await db.query<{ slug: string; id: string }>(
		`with t as (
			insert into team (name, time_zone) values ('Very many', 'Europe/Dublin') returning id
		), p as (
			insert into person (name, initials, email, created_at)
			select 'Person ' || n, 'P', 'person' || n || '@very-many.example', now() from generate_series(1, 2000) n
			returning id
		), lead as (
			insert into membership (team_id, person_id, role)
			select t.id, q.id, 'lead' from t, person q where q.email = 'ines@tidewatch.example'
		), members as (
			insert into membership (team_id, person_id, role) select t.id, p.id, 'member' from t, p
		), b as (
			insert into board (team_id, name, slug, key, position)
			select t.id, 'Many ' || n, 'many-' || n, 'MA' || n, n from t, generate_series(1, 500) n
			returning id, slug
		), k as (
			insert into board_column (board_id, name, kind, position, commitment)
			select b.id, v.name, v.kind, v.at, v.at = 1 from b, (values ('Next', 'queue', 0), ('Working', 'work', 1), ('Done', 'done', 2)) v(name, kind, at)
		), c as (
			insert into card (board_id, number, title, rank, created_at)
			select b.id, n, 'Card ' || n, 'a' || n, now() from b, generate_series(1, 4) n
		)
		select id, slug from b`,
	);
	assert.equal(rows.length, 500);
	await db.query('analyze');
	for (const path of ['/', '/api/find?q=many 4', '/api/find?q=person 19', `/api/boards/${rows[0]!.slug}`])
		await within(100, 'ms', async () => {
			const began = performance.now();
			const answer = await fetch(server.url + path, { headers: { cookie } });
			await answer.arrayBuffer();
			assert.equal(answer.status, 200);
			return performance.now() - began;
		});
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `/boards/${rows[0]!.slug}/backlog`);
	await page.locator('li[data-card] button.owners').first().click();
	await page.getByRole('dialog').getByRole('textbox').first().fill('Person 1999');
	await page.getByRole('dialog').getByText('Person 1999').first().waitFor();
	quiet();
	await context.close();
});
