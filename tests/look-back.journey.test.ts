import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { fsum } from 'd3-array';
import type { Page } from 'playwright-core';
import { accessible, textOf, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { command } from './support/small-board.ts';
import { signIn, startServer } from './support/server.ts';
import type { LookBackPage, ReportPage } from '../src/core/pages/look-back.ts';

const db = await useDatabase('demo');
const server = await startServer();
const BOARD = '/boards/tidewatch/look-back';
const cookie = await signIn(server.url, 'Ines Okoro');
const ask = async <T>(path: string): Promise<T> => {
	const response = await fetch(`${server.url}/api${BOARD}${path}`, { headers: { cookie } });
	return (await response.json()) as T;
};
const back = await ask<LookBackPage>('');
const running = back.running!;
const last = back.velocity.sprints.at(-1)!;
const behind = (page: Page) => page.getByRole('region', { name: 'Cards behind the figure' });
const tidied = (n: number) => String(Number(n.toFixed(1)));
const phone = { width: 360, height: 780, dark: true, touch: true };

describe('the report of a sprint', () => {
	test('its ledger opens to stints, its burndown to days; it is printed and leaves as files', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}/${last.number}`);
		const { ledger, scope, unfinished, finished } = await ask<ReportPage>(`/${last.number}`);
		await page
			.getByText(
				`${finished.length} cards finished: ${tidied(last.kept)} of the ${tidied(last.committed)} h committed were delivered`,
			)
			.waitFor();
		await accessible(page);
		await tidy(page);

		// Each part of both sides is the sum of its cards.
		for (const side of ['What came in', 'What became of it'])
			for (const part of await page.getByRole('group', { name: side }).getByRole('button').all()) {
				const [, amount] = /^([\d.]+) h /.exec((await part.getAttribute('title'))!)!;
				await part.click();
				await behind(page)
					.getByText(new RegExp(`^\\d+ cards?, ${amount!.replace('.', '\\.')} h$`))
					.waitFor();
			}
		await page.getByText('The whole ledger, stint by stint').click();
		assert.equal(await page.locator('#ledger tbody tr').count(), ledger.stints.length);
		await accessible(page);
		// A day says what happened on it, and its cards make that up.
		await page.getByRole('group', { name: 'Burndown' }).getByRole('button').nth(4).press('Enter');
		const heading = behind(page).getByRole('heading', { name: /^Fri .* burned/ });
		const [, burned] = /([\d.]+) h burned/.exec(await heading.innerText())!;
		const notes = await behind(page).locator('li small').allInnerTexts();
		const each = notes.map((note) => Number(/([\d.]+) h burned/.exec(note)?.[1] ?? 0));
		// Each is said to one decimal.
		assert.ok(Math.abs(fsum(each) - Number(burned)) <= 0.05 * (each.length + 1), `${notes}: ${burned}`);
		const [most] = (await ask<ReportPage>(`/${last.number}`)).use.toSorted((a, b) => b.worked - a.worked);
		await page.getByRole('button', { name: new RegExp(`^${most!.name}`) }).click();
		await behind(page)
			.getByText(new RegExp(`^\\d+ cards?, ${tidied(most!.worked).replace('.', '\\.')} h$`))
			.waitFor();
		await page.getByLabel('Figures of Burndown').click();
		await page.getByRole('columnheader', { name: 'Guide' }).waitFor();
		assert.equal(
			await page.locator('section', { hasText: 'Changes of scope' }).locator('li').count(),
			scope.length,
		);
		assert.equal(
			await page
				.locator('section')
				.filter({ has: page.getByRole('heading', { name: 'Not finished' }) })
				.locator('li')
				.count(),
			unfinished.length,
		);

		const saved = async (name: string) => {
			const download = page.waitForEvent('download');
			await page.getByRole(name.startsWith('Picture') ? 'button' : 'link', { name }).click();
			return textOf(await download);
		};
		assert.match(await saved('Picture of Burndown'), /^<svg[\s\S]+<path/);
		const csv = await saved('CSV');
		assert.equal(csv.trim().split('\n').length, ledger.stints.length + 1);
		assert.match(await saved('Markdown'), /## Day by day[\s\S]+## Hours against budgets/);

		// On paper the frame is gone and the ledger's bars are there.
		await page.emulateMedia({ media: 'print' });
		assert.equal(await page.getByRole('link', { name: 'Harrow, all boards' }).isVisible(), false);
		assert.equal(await page.getByRole('group', { name: 'What came in' }).isVisible(), true);
		assert.equal(await page.getByRole('group', { name: 'Burndown' }).isVisible(), true);
		quiet();
		await context.close();
	});

	test('of the running sprint: the odds from what is left now, and as many done as the board has', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}/${running}`);
		await page
			.getByText(/By how past cards turned out|has turned out too little|Too few/i)
			.first()
			.waitFor();
		const finished = await page.locator('#finished li').count();
		await page.getByRole('heading', { name: /^Hours against budgets/ }).waitFor();
		await page.locator('section[aria-labelledby="budgets"] button').first().click();
		await behind(page)
			.getByText(/worked so far$/)
			.waitFor();
		await page.goto('/boards/tidewatch/settle');
		await page.getByText(new RegExp(`${finished} of \\d+ cards`)).waitFor();
		quiet();
		await context.close();
	});

	test('on a phone, in the dark', async () => {
		for (const number of [running, last.number]) {
			const { page, context, quiet } = await visit(server.url, 'Sam Pike', `${BOARD}/${number}`, phone);
			await page.getByRole('heading', { name: 'Ledger' }).waitFor();
			await accessible(page);
			await tidy(page);
			quiet();
			await context.close();
		}
	});
});

