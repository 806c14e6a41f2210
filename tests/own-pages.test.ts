import assert from 'node:assert/strict';
import { randomBytes } from 'node:crypto';
import { describe, test } from 'node:test';
import { fileNamed, keepUpload } from '../src/lib/server/files.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { minePage } from '../src/lib/server/questions/mine.ts';
import { noticesPage } from '../src/lib/server/questions/notices.ts';
import { initiativePage, ownPage } from '../src/lib/server/questions/own-page.ts';
import type { Person } from '../src/lib/server/sign-in.ts';
import { talkOf } from '../src/core/talk/talk.ts';
import { useDatabase } from './support/database.ts';
import { pictureOf } from './support/files.ts';
import { scene, type Scene } from './support/scene.ts';
import { command, refusal } from './support/small-board.ts';
import { seen } from './support/sprint.ts';

const db = await useDatabase('empty');

/** The scene with an initiative that has the card lined up. */
async function withInitiative(): Promise<Scene & { of: { board: string; initiative: string } }> {
	const s = await scene(db);
	const cards = await seen(db, s.lined);
	await command(s.board.member, 'ChangeCards', { board: s.board.id, cards, initiative: 'Winter' });
	return { ...s, of: { board: s.board.id, initiative: 'Winter' } };
}
const headOf = (s: Scene, person: Person) => boardHead(person, s.board.slug);
const pageOf = async (s: Scene, person: Person) => ownPage(await headOf(s, person), null);
const winter = async (s: Scene, person: Person, name = 'Winter') => {
	const found = await initiativePage(await headOf(s, person), person, name);
	assert.ok('page' in found);
	return { ...found, ...found.figures };
};
const told = async (person: Person) =>
	(await noticesPage(person, {})).notices
		.filter(({ page, card }) => page || card)
		.map(({ says, page, card }) => [says[0], card ? card.title : (page!.initiative ?? 'the board')]);

