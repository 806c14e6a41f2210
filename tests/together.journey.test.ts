import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { Person } from '../src/lib/server/sign-in.ts';
import { accessible, awake, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';
import { command } from './support/small-board.ts';
import { seen } from './support/sprint.ts';

const db = await useDatabase('demo');
const server = await startServer();

/** A card that is begun and not blocked, on the demo board, of somebody but its lead. */
const cardInHand = async (): Promise<{ number: number; key: string; who: string }> =>
	(
		await db.query<{ number: number; key: string; who: string }>(
			`select c.number, b.key || '-' || c.number as key, p.name as who from card c
			join board b on b.id = c.board_id and b.key = 'TIDE'
			join board_column k on k.id = c.column_id and k.name = 'Building'
			join card_owner o on o.card_id = c.id
			join person p on p.id = o.person_id and p.name <> 'Ines Okoro'
			where c.clock = 'running' and c.blocked_since is null and c.archived_at is null
			order by c.number limit 1`,
		)
	).rows[0]!;

describe('a lead and a member', () => {
	test('ask, answer, give, review and finish on two screens, each told of it at once', async () => {
		const { number, key, who } = await cardInHand();
		const lead = await visit(server.url, 'Ines Okoro', `/boards/tidewatch?card=${key}`);
		const member = await visit(server.url, who, '/mine', { width: 390, height: 780, touch: true });
		const panel = lead.page.getByRole('complementary', { name: `Card ${key}` });

		// She asks him by name: it is offered as she types.
		const words = panel.getByLabel('Talk', { exact: true });
		await words.click();
		await words.pressSequentially(`@${who.slice(0, 2).toLowerCase()}`);
		await panel
			.getByRole('listbox', { name: 'People' })
			.getByRole('option', { name: new RegExp(who) })
			.click();
		await words.pressSequentially('is the scale right?');
		await lead.page.keyboard.press('Control+Enter');
		await panel.locator('.markdown').getByText(`@${who} is the scale right?`).waitFor();

		// His own page says so without being loaded again.
		const asked = member.page
			.getByRole('region', { name: /^Asked of you/ })
			.getByRole('listitem')
			.filter({ hasText: key });
		await asked.getByText(`Ines Okoro: “@${who} is the scale right?”`).waitFor();
		await accessible(member.page);
		await tidy(member.page);
		await asked.getByRole('button', { name: 'Answer' }).click();
		await member.page.getByLabel(`What you say on ${key}`).fill('To the **centimetre**.');
		await member.page.getByRole('button', { name: 'Say it' }).click();
		await asked.waitFor({ state: 'detached' });

		// She hears of it on the board, and finds it among her notices.
		await panel.getByText('To the centimetre.').waitFor();
		await lead.page.getByRole('link', { name: /^Notices/ }).click();
		const answer = lead.page
			.getByRole('listitem')
			.filter({ hasText: `${who} answers you: “To the centimetre.”` });
		await answer.waitFor();
		await accessible(lead.page);
		await tidy(lead.page);
		await answer.getByRole('link').click();
		await panel.waitFor();

		// She wants to review it; he moves it on with one tap.
		await panel.getByLabel('Reviewer').selectOption({ label: 'Ines Okoro' });
		const inHand = member.page.getByRole('region', { name: /^In hand/ });
		await Promise.all([
			member.page.waitForResponse('**/api/commands'),
			inHand.getByRole('button', { name: `${key}: on to Review` }).click(),
		]);
		await member.page.getByText(`${key} is in Review.`).waitFor();
		await inHand.getByRole('listitem').filter({ hasText: key }).filter({ hasText: 'Review · day' }).waitFor();

		// As its reviewer she is told, and it stands among what she reviews.
		await lead.page.goto(`${server.url}/notices`);
		await lead.page.getByText(`${who} brought it to Review.`).first().waitFor();
		await lead.page.goto(`${server.url}/mine?of=reviewing`);
		await lead.page.getByRole('link', { name: new RegExp(`^${key} `) }).waitFor();

		// He gives it away and is asked no more.
		const { rows } = await db.query<{ n: number }>(
			`select count(*)::int as n from question q join person p on p.id = q.person_id
			where p.name = $2 and q.answered_seq is null and q.card_id in (select id from card where number = $1)`,
			[number, who],
		);
		assert.equal(rows[0]!.n, 0);
		lead.quiet();
		// Moving on met the change of the reviewer, and was done all the same.
		member.quiet(/409/);
		await lead.context.close();
		await member.context.close();
	});
});

test('of two people of one name, the one who was chosen is asked', async () => {
	const { number, key } = await cardInHand();
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `/boards/tidewatch?card=${key}`);
	const panel = page.getByRole('complementary', { name: `Card ${key}` });
	await panel.getByLabel('Talk', { exact: true }).pressSequentially('@sam');
	const names = panel.getByRole('listbox', { name: 'People' });
	await names.getByRole('option', { name: /^Sam Pike \(Schools\)/ }).waitFor();
	await names.getByRole('option', { name: /^Sam Pike \(Boatman\)/ }).click();
	await page.keyboard.type('is the tide in?');
	await page.keyboard.press('Control+Enter');
	await panel.locator('.markdown').getByText('@Sam Pike (Boatman) is the tide in?').waitFor();
	const { rows } = await db.query<Person & { title: string; card: string }>(
		`select p.id, p.name, p.initials, p.email, 'write' as scope, m.title, c.id as card
		from question q join card c on c.id = q.card_id join membership m on m.person_id = q.person_id
		join person p on p.id = m.person_id
		where c.number = $1 and p.name = 'Sam Pike'`,
		[number],
	);
	assert.deepEqual(
		rows.map(({ title }) => title),
		['Boatman'],
	);
	const { card, ...sam } = rows[0]!;
	await command(sam, 'CommentCard', { card, text: 'It comes in.' });
	await panel.getByText('It comes in.').waitFor();
	await panel.locator('.by').getByText('Sam Pike (Boatman)').waitFor();
	quiet();
	await context.close();
});

