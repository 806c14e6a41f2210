import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { describe, test } from 'node:test';
import { sprintCards, sprintOdds, sprintParts } from '../src/core/board/odds.ts';
import { odds, takeOff, TRIALS } from '../src/core/capacity/odds.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { planPage } from '../src/lib/server/questions/plan.ts';
import { accessible, awake, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { cardNumbered, drag, middle, numberOf, rows, spoken, track } from './support/planning.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const PLAN = '/boards/tidewatch/plan';

describe('a lead plans the next sprint', () => {
	test('drags a card of the backlog to a person, on to another, and out again', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', PLAN);
		await page.getByText(/of 100/).waitFor();
		await accessible(page);
		await tidy(page);
		const waiting = page.getByRole('group', { name: 'Backlog, in order' }).locator('li[data-card]');
		const card = waiting.filter({ hasNotText: /S1\d/ }).first();
		const number = await numberOf(card);
		await drag(page, card.locator('a'), await middle(track(page, 'Petra Lind')));
		const block = (name: string) => track(page, name).getByRole('link', { name: new RegExp(`^${number} `) });
		await block('Petra Lind').waitFor();
		await spoken(page)
			.filter({ hasText: `Card ${number} given to Petra Lind` })
			.waitFor();
		assert.deepEqual(
			[(await cardNumbered(db, number)).sprint, (await cardNumbered(db, number)).owners],
			[14, ['Petra Lind']],
		);
		await drag(page, block('Petra Lind'), await middle(track(page, 'Ines Okoro')));
		await block('Ines Okoro').waitFor();
		await drag(
			page,
			block('Ines Okoro'),
			await middle(page.getByRole('group', { name: 'Backlog, in order' })),
		);
		await block('Ines Okoro').waitFor({ state: 'detached' });
		await spoken(page)
			.filter({ hasText: `Card ${number} taken out of sprint 14.` })
			.waitFor();
		assert.equal((await cardNumbered(db, number)).sprint, null);
		quiet();
		await context.close();
	});

	test('does the same with the keyboard alone, several at once, until someone is over and named', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', PLAN);
		const list = page.getByRole('group', { name: 'Backlog, in order' });
		const waiting = list.locator('li[data-card]');
		const numbers = [
			await numberOf(waiting.nth(0)),
			await numberOf(waiting.nth(1)),
			await numberOf(waiting.nth(2)),
		];
		await waiting.nth(0).locator('a').focus();
		for (let i = 0; i < 3; i++) {
			await page.keyboard.press('p');
			if (i < 2) await page.keyboard.press('ArrowDown');
		}
		await page.getByRole('heading', { name: /3 cards picked/ }).waitFor();
		await page.keyboard.press('ArrowRight');
		const dialog = page.getByRole('dialog', { name: /^Give 3 cards in sprint 14 to/ });
		await dialog.waitFor();
		await accessible(page);
		await page.keyboard.press('ArrowDown');
		await page.keyboard.press('Enter');
		await dialog.waitFor({ state: 'detached' });
		const owner = 'Ines Okoro';
		const block = track(page, owner).getByRole('link', { name: new RegExp(`^${numbers[0]} `) });
		await block.waitFor();
		await page
			.getByRole('heading', { level: 1 })
			.getByText(/Ines is .* over/)
			.waitFor();
		await block.focus();
		await page.keyboard.press('Shift+ArrowDown');
		await track(page, 'Petra Lind')
			.getByRole('link', { name: new RegExp(`^${numbers[0]} `) })
			.waitFor();
		await page.waitForFunction(
			(number) => document.activeElement?.getAttribute('title')?.startsWith(`${number} `),
			numbers[0],
		);
		await page.keyboard.press('Delete');
		await spoken(page)
			.filter({ hasText: `Card ${numbers[0]} taken out of sprint 14.` })
			.waitFor();
		await list.getByText(String(numbers[0]), { exact: true }).waitFor();
		assert.equal((await cardNumbered(db, numbers[0]!)).sprint, null);
		await page.keyboard.press('Control+z');
		await track(page, 'Petra Lind')
			.getByRole('link', { name: new RegExp(`^${numbers[0]} `) })
			.waitFor();
		quiet();
		await context.close();
	});

	test('shares out what nobody has, and takes it back in one step', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', PLAN);
		const nobody = track(page, 'Nobody yet').getByRole('link');
		const before = await nobody.count();
		assert.ok(before > 0);
		await page.getByRole('button', { name: 'share out' }).click();
		const dialog = page.getByRole('dialog', { name: /^Share out/ });
		await dialog.getByText('Who gets what').first().waitFor();
		await accessible(page);
		await dialog.getByRole('button', { name: /^Give \d+ cards? out/ }).click();
		await page.waitForFunction(
			(n) => document.querySelectorAll('[data-person="nobody"] a.block').length < n,
			before,
		);
		await page.getByRole('button', { name: 'Take it back' }).click();
		await page.waitForFunction(
			(n) => document.querySelectorAll('[data-person="nobody"] a.block').length === n,
			before,
		);
		quiet();
		await context.close();
	});

	test('sees the odds, the same as the core finds them, and takes off what a level asks for', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', PLAN);
		const { rows: unowned } = await db.query(
			`select b.id as board, json_agg(json_build_object('card', c.id, 'version', c.version)) as cards,
				(select id from person where name = 'Bram Tolver') as bram
			from card c join sprint s on s.id = c.sprint_id join board b on b.id = s.board_id
			where b.key = 'TIDE' and s.number = 14 and not exists (select from card_owner o where o.card_id = c.id)
			group by b.id`,
		);
		if (unowned[0]) {
			const { board, cards: given, bram } = unowned[0];
			const input = { board, cards: given, owners: [bram] };
			const answer = await page.request.post('/api/commands', {
				headers: { origin: server.url },
				data: { id: randomUUID(), command: 'ChangeCards', input },
			});
			assert.equal(answer.status(), 200);
			await page.reload();
			await awake(page);
		}
		await page.getByRole('button', { name: /of 100 tries/ }).click();
		const dialog = page.getByRole('dialog', { name: 'Odds of sprint 14' });
		await dialog.getByRole('row').nth(1).waitFor();
		const shown = await dialog
			.getByRole('row')
			.evaluateAll((list) =>
				list
					.slice(1)
					.map((row) => [
						Number(row.querySelector('b')!.textContent),
						Number(/(\d+) of 100/.exec(row.querySelector('td:last-child')!.textContent!)![1]),
					]),
			);
		const { rows: people } = await db.query(
			`select id, name, initials, email, 'write' as scope from person where name = 'Ines Okoro'`,
		);
		const plan = await planPage(await boardHead(people[0], 'tidewatch'), 14);
		const tide = await boardHead(people[0], 'tidewatch');
		const cards = sprintCards(tide, plan.cards, 14);
		const input = sprintOdds(tide, plan, sprintParts(tide, plan, cards), plan.cards);
		const found = odds(input)!;
		assert.deepEqual(
			shown,
			found.each.map((card) => [Number(card.card), Math.round((card.done / TRIALS) * 100)]),
			'the worker and the server count alike',
		);
		await accessible(page);
		const level = [95, 90, 85, 80, 70, 60, 50].find(
			(one) => takeOff(input, one / 100)!.length < shown.length,
		)!;
		await dialog.getByLabel('To have all of it done in').selectOption(String(level));
		await dialog.getByRole('button', { name: 'Take them off' }).click();
		await page
			.getByText(/taken off sprint 14/)
			.last()
			.waitFor();
		// Other cards draw other chances: it comes out near what was asked for.
		await page.waitForFunction((least) => {
			const said = /in (\d+) of 100/.exec(document.querySelector('h1')!.textContent!.replaceAll(/\s+/g, ' '));
			return said && Number(said[1]) >= least && !document.querySelector('h1 .stale');
		}, level - 3);
		quiet();
		await context.close();
	});

	test('sets a goal, other dates and another focus; what makes no sense is refused in words', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${PLAN}?sprint=15`);
		await page.getByRole('button', { name: /say what it is for|Storm|Numbers|Warnings/ }).click();
		const dialog = page.getByRole('dialog', { name: 'Sprint 15' });
		await dialog.getByLabel('Goal').fill('Nobody drives out twice');
		await dialog.getByLabel('Focus, 0 to 1').fill('0.6');
		await dialog.getByLabel('Starts').fill('2026-12-01');
		await dialog.getByRole('button', { name: 'Keep' }).click();
		await dialog.getByText(/Sprint 15 would overlap sprint 14/).waitFor();
		await dialog.getByLabel('Starts').fill('2026-12-15');
		await dialog.getByRole('button', { name: 'Keep' }).click();
		await dialog.waitFor({ state: 'detached' });
		await page.getByRole('button', { name: 'Nobody drives out twice' }).waitFor();
		await page.getByText(/Focus 0\.6 .* set by hand for this sprint/).waitFor();
		await page.getByText('Tue 15 Dec to').waitFor();
		await page.getByText(/Sprint 13\s+is running: it is/).waitFor();
		quiet(/422/);
		await context.close();
	});

	test('on a board in points plans against velocity; and someone who looks on changes nothing', async () => {
		const points = await visit(server.url, 'Mara Coyle', '/boards/shore-desk/plan');
		await points.page.getByText(/learned from velocity: .* points a person-day/).waitFor();
		await accessible(points.page);
		await tidy(points.page);
		points.quiet();
		await points.context.close();
		const viewer = await visit(server.url, 'Della Marsh', PLAN);
		assert.equal(await viewer.page.getByRole('button', { name: 'share out' }).count(), 0);
		assert.equal(await viewer.page.getByRole('checkbox').count(), 0);
		viewer.quiet();
		await viewer.context.close();
	});
});

test('a first sprint is set up, planned and started, and its cards stand on the board', async () => {
	const { page, context, quiet } = await visit(
		server.url,
		'Oskar Venn',
		'/boards/buoy-yard/set-up?part=sprints',
	);
	await page.getByLabel('This board has sprints').check();
	await page.getByLabel('Days from start to start').fill('0');
	await page.getByRole('button', { name: 'Keep the cadence' }).click();
	await page.getByText('The length of a sprint must be a whole number of days, 1 to 90.').waitFor();
	await page.getByLabel('Days from start to start').fill('7');
	await accessible(page);
	await page.getByRole('button', { name: 'Keep the cadence' }).click();
	await page.getByRole('link', { name: 'Plan', exact: true }).nth(1).waitFor();
	await page.goto('/boards/buoy-yard/plan');
	await awake(page);
	const waiting = page.getByRole('group', { name: 'Backlog, in order' }).locator('li[data-card]');
	const number = await numberOf(waiting.first());
	await drag(page, waiting.first().locator('a'), await middle(track(page, 'Oskar Venn')));
	await track(page, 'Oskar Venn')
		.getByRole('link', { name: new RegExp(`^${number} `) })
		.waitFor();
	await page.getByText('No odds yet: 0 of 3 sprints are closed.').waitFor();
	await page.getByText(/no goal/).waitFor();
	await page.getByRole('button', { name: 'Agree and start sprint 1' }).click();
	await page.waitForURL('**/boards/buoy-yard');
	await page
		.getByRole('group', { name: 'Cards in Next in, In no lane' })
		.getByRole('link', { name: new RegExp(`^${number} `) })
		.waitFor();
	await page.getByRole('button', { name: 'Take it back' }).click();
	await page
		.getByRole('group', { name: 'Cards in Next in, In no lane' })
		.getByRole('link', { name: new RegExp(`^${number} `) })
		.waitFor({ state: 'detached' });
	quiet();
	await context.close();
});

test('a board without sprints pulls from its backlog up to the limit, in one action', async () => {
	await db.query(`update board set sprint_days = null where key = 'BUOY'`);
	await db.query(`update board_column set wip_limit = 20 where name = 'Next in'`);
	const { page, context, quiet } = await visit(server.url, 'Oskar Venn', '/boards/buoy-yard/backlog');
	await tidy(page);
	const before = await rows(page).count();
	const button = page.getByRole('button', { name: /^Pull \d+ cards? into it/ });
	const pulled = Number(/\d+/.exec(await button.innerText())![0]);
	const [answer] = await Promise.all([page.waitForResponse('**/api/commands'), button.click()]);
	assert.equal(answer.status(), 200, await answer.text());
	await page.waitForFunction((n) => document.querySelectorAll('li[data-card]').length === n, before - pulled);
	quiet();
	await context.close();
});

describe('on a phone', () => {
	test('the plan at 360 px, in the dark', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', PLAN, {
			width: 360,
			height: 740,
			dark: true,
			touch: true,
		});
		await track(page, 'Petra Lind').waitFor();
		await accessible(page);
		await tidy(page);
		quiet();
		await context.close();
	});

	test('a card is given to someone by touch', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', PLAN, {
			width: 390,
			height: 844,
			touch: true,
		});
		const row = page.getByRole('group', { name: 'Backlog, in order' }).locator('li[data-card]').first();
		const number = await numberOf(row);
		await row.getByRole('checkbox').tap();
		await page.getByRole('button', { name: 'Give them to…' }).tap();
		await page
			.getByRole('dialog')
			.getByRole('button', { name: /^Petra Lind/ })
			.tap();
		await track(page, 'Petra Lind')
			.getByRole('link', { name: new RegExp(`^${number} `) })
			.waitFor();
		quiet();
		await context.close();
	});
});