describe('looking back over the sprints', () => {
	test('velocity, carry-over and its reasons open to the cards that make them up', async () => {
		const { page, context, quiet } = await visit(server.url, 'Ines Okoro', BOARD);
		await page
			.getByText(
				`In sprint ${last.number}, ${tidied(last.kept)} of the ${tidied(last.committed)} h committed were delivered`,
			)
			.first()
			.waitFor();
		await accessible(page);
		await tidy(page);
		const opens = async (name: string, amount: number) => {
			await page.getByRole('button', { name, exact: true }).click();
			await behind(page)
				.getByText(new RegExp(`^\\d+ cards?, ${tidied(amount).replace('.', '\\.')} h$`))
				.waitFor();
		};
		await opens(`Sprint ${last.number}: ${tidied(last.kept)} h of the commitment delivered`, last.kept);
		const later = last.delivered - last.kept;
		await opens(`Sprint ${last.number}: ${tidied(later)} h that came in later delivered`, later);
		await opens(`Sprint ${last.number}: ${tidied(last.committed)} h committed`, last.committed);
		const over = back.carryOver.sprints.at(-1)!;
		const share = (n: number | null) => `${Math.round(n! * 100)}%`;
		await opens(
			`Sprint ${over.number}: ${share(over.bySize)} of its work, ${share(over.byCards)} of its cards carried over`,
			over.size,
		);
		await opens(
			`Sprint ${over.number}: ${tidied(over.broughtSize)} h came in, ${share(over.takenOfPromise)} of its promise`,
			over.broughtSize,
		);
		const [reason] = back.carryOver.reasons;
		await page
			.getByRole('button', { name: new RegExp(`${reason!.count} cards, ${tidied(reason!.size)} h$`) })
			.click();
		await behind(page)
			.getByText(new RegExp(`, ${tidied(reason!.size).replace('.', '\\.')} h$`))
			.first()
			.waitFor();
		await page.getByRole('button', { name: /^one sprint/ }).press('Enter');
		await behind(page).getByRole('heading', { name: 'Finished in one sprint' }).waitFor();
		assert.equal(await page.locator('.chronic li').count(), back.carryOver.chronic.length);
		await accessible(page);
		await tidy(page);
		await page.getByRole('link', { name: 'cards', exact: true }).click();
		await page
			.getByRole('button', {
				name: `Sprint ${last.number}: ${last.keptCards} cards of the commitment delivered`,
			})
			.waitFor();
		await page.getByRole('link', { name: `Sprint ${last.number}`, exact: true }).click();
		await page.getByRole('heading', { name: new RegExp(`^Tidewatch, sprint ${last.number}`) }).waitFor();
		quiet();
		await context.close();
	});

	test('on a phone in the dark, on a board in points, and where nothing has been closed', async () => {
		for (const board of ['tidewatch', 'shore-desk']) {
			const { page, context, quiet } = await visit(
				server.url,
				'Sam Pike',
				`/boards/${board}/look-back`,
				phone,
			);
			await page.getByRole('heading', { name: 'Carried twice or more' }).waitFor();
			await accessible(page);
			await tidy(page);
			quiet();
			await context.close();
		}
	});

	test('what is not there, or not for one’s eyes, is not found; a wrong question is named', async () => {
		const status = async (path: string, as = cookie) =>
			(await fetch(`${server.url}/api/boards/${path}`, { headers: { cookie: as } })).status;
		assert.equal(await status('tidewatch/look-back/cards?of=delivered&which=99'), 404);
		assert.equal(await status('tidewatch/look-back/99'), 404);
		assert.equal(await status('nowhere/look-back'), 404);
		const wrong = await ask<{ code: string; title: string }>('/cards?of=everything&which=1');
		assert.equal(wrong.code, 'invalid.of');
		assert.match(wrong.title, /committed, delivered, kept, later, over/);
	});
});

test('two people of one name are told apart in the use of hours, and the report stands', async () => {
	const { rows: sams } = await db.query(
		`select p.id, p.name, p.initials, p.email, m.title from person p join membership m on m.person_id = p.id
		where p.name = 'Sam Pike' order by m.title`,
	);
	const { rows: cards } = await db.query(
		`select c.id from card c join sprint s on s.id = c.sprint_id join board b on b.id = c.board_id and b.slug = 'tidewatch'
		where s.number = $1 and c.clock = 'running' and c.archived_at is null and not c.private limit 1`,
		[running],
	);
	assert.equal(sams.length, 2);
	for (const sam of sams)
		await command({ ...sam, scope: 'write' }, 'LogTime', {
			...{ card: cards[0].id, day: '2026-11-23', hours: 0.25 },
		});
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `${BOARD}/${running}`);
	for (const { title } of sams)
		await page.getByRole('button', { name: new RegExp(`^Sam Pike \\(${title}\\)`) }).waitFor();
	quiet();
	await context.close();
});