describe('notices', () => {
	test('a card is taken and its date moved right there', async () => {
		const { rows } = await db.query<{ id: string; key: string }>(
			`select c.id, b.key || '-' || c.number as key from card c
			join board b on b.id = c.board_id and b.key = 'TIDE'
			join board_column k on k.id = c.column_id and k.name = 'Lined up'
			where c.archived_at is null and not exists (
				select from card_owner o join person p on p.id = o.person_id and p.name = 'Petra Lind' where o.card_id = c.id)
			order by c.number limit 1`,
		);
		const { id, key } = rows[0]!;
		const lead = await visit(server.url, 'Ines Okoro', `/cards/${key}`);
		await lead.page.getByLabel('Talk', { exact: true }).fill('@Petra Lind would you see to this?');
		await Promise.all([
			lead.page.waitForResponse('**/api/commands'),
			lead.page.keyboard.press('Control+Enter'),
		]);
		await lead.context.close();
		const { page, context, quiet } = await visit(server.url, 'Petra Lind', '/notices', {
			...{ width: 390, height: 780, touch: true },
		});
		const row = page.getByRole('listitem').filter({ hasText: 'would you see to this?' });
		await Promise.all([
			page.waitForResponse('**/api/commands'),
			row.getByRole('button', { name: 'Take it' }).click(),
		]);
		await page.getByText(`${key} is yours too.`).waitFor();
		await row.getByRole('button', { name: 'Take it' }).waitFor({ state: 'detached' });
		const taken = await db.query(
			`select from card_owner o join person p on p.id = o.person_id and p.name = 'Petra Lind' where o.card_id = $1`,
			[id],
		);
		assert.equal(taken.rowCount, 1);

		// Whoever owns it is told that it was dated, and moves that on.
		const other = await visit(server.url, 'Ines Okoro', `/cards/${key}`);
		await other.page.getByLabel('Due', { exact: true }).fill('+3d');
		await Promise.all([other.page.waitForResponse('**/api/commands'), other.page.keyboard.press('Tab')]);
		await other.context.close();
		const dated = page.getByRole('listitem').filter({ hasText: 'set its due date' }).filter({ hasText: key });
		await dated.getByRole('button', { name: 'Move the date' }).waitFor();
		// What hangs on it is not moved without being shown: then the date is given on the card.
		const hangs = await db.query<{ id: string; key: string }>(
			`select c.id, b.key || '-' || c.number as key from card c join board b on b.id = c.board_id
			where c.board_id = (select board_id from card where id = $1) and c.clock = 'none' and c.archived_at is null and c.id <> $1
				and not exists (select from card_link l where c.id in (l.from_id, l.to_id)) order by c.number limit 1`,
			[id],
		);
		const [follower] = hangs.rows;
		const { rows: people } = await db.query<Person>(
			`select id, name, initials, email, 'write' as scope from person where name = 'Ines Okoro'`,
		);
		const does = async (name: string, card: string, input: object) =>
			command(people[0]!, name, { ...(await seen(db, card))[0]!, ...input });
		await does('DateCard', follower!.id, { start: '2026-12-10', due: '2026-12-11' });
		await does('LinkCard', id, { kind: 'blocks', to: follower!.key });
		await dated.getByRole('button', { name: 'Move the date' }).click();
		await dated.getByLabel('Due', { exact: true }).fill('18 dec');
		await page.evaluate(() => scrollTo(0, document.body.scrollHeight));
		await tidy(page);
		await dated.getByRole('button', { name: 'Move it' }).click();
		await page.getByText(`1 card that waits for ${key} would start before it ends then.`).waitFor();
		await does('UnlinkCard', id, { kind: 'blocks', to: follower!.key });
		await page.reload();
		await awake(page);
		await dated.getByRole('button', { name: 'Move the date' }).click();
		// What reads days is late: the date that was typed is moved to once it has come.
		const held: (() => Promise<void>)[] = [];
		let late = true;
		await context.route(/\/_app\/.*\.js/, (route) =>
			late ? void held.push(() => route.continue()) : route.continue(),
		);
		await dated.getByLabel('Due', { exact: true }).fill('18 dec');
		await dated.getByRole('button', { name: 'Move it' }).click();
		late = false;
		await Promise.all([page.waitForResponse('**/api/commands'), ...held.map((go) => go())]);
		await page.getByText(`${key} has another due date.`).waitFor();
		const { rows: now } = await db.query<{ due: string }>('select due::text from card where id = $1', [id]);
		assert.equal(now[0]!.due, '2026-12-18');
		quiet();
		await context.close();
	});

	test('are gone through by key, put away by key, button and swipe, searched, and chosen', async () => {
		const { page, context, quiet } = await visit(server.url, 'Yuki Sandel', '/notices');
		const rows = page.locator('[data-notice]');
		await rows.first().waitFor();
		const many = await rows.count();
		assert.ok(many >= 1);
		await page.keyboard.press('ArrowDown');
		assert.ok(await rows.first().evaluate((row) => row.contains(document.activeElement)));
		await page.keyboard.press('a');
		await page.getByLabel('Your answer').fill('I shall see to it.');
		await Promise.all([
			page.waitForResponse('**/api/commands'),
			page.getByRole('button', { name: 'Say it' }).click(),
		]);
		await page.getByLabel('Your answer').waitFor({ state: 'detached' });
		await page.keyboard.press('?');
		await page.getByRole('dialog').getByText('put the notice away').waitFor();
		await page.keyboard.press('Escape');
		await rows.first().locator('[data-first]').focus();
		await Promise.all([page.waitForResponse('**/api/commands'), page.keyboard.press('Delete')]);
		await page.waitForFunction((n) => document.querySelectorAll('[data-notice]').length === n - 1, many);
		await page.getByRole('link', { name: 'put away' }).click();
		await rows
			.first()
			.getByRole('button', { name: /^Bring back/ })
			.click();
		await page.getByText('Nothing was put away.').waitFor();
		await page.getByLabel('Search the notices').fill('no such card');
		await page.getByText('No notice here has these words').waitFor();
		await page.goto(`${server.url}/notices`);
		await page.getByRole('button', { name: 'What you are told' }).click();
		const told = page.getByRole('radiogroup', { name: 'It is moved' });
		await Promise.all([
			page.waitForResponse('**/api/commands'),
			told.getByRole('radio', { name: 'not at all' }).check(),
		]);
		await page.reload();
		await page.getByRole('button', { name: 'What you are told' }).click();
		assert.ok(await told.getByRole('radio', { name: 'not at all' }).isChecked());
		await accessible(page);
		await tidy(page);
		quiet();
		await context.close();

		const phone = await visit(server.url, 'Petra Lind', '/notices', { width: 360, height: 740, touch: true });
		const first = phone.page.locator('[data-notice]').first();
		await first.waitFor();
		await phone.page.evaluate(() => scrollTo(0, document.body.scrollHeight));
		await tidy(phone.page);
		await phone.page.evaluate(() => scrollTo(0, 0));
		const id = await first.getAttribute('data-notice');
		const box = (await first.boundingBox())!;
		const fingers = await phone.context.newCDPSession(phone.page);
		const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x: number) =>
			fingers.send('Input.dispatchTouchEvent', {
				type,
				touchPoints: type === 'touchEnd' ? [] : [{ x: box.x + x, y: box.y + 20 }],
			});
		await Promise.all([
			phone.page.waitForResponse('**/api/commands'),
			(async () => {
				await touch('touchStart', 250);
				for (const x of [220, 180, 130, 90]) await touch('touchMove', x);
				await touch('touchEnd', 90);
			})(),
		]);
		await phone.page.locator(`[data-notice="${id}"]`).waitFor({ state: 'detached' });
		phone.quiet();
		await phone.context.close();
	});
});

