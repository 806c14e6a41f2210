import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Locator, Page } from 'playwright-core';
import { accessible, awake, tidy, visit } from './support/browser.ts';
import { drag, middle, track } from './support/planning.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('empty');
const server = await startServer({ HARROW_SETUP_CODE: 'the-code', HARROW_DEMO: '' });

/** Clicks and fields that the job takes, counted as a person does them. */
let hand = 0;
const click = async (what: Locator) => {
	hand++;
	await what.click();
};
const write = async (what: Locator, text: string) => {
	hand++;
	await what.fill(text);
};
const done = (page: Page, text: string | RegExp) => page.getByText(text).first().waitFor();

test('from an empty database to a first sprint with a colleague, in at most 40 clicks and fields', async () => {
	const began = performance.now();
	const { page, context, quiet } = await visit(server.url, null, '/first?code=the-code');
	await accessible(page);
	await write(page.getByLabel('Your name'), 'Tove Lind');
	await write(page.getByLabel('E-mail address'), 'tove@example.org');
	await write(page.getByLabel(/^A password/), 'seven gulls over the pier');
	await write(page.getByLabel('What the team is called'), 'Harbour workshop');
	await write(page.getByLabel('What its first board is called'), 'Boats in the yard');
	await click(page.getByText('Work on site, with parts to bring'));
	await click(page.getByRole('button', { name: 'Begin' }));
	await page.waitForURL('**/boards/boats-in-the-yard');
	await awake(page);
	await page.getByText('This board is empty.').waitFor();
	await accessible(page);

	// Two columns get other names, and one is added.
	await click(page.getByRole('link', { name: 'make its columns yours' }));
	const rename = async (from: string, to: string) => {
		await write(page.getByLabel(`Name of ${from}`), to);
		await page.keyboard.press('Enter');
		await done(page, `${from} is called ${to}.`);
	};
	await rename('Reported', 'Came in');
	await rename('Handed over', 'Back in the water');
	await click(page.getByRole('button', { name: 'Add a column after On site' }));
	await write(page.getByLabel('Name of the new column'), 'Trial run');
	await click(page.getByRole('button', { name: 'Add it' }));
	await done(page, 'Trial run was added.');
	await accessible(page);
	await tidy(page);

	// A lane for what cannot wait, and a field of their own.
	await click(page.getByRole('link', { name: 'Lanes', exact: true }));
	await write(page.getByLabel('A new lane, called'), 'Cannot wait');
	await click(page.getByRole('button', { name: 'Add the lane' }));
	await done(page, 'The lane Cannot wait is on the board.');
	await click(page.getByRole('link', { name: 'Fields', exact: true }));
	await write(page.getByLabel('A new field, called'), 'Berth');
	await click(page.getByRole('button', { name: 'Add the field' }));
	await done(page, 'Cards have the field Berth.');

	// A colleague is invited, and comes in on a phone.
	await click(page.getByRole('link', { name: 'Board', exact: true }).first());
	await click(page.getByRole('link', { name: 'invite those you work with' }));
	await click(page.getByRole('button', { name: 'Make the link' }));
	const link = await page.locator('code').innerText();
	await accessible(page);
	const phone = await visit(server.url, null, new URL(link).pathname, {
		width: 390,
		height: 844,
		touch: true,
	});
	await phone.page.getByText('Tove Lind invites you to Harbour workshop').waitFor();
	await accessible(phone.page);
	await write(phone.page.getByLabel('Your name'), 'Pavel Rusk');
	await write(phone.page.getByLabel('E-mail address'), 'pavel@example.org');
	await write(phone.page.getByLabel(/^A password/), 'a lamp above the stairs');
	await click(phone.page.getByRole('button', { name: 'Make the account and join' }));
	await click(phone.page.getByRole('link', { name: 'Boats in the yard' }));
	await phone.page.getByText('Came in').first().waitFor();
	await tidy(phone.page);

	// Cards come into the backlog; the first sprint is planned and started.
	// The board's places are in sight on the team's page too.
	await click(page.getByRole('link', { name: 'Backlog', exact: true }));
	const add = page.getByRole('textbox', { name: /Add (a card|cards)/ }).first();
	for (const title of ['Caulk the Petrel 6', 'New rudder for the Tern 10']) {
		await write(add, title);
		await page.keyboard.press('Enter');
		await page.getByText(title.replace(/ \d+$/, '')).first().waitFor();
	}
	await click(page.getByRole('link', { name: 'Plan', exact: true }));
	const waiting = page.getByRole('group', { name: 'Backlog, in order' }).locator('li[data-card]');
	for (const left of [1, 0]) {
		hand++;
		await drag(page, waiting.first().locator('a'), await middle(track(page, 'Tove Lind')));
		await waiting.nth(left).waitFor({ state: 'detached' });
	}
	await accessible(page);
	await click(page.getByRole('button', { name: 'Agree and start week 1' }));
	await page.waitForURL('**/boards/boats-in-the-yard');
	// The colleague sees it as it happens.
	await phone.page.getByText('Caulk the Petrel').waitFor();
	assert.ok(hand <= 40, `${hand} clicks and fields`);
	assert.ok(performance.now() - began < 120_000);
	const { rows } = await db.query(
		`select (select count(*)::int from person) as people, (select count(*)::int from card) as cards,
			(select array_agg(name order by position) from board_column) as columns,
			(select array_agg(name) from lane) as lanes, (select array_agg(name order by position) from field) as fields`,
	);
	assert.deepEqual(rows[0], {
		people: 2,
		cards: 2,
		lanes: ['Cannot wait'],
		fields: ['Parts to bring', 'Berth'],
		columns: [
			'Came in',
			'Preparing',
			'Ready to go',
			'On site',
			'Trial run',
			'Writing up',
			'Back in the water',
		],
	});
	quiet();
	phone.quiet();
	await phone.context.close();
	await context.close();
});