describe('the page of a board and of an initiative', () => {
	test('keeps notes with who changed which line, and never two texts in one', async () => {
		const s = await withInitiative();
		const write = (person: Person, version: number, text: string) =>
			command(person, 'WriteNotes', { ...s.of, version, text });
		assert.deepEqual((await winter(s, s.board.viewer)).page.version, 1);
		await write(s.board.member, 1, 'Buoys are ashore.\nThe crane is away.');
		const second = await write(s.board.lead, 2, 'Buoys are ashore.\nThe crane is back.');
		assert.equal((await refusal(write(s.board.member, 2, 'I saw nothing of it'))).code, 'page.changed');
		const { page } = await winter(s, s.board.viewer);
		assert.equal(page.notes, 'Buoys are ashore.\nThe crane is back.');
		assert.deepEqual(
			page.changes.map(({ who, lines }) => [who, lines]),
			[
				[
					s.board.lead.name,
					[
						{ text: 'The crane is away.', came: false },
						{ text: 'The crane is back.', came: true },
					],
				],
				[
					s.board.member.name,
					[
						{ text: 'Buoys are ashore.', came: true },
						{ text: 'The crane is away.', came: true },
					],
				],
			],
		);
		await command(s.board.lead, 'UndoCommand', { of: second.id });
		const back = (await winter(s, s.board.viewer)).page;
		assert.equal(back.notes, 'Buoys are ashore.\nThe crane is away.');
		assert.deepEqual(
			back.changes.map(({ undone }) => undone),
			[true, false],
		);
		assert.equal((await pageOf(s, s.board.viewer)).notes, '', 'the board’s own page is another one');
		const long = refusal(write(s.board.member, 4, 'x'.repeat(50_001)));
		assert.equal((await long).code, 'invalid.text');
	});

	test('a question on it is asked of whom it names, until they answer there', async () => {
		const s = await withInitiative();
		const asked = await command(s.board.lead, 'CommentPage', {
			...s.of,
			text: `@${s.board.member.name} who has the **crane**?`,
		});
		assert.deepEqual(await told(s.board.member), [
			[`${s.board.lead.name} asks you: “@${s.board.member.name} who has the crane?”`, 'Winter'],
		]);
		const [question] = (await minePage(s.board.member, 'mine')).asked;
		assert.deepEqual(
			[question!.initiative, question!.comment, question!.who],
			['Winter', asked.seq, s.board.lead.name],
		);
		await command(s.board.lead, 'ChangePageComment', {
			...s.of,
			comment: asked.seq,
			text: `@${s.board.member.name} who has it?`,
		});
		assert.match((await minePage(s.board.member, 'mine')).asked[0]!.text, /who has it\?$/);
		await command(s.board.member, 'CommentPage', { ...s.of, text: 'The yard.', replyTo: asked.seq });
		assert.deepEqual((await minePage(s.board.member, 'mine')).asked, []);
		assert.deepEqual(await told(s.board.lead), [
			[`${s.board.member.name} answers you: “The yard.”`, 'Winter'],
		]);
		const { page } = await winter(s, s.board.viewer);
		const [talk] = talkOf(page.history);
		assert.deepEqual(
			[talk!.text, talk!.changed, talk!.replies.map(({ text }) => text)],
			[`@${s.board.member.name} who has it?`, true, ['The yard.']],
		);
		const gone = refusal(
			command(s.board.viewer, 'CommentPage', { board: s.board.id, text: 'Elsewhere', replyTo: asked.seq }),
		);
		assert.equal((await gone).code, 'comment.gone', 'it was said on another page');
	});

	test('whoever watches an initiative is told of its cards and its talk; who talks there of the talk only; who stops of none', async () => {
		const s = await withInitiative();
		const [{ viewer, member, lead }] = [s.board];
		await command(viewer, 'WatchPage', { ...s.of, watch: true });
		await command(member, 'CommentPage', { ...s.of, text: 'I begin.' });
		await command(lead, 'MoveCard', { ...(await seen(db, s.lined))[0]!, column: s.board.columns.Making });
		await command(lead, 'CommentPage', { ...s.of, text: 'Good.' });
		assert.deepEqual((await told(viewer)).sort(), [
			[`${lead.name} brought it to Making.`, 'Lined up, renamed'],
			[`${lead.name}: “Good.”`, 'Winter'],
		]);
		assert.deepEqual(
			(await told(member)).filter(([, of]) => of === 'Winter'),
			[[`${lead.name}: “Good.”`, 'Winter']],
		);
		const { page } = await winter(s, viewer);
		assert.deepEqual(page.told.toSorted(), [viewer.id, member.id, lead.id].toSorted());
		for (const person of [viewer, member])
			await command(person, 'WatchPage', { ...s.of, watch: false }).then(() =>
				command(person, 'MarkNotices', { as: 'away' }),
			);
		await command(lead, 'CommentPage', { ...s.of, text: 'Alone here.' });
		await command(lead, 'MoveCard', { ...(await seen(db, s.lined))[0]!, column: s.board.columns.Check });
		assert.deepEqual(await told(viewer), []);
		assert.deepEqual(
			(await told(member)).filter(([, of]) => of === 'Winter'),
			[],
		);
	});

	test('whoever watches a board is told what is said on its page, and of its files', async () => {
		const s = await scene(db);
		await command(s.board.viewer, 'WatchBoard', { board: s.board.id, watch: true });
		const { upload } = await keepUpload(s.board.member, pictureOf(randomBytes(6)));
		const files = [{ upload, name: '..\\yard\\plan.gif' }];
		const put = await command(s.board.member, 'AttachToPage', { board: s.board.id, files });
		await command(s.board.member, 'CommentPage', { board: s.board.id, text: 'See the plan.' });
		const [notice] = (await noticesPage(s.board.viewer, {})).notices;
		assert.deepEqual(
			[notice!.page, notice!.says],
			[
				{ initiative: null },
				[`${s.board.member.name}: “See the plan.”`, `${s.board.member.name} put a file there: plan.gif.`],
			],
		);
		const [file] = put.result.files as string[];
		assert.equal((await fileNamed(s.board.viewer, file!)).name, 'plan.gif');
		assert.equal((await refusal(fileNamed(s.board.outsider, file!))).code, 'file.not_found');
		await command(s.board.member, 'RemovePageFile', { board: s.board.id, file });
		assert.equal((await refusal(fileNamed(s.board.viewer, file!))).code, 'file.not_found');
		const twice = refusal(command(s.board.member, 'RemovePageFile', { board: s.board.id, file }));
		assert.equal((await twice).code, 'file.unknown');
	});

	test('of two initiatives that become one, nothing that was said, written or put there is lost', async () => {
		const s = await withInitiative();
		const cards = await seen(db, s.loose);
		await command(s.board.member, 'ChangeCards', { board: s.board.id, cards, initiative: 'Frost' });
		const frost = { board: s.board.id, initiative: 'Frost' };
		await command(s.board.member, 'WriteNotes', { ...frost, version: 1, text: 'Ice on the slip.' });
		await command(s.board.member, 'WriteNotes', { ...s.of, version: 1, text: 'Lamps are lit.' });
		await command(s.board.member, 'CommentPage', {
			...frost,
			text: `@${s.board.lead.name} is it thick?`,
		});
		const { upload } = await keepUpload(s.board.member, pictureOf(randomBytes(6)));
		await command(s.board.member, 'AttachToPage', { ...frost, files: [{ upload, name: 'ice.gif' }] });
		await command(s.board.lead, 'ChangeName', { ...frost, to: 'Winter' });
		const { page, cards: counted } = await winter(s, s.board.viewer);
		assert.equal(page.notes, 'Lamps are lit.\n\n## Frost\n\nIce on the slip.');
		assert.deepEqual(
			talkOf(page.history).map(({ text, old }) => [text, old]),
			[[`@${s.board.lead.name} is it thick?`, true]],
		);
		assert.deepEqual(
			page.files.map(({ name }) => name),
			['ice.gif'],
		);
		assert.deepEqual(counted, { all: 2, done: 0, undated: 2 });
		// What was asked there is answered here.
		assert.equal((await minePage(s.board.lead, 'mine')).asked[0]!.initiative, 'Winter');
		await command(s.board.lead, 'CommentPage', { ...s.of, text: 'A hand deep.' });
		assert.deepEqual((await minePage(s.board.lead, 'mine')).asked, []);
	});

	test('is found by its name and its id, and says how far its cards are', async () => {
		const s = await withInitiative();
		await command(s.board.member, 'LogTime', { card: s.lined, day: '2026-11-23', hours: 2 });
		const { id, ...one } = await winter(s, s.board.viewer);
		assert.deepEqual(
			[one.cards, one.parts[0]!.left, one.worked, one.retired],
			[{ all: 1, done: 0, undated: 1 }, 3, 2, false],
		);
		assert.equal((await winter(s, s.board.viewer, id)).name, 'Winter');
		assert.equal((await refusal(winter(s, s.board.viewer, 'Summer'))).code, 'initiative.not_found');
		const unknown = refusal(
			command(s.board.member, 'CommentPage', { board: s.board.id, initiative: 'Summer', text: 'Sun' }),
		);
		assert.equal((await unknown).code, 'initiative.unknown');
	});

	test('two who write there for the first time at once: each word is kept', async () => {
		const s = await withInitiative();
		await Promise.all(
			[s.board.lead, s.board.member, s.board.viewer].map((person) =>
				command(person, 'CommentPage', { ...s.of, text: `I am ${person.name}.` }),
			),
		);
		const { page } = await winter(s, s.board.viewer);
		assert.equal(talkOf(page.history).length, 3);
		const { rows } = await db.query('select from page where board_id = $1', [s.board.id]);
		assert.equal(rows.length, 1);
	});
});

test('of a card in several hands, two of one name are told apart', async () => {
	const { board, working } = await scene(db);
	const owners = [board.lead, board.member, board.viewer].map(({ id }) => id);
	await db.query(
		`update membership set role = case role when 'viewer' then 'member' else role end, title = 'Diver ' || role where team_id = $1`,
		[board.team],
	);
	await db.query(`update person set name = 'Ada Brook' where id = any($1)`, [owners.slice(1)]);
	await command(board.member, 'AssignCard', { ...(await seen(db, working))[0], owners });
	const mine = async (person: Person) =>
		(await minePage(person, 'mine')).cards.find(({ id }) => id === working)!.others;
	assert.deepEqual((await mine(board.lead)).sort(), ['Ada Brook (Diver member)', 'Ada Brook (Diver viewer)']);
	assert.deepEqual((await mine(board.member)).sort(), ['Ada Brook (Diver viewer)', board.lead.name].sort());
});
