import assert from 'node:assert/strict';
import { test } from 'node:test';
import { accessible, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { pictureOf } from './support/files.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('demo');
const server = await startServer();
const ABOUT = '/boards/tidewatch/about';
const NAME = 'Gauges for every harbour';

test('an initiative is talked about on its own page, with a picture; a question there is answered from one’s own page', async () => {
	const member = await visit(server.url, 'Petra Lind', ABOUT);
	const lead = await visit(server.url, 'Ines Okoro', '/mine', { width: 390, height: 780, touch: true });
	const { page } = member;
	await page.getByRole('link', { name: NAME }).click();
	await page.getByRole('heading', { name: NAME }).waitFor();
	await page.getByText(/\d+ of \d+ cards done/).waitFor();
	await accessible(page);
	await tidy(page);

	const words = page.getByLabel('Talk', { exact: true });
	await page.getByLabel('A picture').setInputFiles({
		...{ name: 'skerry.gif', mimeType: 'image/gif' },
		buffer: pictureOf(Buffer.from('skerry')),
	});
	await page.waitForFunction(() =>
		document.querySelector<HTMLTextAreaElement>('#card-comment')!.value.includes('/api/files/'),
	);
	await words.press('End');
	await words.pressSequentially('@Ines Okoro does this do?');
	await page.keyboard.press('Control+Enter');
	const picture = page.locator('.markdown img[alt="skerry.gif"]');
	await picture.waitFor();
	assert.equal(
		await picture.evaluate((image: HTMLImageElement) => image.decode().then(() => image.naturalWidth)),
		1,
	);
	// It is among the files of the page too.
	await page.getByRole('link', { name: 'Look at skerry.gif' }).waitFor();

	const asked = lead.page.getByRole('region', { name: /^Asked of you/ });
	const row = asked.getByRole('listitem').filter({ hasText: NAME });
	await row.getByText('Petra Lind: “skerry.gif @Ines Okoro does this do?”').waitFor();
	await accessible(lead.page);
	await tidy(lead.page);
	await row.getByRole('button', { name: 'Answer' }).click();
	await lead.page.getByLabel(`What you say on the page of ${NAME}`).fill('It does.');
	await lead.page.getByRole('button', { name: 'Say it' }).click();
	await row.waitFor({ state: 'detached' });
	await page.locator('.replies').getByText('It does.').waitFor();

	// A picture from elsewhere would tell there who looks: only its words are shown.
	await words.fill('![The quay](https://quay.example/quay.png) ![x](/api/you/live)');
	await page.keyboard.press('Control+Enter');
	await page.locator('.markdown').getByText('The quay x').waitFor();
	assert.equal(await page.locator('.markdown img').count(), 1);
	member.quiet();
	lead.quiet();
	await lead.context.close();
	await member.context.close();
});

test('two who write the notes of a board at once: both texts stand side by side, and who changed which line is told', async () => {
	const mine = await visit(server.url, 'Bram Tolver', ABOUT);
	const theirs = await visit(server.url, 'Yuki Sandel', ABOUT, {
		width: 390,
		height: 800,
		touch: true,
		dark: true,
	});
	const write = async ({ page }: typeof mine, text: string) => {
		await page.getByRole('button', { name: 'Change notes' }).click();
		await page.getByRole('textbox', { name: 'Notes' }).fill(text);
	};
	await write(mine, 'The list hangs in the watch room.');
	await write(theirs, 'The list hangs in the hall.');
	await theirs.page.getByRole('button', { name: 'Keep' }).click();
	await theirs.page.locator('.markdown').getByText('The list hangs in the hall.').waitFor();
	await accessible(theirs.page);
	await tidy(theirs.page);
	const { page } = mine;
	await page.getByText('Somebody else wrote here meanwhile:').waitFor();
	await page.getByRole('button', { name: 'Both, one below the other' }).click();
	await page.getByRole('button', { name: 'Keep' }).click();
	await page.locator('.markdown').getByText('The list hangs in the watch room.').waitFor();
	const { rows } = await db.query<{ notes: string }>(
		`select notes from page where initiative_id is null and board_id = (select id from board where key = 'TIDE')`,
	);
	assert.equal(rows[0]!.notes, 'The list hangs in the hall.\n\nThe list hangs in the watch room.');
	await page.getByText('Who changed the notes').click();
	const changes = page.locator('details li');
	assert.match(
		(await changes.nth(0).innerText()).replace(/\s+/g, ' '),
		/^Bram Tolver .*\+ Came: The list hangs in the watch room\.$/,
	);
	assert.match(await changes.nth(1).innerText(), /^Yuki Sandel/);
	mine.quiet();
	theirs.quiet();
	await mine.context.close();
	await theirs.context.close();
});

test('from one’s own page on a phone a card is ticked, talked about, given a picture and time', async () => {
	const { rows } = await db.query<{ id: string; key: string; who: string }>(
		`select c.id, b.key || '-' || c.number as key, p.name as who from card c
		join board b on b.id = c.board_id and b.key = 'TIDE'
		join card_owner o on o.card_id = c.id
		join person p on p.id = o.person_id
		where c.clock = 'running' and c.archived_at is null and c.checklist @> '[{"done": false}]'
			and not exists (select from card k where k.parent_id = c.id)
		order by c.number limit 1`,
	);
	const { id, key, who } = rows[0]!;
	const { page, context, quiet } = await visit(server.url, who, '/mine', {
		width: 360,
		height: 740,
		touch: true,
	});
	await page.getByRole('button', { name: `More with ${key}` }).click();
	const lines = page.getByRole('list', { name: `Checklist of ${key}` });
	const line = lines.getByRole('checkbox', { checked: false }).first();
	await line.waitFor();
	await page.evaluate(() => scrollTo(0, document.body.scrollHeight));
	await accessible(page);
	await tidy(page);
	const row = page.getByRole('listitem').filter({ has: lines });
	const before = await lines.getByRole('checkbox', { checked: true }).count();
	await line.check();
	await row.getByText(new RegExp(`${before + 1}/\\d+ ticked`)).waitFor();
	await row.getByRole('button', { name: 'Say something' }).click();
	await page.getByLabel(`What you say on ${key}`).fill('Seen to.');
	await page.getByRole('button', { name: 'Say it' }).click();
	await page.getByText(`Said on ${key}.`).waitFor();
	await row.getByLabel('A picture').setInputFiles({
		...{ name: 'done.gif', mimeType: 'image/gif' },
		buffer: pictureOf(Buffer.from('done!!')),
	});
	await page.getByText(`done.gif is on ${key}.`).waitFor();
	await row.getByRole('button', { name: 'Time' }).click();
	await page.getByRole('dialog').getByLabel('Hours').fill('0:30');
	await page.getByRole('dialog').getByRole('button', { name: 'Keep' }).click();
	await page.getByText(`Logged on ${key}.`).waitFor();
	const { rows: kept } = await db.query(
		`select (select count(*)::int from attachment where card_id = $1 and name = 'done.gif') as files,
			(select count(*)::int from event where card_id = $1 and kind = 'comment' and value = 'Seen to.') as said,
			(select count(*)::int from time_entry where card_id = $1 and hours = 0.5 and day = '2026-11-23') as logged`,
		[id],
	);
	assert.deepEqual(kept[0], { files: 1, said: 1, logged: 1 });
	quiet();
	await context.close();
});
