import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { askedOne, askedPage, askForm } from '../src/lib/server/questions/ask.ts';
import { noticesPage } from '../src/lib/server/questions/notices.ts';
import { cardPage } from '../src/lib/server/questions/card.ts';
import { find } from '../src/lib/server/questions/find.ts';
import type { Person } from '../src/lib/server/sign-in.ts';
import { accessible, tidy, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { scene, type Scene } from './support/scene.ts';
import { startServer } from './support/server.ts';
import { cardRow, command, everything, refusal } from './support/small-board.ts';

const db = await useDatabase('demo');
const server = await startServer();

const open = (s: Scene, more: object = {}) =>
	command(s.board.lead, 'ChangeAskPage', {
		board: s.board.id,
		page: { words: '', fields: ['description', 'due', 'labels'], column: null, top: true, ...more },
	});
async function ask(s: Scene, by: Person, more: object = {}): Promise<{ key: string; id: string }> {
	const { result } = await command(by, 'AskForCard', {
		board: s.board.id,
		title: 'A lamp for the pier',
		...more,
	});
	const key = String(result.key);
	const { rows } = await db.query('select id from card where board_id = $1 and number = $2', [
		s.board.id,
		Number(key.split('-')[1]),
	]);
	return { key, id: rows[0].id };
}
const told = async (person: Person) => (await noticesPage(person, {})).notices.map(({ says }) => says[0]);
const on = async (person: Person, name: string, card: string, more: object) =>
	command(person, name, { card, version: (await cardRow(db, card)).version, ...more });

describe('whoever asks from outside the team', () => {
	test('sees the way of their card and its talk, adds to it, and is told; of the board they see nothing else', async () => {
		const s = await scene(db);
		const { lead, outsider } = s.board;
		assert.equal((await refusal(ask(s, outsider))).code, 'board.not_found');
		await open(s);
		const { key, id } = await ask(s, outsider, { description: 'The old one is dark.', due: '2026-12-11' });
		assert.equal((await askedOne(outsider, key)).stands, 'not begun yet');
		const first = await db.query(
			`select id from card where board_id = $1 and column_id is null and sprint_id is null order by rank limit 1`,
			[s.board.id],
		);
		assert.equal(first.rows[0].id, id, 'on top of the backlog');

		await command(lead, 'CommentCard', { card: id, text: 'Which pier?' });
		await command(outsider, 'SayOnAsked', { card: id, text: 'The north one.' });
		await on(lead, 'MoveCard', id, { column: s.board.columns.Making });
		await on(lead, 'MoveCard', id, { column: s.board.columns.Done });
		const one = await askedOne(outsider, key);
		assert.deepEqual(
			one.way.map(({ words }) => words),
			['Asked for', 'Making', 'Done'],
		);
		assert.deepEqual(
			one.talk.map(({ text, who }) => [text, who]),
			[
				['Which pier?', lead.name],
				['The north one.', outsider.name],
			],
		);
		assert.ok(one.done);
		assert.match((await told(outsider)).join(), /finished it/);
		assert.match(
			(await told(lead)).join() + (await cardPage(lead, key)).told.join(),
			new RegExp(outsider.id),
		);

		// Neither the board, nor the card there, nor another card.
		assert.equal((await refusal(cardPage(outsider, key))).status, 404);
		assert.equal((await refusal(askedOne(outsider, `${s.board.key}-1`))).status, 404);
		assert.equal((await refusal(askedOne(s.board.member, key))).status, 404);
		assert.equal((await refusal(command(outsider, 'CommentCard', { card: id, text: 'Hello' }))).status, 404);
		assert.equal(
			(await refusal(command(outsider, 'SayOnAsked', { card: s.loose, text: 'Hello' }))).status,
			404,
		);
		assert.equal(
			(await refusal(command(s.board.member, 'SayOnAsked', { card: id, text: 'Hello' }))).status,
			404,
		);
		assert.doesNotMatch(JSON.stringify(await find(outsider, 'lamp')), /pier/);

		// Once it is private they see it no more, and are told nothing more.
		const before = (await told(outsider)).length;
		await on(lead, 'PrivateCard', id, { private: true });
		await command(lead, 'CommentCard', { card: id, text: 'Among ourselves.' });
		assert.equal((await refusal(askedOne(outsider, key))).status, 404);
		assert.deepEqual((await askedPage(outsider)).cards, []);
		assert.equal((await told(outsider)).length, 0, `${before} before`);
		assert.equal(
			(await refusal(command(outsider, 'SayOnAsked', { card: id, text: 'Still there?' }))).status,
			404,
		);
	});

	test('lands where the lead says, over a limit too, and asks for what is asked only', async () => {
		const s = await scene(db);
		const { outsider } = s.board;
		await command(s.board.lead, 'AddCard', {
			board: s.board.id,
			title: 'Another',
			column: s.board.columns.Making,
			below: null,
		});
		await open(s, { column: s.board.columns.Making });
		const { id } = await ask(s, outsider);
		const row = await cardRow(db, id);
		assert.equal(row.column_id, s.board.columns.Making);
		assert.equal(row.let_through, `Asked for by ${outsider.name}`);
		const before = await everything(db);
		assert.equal((await refusal(ask(s, outsider, { initiative: 'Any' }))).code, 'ask.not_asked');
		assert.equal((await refusal(ask(s, outsider, { fields: { any: 1 } }))).code, 'ask.not_asked');
		assert.equal((await refusal(ask(s, outsider, { labels: ['made up'] }))).code, 'label.unknown');
		assert.equal((await refusal(ask(s, outsider, { due: '2026-02-30' }))).field, 'due');
		assert.equal((await refusal(ask(s, outsider, { title: ' ' }))).field, 'title');
		assert.equal((await refusal(open(s, { fields: ['nothing'] }))).code, 'field.unknown');
		assert.equal(await everything(db), before, 'and changes nothing');
		await command(s.board.lead, 'ChangeAskPage', { board: s.board.id, page: null });
		assert.equal((await refusal(ask(s, outsider))).code, 'board.not_found');
		assert.equal((await refusal(askForm(s.board.slug))).status, 404);
		assert.equal((await askedPage(outsider)).cards.length, 1, 'what was asked for stays in sight');
	});

	test('from the form to the end, with a lead who opens the page', async () => {
		const lead = await visit(server.url, 'Ines Okoro', '/boards/tidewatch/set-up?part=ask');
		await lead.page.getByRole('checkbox', { name: 'labels' }).check();
		await lead.page.getByLabel('What whoever asks is told first').fill('Say **which harbour** it is.');
		await lead.page.getByLabel('What whoever asks is told first').blur();
		await lead.page.getByRole('button', { name: 'Open the ask page' }).click();
		await lead.page.getByRole('link', { name: '/ask/tidewatch' }).waitFor();
		await accessible(lead.page);
		await tidy(lead.page);

		const asker = await visit(server.url, 'Sam Pike', '/asked', { width: 360, height: 740, touch: true });
		await asker.page.getByRole('link', { name: 'Tidewatch' }).click();
		await asker.page.getByText('which harbour').waitFor();
		await accessible(asker.page);
		await asker.page.evaluate(() => scrollTo(0, document.body.scrollHeight));
		await tidy(asker.page);
		await asker.page.getByLabel('What do you ask for?').fill('Warn the rowing club');
		await asker.page.getByLabel('What should the team know?').fill('They go out at six.');
		// What was begun is there after a reload.
		await asker.page.reload();
		await asker.page.waitForFunction(() => document.documentElement.dataset.awake === 'yes');
		assert.equal(await asker.page.getByLabel('What do you ask for?').inputValue(), 'Warn the rowing club');
		await asker.page.getByRole('button', { name: 'Ask for it' }).click();
		await asker.page.getByText('not begun yet').waitFor();
		const key = new URL(asker.page.url()).pathname.split('/')[2]!;
		await accessible(asker.page);
		await tidy(asker.page);

		await lead.page.goto(`${server.url}/boards/tidewatch?card=${key}`);
		const panel = lead.page.getByRole('complementary', { name: `Card ${key}` });
		await panel.getByText('asked for this').waitFor();
		await panel.getByLabel('Talk', { exact: true }).fill('Which number may we call?');
		await lead.page.keyboard.press('Control+Enter');
		// Their page says so by itself.
		await asker.page.getByText('Which number may we call?').waitFor();
		await asker.page.getByLabel('Add to it').fill('Any of the coxes.');
		await asker.page.getByRole('button', { name: 'Say it' }).click();
		await panel.getByText('Any of the coxes.').waitFor();
		const stands = panel.getByLabel('Stands in');
		await Promise.all([
			lead.page.waitForResponse('**/api/commands'),
			stands.selectOption({ label: 'Live' }).catch(() => stands.selectOption({ index: 5 })),
		]);
		await asker.page.getByText('It is done.').waitFor();
		for (const one of [lead, asker]) {
			one.quiet();
			await one.context.close();
		}
	});
});