test('what was said is answered, changed and taken back where it stands; who is told is seen and chosen', async () => {
	const { key } = await cardInHand();
	const { page, context, quiet } = await visit(server.url, 'Ines Okoro', `/boards/tidewatch?card=${key}`);
	const panel = page.getByRole('complementary', { name: `Card ${key}` });
	await panel.getByLabel('Talk', { exact: true }).fill(`First words on TIDE-1, not on UTF-8 or ZZZ-1`);
	await panel.getByRole('button', { name: 'Say it' }).click();
	const said = panel.getByRole('listitem').filter({ hasText: 'First words' }).last();
	await said.locator('.markdown').getByRole('link', { name: 'TIDE-1' }).waitFor();
	assert.equal(await said.locator('.markdown a').count(), 1);
	await said.getByRole('button', { name: /^Answer/ }).click();
	await panel.getByLabel('Your answer').fill('And an answer');
	await panel.getByRole('button', { name: 'Answer', exact: true }).last().click();
	await panel.locator('.replies').getByText('And an answer').waitFor();
	await said.getByRole('button', { name: 'Change', exact: true }).first().click();
	await panel.getByLabel('What you said').fill('Better words');
	await panel.getByRole('button', { name: 'Change it' }).click();
	await panel.getByText('changed', { exact: true }).waitFor();
	assert.equal(await panel.getByText('First words').count(), 0);
	await panel.locator('.replies').getByRole('button', { name: 'Take back' }).click();
	await panel.locator('.replies').getByText('Taken back.').waitFor();
	await panel.getByText(/^Told of what happens here: .*you/).waitFor();
	await panel.getByRole('button', { name: 'Tell me no more' }).click();
	await panel.getByRole('button', { name: 'Watch it' }).waitFor();
	await panel.getByLabel('Ask somebody to watch it').selectOption({ label: 'Petra Lind' });
	await panel.getByText(/^Told of what happens here: .*Petra Lind/).waitFor();
	await accessible(page);
	await tidy(page);
	quiet();
	await context.close();
});