test('a second team says on its pages what is missing, until it has a board with cards', async () => {
	const { page, context, quiet } = await visit(server.url, null, '/sign-in?next=/teams/new');
	await page.getByLabel('E-mail address').fill('tove@example.org');
	await page.getByLabel('Password').fill('seven gulls over the pier');
	await page.getByRole('button', { name: 'Sign in', exact: true }).click();
	await page.waitForURL('**/teams/new');
	await awake(page);
	await page.getByLabel('What the team is called').fill('Net loft');
	await page.getByRole('button', { name: 'Make the team' }).click();
	await page.waitForURL('**/new-board');
	await awake(page);
	await page.getByRole('link', { name: 'People', exact: true }).click();
	await page.getByText('1 person, and no board yet that their hours could go into.').waitFor();
	await page
		.getByRole('button', { name: /^Tove Lind, week of .*: no board;/ })
		.first()
		.waitFor();
	await accessible(page);
	await tidy(page);
	await page.getByRole('link', { name: 'Panorama', exact: true }).click();
	await page
		.getByText('There is no board here yet that you see, so there is nothing to lay out in time.')
		.waitFor();
	await accessible(page);
	await page.getByRole('main').getByRole('link', { name: 'Make a board' }).click();
	await page.getByLabel('What it is called').fill('Nets');
	await page.getByText('Work that flows without sprints').click();
	await page.getByRole('button', { name: 'Make the board' }).click();
	await page.waitForURL('**/boards/nets');
	await awake(page);
	await page.getByRole('link', { name: 'Flow', exact: true }).click();
	await page.getByText('no card was finished. None came.').waitFor();
	await accessible(page);
	await tidy(page);
	for (const place of ['plan', 'settle', 'look-back']) {
		await page.goto(`/boards/nets/${place}`);
		await page.getByText('This board has no sprints').waitFor();
	}
	// How old is old nobody knows yet.
	await page.goto('/boards/nets/about');
	await page.getByText(/0 open cards .* 0 late, 0 blocked and 0 of nobody\./).waitFor();
	quiet();
	await context.close();
});
