import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { NOTICE_NAMES, type NoticeKind } from '../src/core/notices/kinds.ts';
import type { NoticeView } from '../src/core/pages/notices.ts';
import { noticeCount, noticesPage } from '../src/lib/server/questions/notices.ts';
import { cardPage } from '../src/lib/server/questions/card.ts';
import { openSession, SESSION_COOKIE, type Person } from '../src/lib/server/sign-in.ts';
import { remind } from '../src/lib/server/remind.ts';
import { tellOfDays } from '../src/lib/server/tell-days.ts';
import { useDatabase } from './support/database.ts';
import { listenTo } from './support/live.ts';
import { asSeen, scene as busy, type Scene } from './support/scene.ts';
import { startServer } from './support/server.ts';
import { at, seen } from './support/sprint.ts';
import { cardRow, command, refusal } from './support/small-board.ts';

const db = await useDatabase('empty');
const [server, other] = await Promise.all([startServer(), startServer()]);

const versionOf = async (card: string) => (await cardRow(db, card)).version;
/** A command about one card as it stands. */
const on = async (person: Person, name: string, card: string, more: object = {}) =>
	command(person, name, { card, version: await versionOf(card), ...more });
const say = (person: Person, card: string, text: string, replyTo?: number) =>
	command(person, 'CommentCard', { card, text, ...(replyTo ? { replyTo } : {}) });
const noticesOf = async (person: Person): Promise<NoticeView[]> => (await noticesPage(person, {})).notices;
const readAll = (person: Person) => command(person, 'MarkNotices', { as: 'away' });

/** What happens so that somebody gets a notice of each kind, who that is, and what they are told. */
const TOLD: Record<NoticeKind, (s: Scene) => Promise<[Person, RegExp]>> = {
	asked: async (s) => {
		await say(s.board.lead, s.lined, `@${s.board.member.name} is it **mended**?`);
		return [s.board.member, /^Lead \d+ asks you: “@Member \d+ is it mended\?”$/];
	},
	answered: async (s) => {
		const { seq } = await say(s.board.lead, s.lined, `@${s.board.member.name} is it mended?`);
		await say(s.board.member, s.lined, 'Since noon.', seq!);
		return [s.board.lead, /^Member \d+ answers you: “Since noon\.”$/];
	},
	mentioned: async (s) => {
		await say(s.board.lead, s.loose, `Thanks, @${s.board.member.name.toUpperCase()}.`);
		return [s.board.member, /^Lead \d+ names you: “Thanks/];
	},
	given: async (s) => {
		await on(s.board.lead, 'AssignCard', s.loose, { owners: [s.board.member.id] });
		return [s.board.member, /^Lead \d+ gave it to you\.$/];
	},
	'taken-away': async (s) => {
		await on(s.board.lead, 'AssignCard', s.loose, { owners: [s.board.member.id] });
		await readAll(s.board.member);
		await on(s.board.lead, 'AssignCard', s.loose, { owners: [] });
		return [s.board.member, /^Lead \d+ took it from you\.$/];
	},
	review: async (s) => {
		await on(s.board.lead, 'ReviewCard', s.loose, { reviewer: s.board.member.id });
		return [s.board.member, /^Lead \d+ asks you to review it\.$/];
	},
	watch: async (s) => {
		await command(s.board.lead, 'AskToWatch', { card: s.loose, people: [s.board.viewer.id] });
		return [s.board.viewer, /^Lead \d+ asks you to watch it\.$/];
	},
	replied: async (s) => {
		const { seq } = await say(s.board.viewer, s.lined, 'Is this the grey one.');
		await say(s.board.lead, s.lined, 'The white one.', seq!);
		return [s.board.viewer, /^Lead \d+: “The white one\.”$/];
	},
	said: async (s) => {
		await say(s.board.viewer, s.lined, 'I look on.');
		await say(s.board.lead, s.lined, 'So do I.');
		return [s.board.viewer, /^Lead \d+: “So do I\.”$/];
	},
	noted: async (s) => {
		await command(s.board.viewer, 'WatchPage', { board: s.board.id, watch: true });
		await command(s.board.lead, 'WriteNotes', { board: s.board.id, version: 1, text: 'The crane is back.' });
		return [s.board.viewer, /^Lead \d+ changed the notes\.$/];
	},
	budget: async (s) => {
		const cards = await seen(db, s.working);
		await command(s.board.member, 'ChangeCards', { board: s.board.id, cards, initiative: 'Winter' });
		await command(s.board.lead, 'ChangeBudget', { board: s.board.id, initiative: 'Winter', hours: 3 });
		const log = (hours: number) =>
			command(s.board.member, 'LogTime', { card: s.working, day: '2026-11-23', hours });
		await log(3);
		assert.ok(
			!(await noticesOf(s.board.lead)).some(({ kind }) => kind === 'budget'),
			'it is used up, not passed',
		);
		await log(0.5);
		return [s.board.lead, /^Winter has passed its budget: 3\.5 h are worked of 3 h\.$/];
	},
	'over-promise': async (s) => {
		await on(s.board.lead, 'AssignCard', s.lined, { owners: [s.board.member.id] });
		await on(s.board.lead, 'SizeCard', s.lined, { size: 400 });
		await readAll(s.board.member);
		await tellOfDays();
		return [s.board.member, /^You hold more of Sprint 1, which ends on .*, than your hours promise\.$/];
	},
	blocked: async (s) => {
		await watched(s);
		await on(s.board.lead, 'BlockCard', s.working, { reason: 'No crane' });
		return [s.board.viewer, /^Lead \d+ marked it as blocked: No crane\.$/];
	},
	unblocked: async (s) => {
		await on(s.board.lead, 'BlockCard', s.working, { reason: 'No crane' });
		await watched(s);
		await on(s.board.lead, 'UnblockCard', s.working);
		return [s.board.viewer, /^Lead \d+ unblocked it\.$/];
	},
	waited: async (s) => {
		await on(s.board.lead, 'AssignCard', s.loose, { owners: [s.board.member.id] });
		await readAll(s.board.member);
		const { number } = await cardRow(db, s.loose);
		await on(s.board.lead, 'LinkCard', s.working, { kind: 'blocks', to: number });
		await on(s.board.lead, 'MoveCard', s.working, { column: s.board.columns.Done });
		return [s.board.member, /^Lead \d+ finished it: what waited for it can go on\.$/];
	},
	finished: async (s) => {
		await on(s.board.lead, 'AssignCard', s.working, { owners: [s.board.member.id] });
		await on(s.board.member, 'MoveCard', s.working, { column: s.board.columns.Done });
		return [s.board.lead, /^Member \d+ finished it\.$/];
	},
	moved: async (s) => {
		await watched(s);
		await on(s.board.lead, 'MoveCard', s.working, { column: s.board.columns.Check });
		return [s.board.viewer, /^Lead \d+ brought it to Check\.$/];
	},
	dated: async (s) => {
		await watched(s);
		await on(s.board.lead, 'DateCard', s.working, { due: '2026-12-04' });
		return [s.board.viewer, /^Lead \d+ set its due date to Fri 4 Dec 2026\.$/];
	},
	archived: async (s) => {
		await watched(s);
		await on(s.board.lead, 'ArchiveCard', s.working, { reason: 'Twice the same' });
		return [s.board.viewer, /^Lead \d+ archived it: Twice the same\.$/];
	},
	private: async (s) => {
		await watched(s);
		await on(s.board.lead, 'PrivateCard', s.working, { private: true });
		return [s.board.viewer, /^Lead \d+ made it private\.$/];
	},
	due: async (s) => {
		await on(s.board.lead, 'AssignCard', s.loose, { owners: [s.board.member.id] });
		await on(s.board.lead, 'DateCard', s.loose, { due: '2026-11-24' });
		await readAll(s.board.member);
		await tellOfDays();
		return [s.board.member, /^It is due on Tue 24 Nov\.$/];
	},
	late: async (s) => {
		await on(s.board.lead, 'AssignCard', s.loose, { owners: [s.board.member.id] });
		await on(s.board.lead, 'DateCard', s.loose, { due: '2026-11-20' });
		await readAll(s.board.member);
		await tellOfDays();
		return [s.board.member, /^It was due on Fri 20 Nov, and is not finished\.$/];
	},
	reminder: async (s) => {
		const input = { card: s.loose, owners: false, words: 'Call the yard.', at: '2026-11-24T09:00:00Z' };
		await command(s.board.viewer, 'RemindCard', input);
		await at('2026-11-24T09:00:00Z', remind);
		return [s.board.viewer, /^You wanted to be reminded: Call the yard\.$/];
	},
	'review-due': async (s) => {
		await on(s.board.lead, 'ReviewCard', s.loose, { reviewer: s.board.member.id, due: '2026-11-23' });
		await readAll(s.board.member);
		await tellOfDays();
		return [s.board.member, /^You are to review it by Mon 23 Nov\.$/];
	},
	'sprint-over': async (s) => {
		await at('2026-12-20T09:00:00Z', tellOfDays);
		return [s.board.lead, /^Sprint 1 ended on \w{3} \d+ \w{3}, and is not settled\.$/];
	},
	'sprint-started': async (s) => {
		await settle(s);
		await command(s.board.lead, 'StartSprint', {
			board: s.board.id,
			sprint: 2,
			version: s.sprint.two,
		});
		return [s.board.member, /^Lead \d+: Sprint 2 was started\.$/];
	},
	'sprint-settled': async (s) => {
		await settle(s);
		return [s.board.member, /^Lead \d+: Sprint 1 was settled\.$/];
	},
};
const watched = (s: Scene) => command(s.board.viewer, 'WatchCard', { card: s.working, watch: true });
const settle = (s: Scene) =>
	command(s.board.lead, 'SettleSprint', {
		board: s.board.id,
		sprint: 1,
		version: s.sprint.one,
		decisions: [s.working, s.lined].map((id) => ({
			...asSeen(s, id),
			decision: 'backlog',
			reason: 'not-started',
		})),
	});
/** A board in the middle of a sprint, of which everybody has put away what they were told. */
async function scene(): Promise<Scene> {
	const s = await busy(db);
	for (const person of [s.board.lead, s.board.member, s.board.viewer]) await readAll(person);
	return s;
}

describe('a notice', () => {
	test('of every kind is tried here', () =>
		assert.deepEqual(Object.keys(TOLD).sort(), [...NOTICE_NAMES].sort()));

	for (const kind of NOTICE_NAMES)
		test(`${kind}: is told to whom it concerns, in a sentence`, async () => {
			const s = await scene();
			const [person, sentence] = await TOLD[kind](s);
			const [first] = await noticesOf(person);
			assert.equal(first?.kind, kind);
			assert.match(first.says[0]!, sentence);
		});

	test('is never of what one does oneself', async () => {
		const s = await scene();
		await say(s.board.member, s.lined, `@${s.board.member.name} and @team, to myself?`);
		await on(s.board.member, 'AssignCard', s.loose, { owners: [s.board.member.id] });
		await on(s.board.member, 'MoveCard', s.working, { column: s.board.columns.Done });
		assert.deepEqual(await noticesOf(s.board.member), []);
	});

	test('tells a burst once for each card, with the latest of what happened', async () => {
		const s = await scene();
		await command(s.board.viewer, 'WatchBoard', { board: s.board.id, watch: true });
		for (let i = 0; i < 60; i++)
			for (const [at, card] of [s.working, s.lined].entries())
				await say(s.board.lead, card, `Word ${i} on ${at}`);
		const told = await noticesOf(s.board.viewer);
		assert.deepEqual(
			told.map(({ times, says }) => [times, says.length, says[0]!.replace(/^Lead \d+/, 'Lead')]).sort(),
			[
				[60, 3, 'Lead: “Word 59 on 0”'],
				[60, 3, 'Lead: “Word 59 on 1”'],
			],
		);
		assert.deepEqual(await noticeCount(s.board.viewer), { unread: 2, asks: 0 });
		await command(s.board.viewer, 'MarkNotices', { as: 'read' });
		await say(s.board.lead, s.working, 'After it was read');
		assert.deepEqual((await noticesOf(s.board.viewer)).map(({ times, read }) => [times, read]).sort(), [
			[1, false],
			[60, true],
			[60, true],
		]);
	});

	test('of many cards changed at once is one a card, whoever writes beside it', async () => {
		const s = await scene();
		await command(s.board.viewer, 'WatchBoard', { board: s.board.id, watch: true });
		const titles = Array.from({ length: 100 }, (_, i) => ({ title: `Card ${i}` }));
		const { result } = await command(s.board.lead, 'AddCards', { board: s.board.id, cards: titles });
		const cards = (result.cards as { id: string }[]).map(({ id }) => ({ card: id, version: 1 }));
		await Promise.all([
			command(s.board.lead, 'ArchiveCards', { board: s.board.id, cards, reason: 'Not wanted' }),
			...Array.from({ length: 5 }, (_, i) => say(s.board.member, s.lined, `Beside it ${i}`)),
			command(s.board.viewer, 'MarkNotices', { as: 'read' }),
		]);
		const page = await noticesPage(s.board.viewer, {});
		assert.equal(page.notices.length, 50);
		const rest = await noticesPage(s.board.viewer, { before: page.next! });
		const third = rest.next ? await noticesPage(s.board.viewer, { before: rest.next }) : null;
		const all = [page, rest, ...(third ? [third] : [])].flatMap(({ notices }) => notices);
		assert.equal(new Set(all.map(({ id }) => id)).size, all.length);
		const gone = all.filter(({ kind }) => kind === 'archived');
		assert.equal(new Set(gone.map(({ card }) => card!.id)).size, 100);
		assert.equal(gone.length, 100);
	});
});

describe('a day', () => {
	test('is told once, by as many as tell it at once, to whoever chose to hear of it so early, and not when done', async () => {
		const s = await scene();
		const { lead, member } = s.board;
		await on(lead, 'AssignCard', s.loose, { owners: [member.id] });
		// Monday 30 November: five working days from Monday the 23rd.
		await on(lead, 'DateCard', s.loose, { due: '2026-11-30' });
		await readAll(member);
		const told = async () => (await noticesOf(member)).map(({ kind }) => kind);
		await tellOfDays();
		assert.deepEqual(await told(), []);
		await command(member, 'ChooseNotices', { before: 5 });
		await Promise.all(Array.from({ length: 5 }, () => tellOfDays()));
		assert.deepEqual(await told(), ['due']);
		await tellOfDays();
		assert.deepEqual(await told(), ['due']);
		// Another day is another notice, and the old one says nothing any more.
		await on(lead, 'DateCard', s.loose, { due: '2026-11-27' });
		await tellOfDays();
		assert.deepEqual(
			(await told()).filter((kind) => kind !== 'dated'),
			['due'],
		);
		await on(lead, 'MoveCard', s.loose, { column: s.board.columns.Making, reason: 'It must' });
		await on(lead, 'MoveCard', s.loose, { column: s.board.columns.Done });
		assert.ok(!(await told()).includes('due'));
		for (const before of [-1, 11, 1.5])
			assert.equal((await refusal(command(member, 'ChooseNotices', { before }))).code, 'invalid.before');
	});

	test('is told by a process that runs, as a job that any of them does', async () => {
		const s = await scene();
		await on(s.board.lead, 'AssignCard', s.loose, { owners: [s.board.member.id] });
		await on(s.board.lead, 'DateCard', s.loose, { due: '2026-11-24' });
		await readAll(s.board.member);
		const mine = await listenTo(
			`${server.url}/api/you/live`,
			{ cookie: `${SESSION_COOKIE}=${await openSession(s.board.member.id)}` },
			'notices',
		);
		await mine.until(() => true);
		const [told] = await Promise.all([
			mine.until(() => true),
			startServer({ HARROW_JOBS: 'on' }),
			startServer({ HARROW_JOBS: 'on' }),
		]);
		assert.ok(told);
		mine.stop();
		assert.deepEqual(
			(await noticesOf(s.board.member)).map(({ kind }) => kind),
			['due'],
		);
	});
});

describe('a question', () => {
	test('is open until somebody answers it, and open again when that is taken back', async () => {
		const s = await scene();
		const { lead, member, viewer } = s.board;
		const asked = await say(lead, s.lined, `@${member.name} is it mended? @${viewer.name} you look on.`);
		const open = async () =>
			(await noticesOf(member)).filter(({ asks }) => asks).map(({ asks, open }) => [asks, open]);
		assert.deepEqual(await open(), [[true, true]]);
		assert.equal((await noticeCount(member)).asks, 1);
		assert.equal((await noticeCount(viewer)).asks, 0);
		const answer = await say(viewer, s.lined, 'I think so.', asked.seq!);
		assert.deepEqual((await open()).at(-1), [true, false]);
		await command(viewer, 'WithdrawComment', { card: s.lined, comment: answer.seq });
		assert.deepEqual((await open()).at(-1), [true, true]);
		const own = await say(member, s.lined, 'It is.');
		assert.deepEqual((await open()).at(-1), [true, false]);
		await command(member, 'UndoCommand', { of: own.id });
		assert.deepEqual((await open()).at(-1), [true, true]);
		await command(lead, 'WithdrawComment', { card: s.lined, comment: asked.seq });
		assert.deepEqual((await open()).at(-1), [true, false]);
	});

	test('that is taken back at once is told to nobody any more', async () => {
		const s = await scene();
		const { id } = await say(s.board.lead, s.lined, `@${s.board.member.name} is it mended?`);
		await command(s.board.lead, 'UndoCommand', { of: id });
		assert.deepEqual(
			(await noticesOf(s.board.member)).filter(({ asks }) => asks),
			[],
		);
		assert.equal((await noticeCount(s.board.member)).asks, 0);
	});
});

describe('what was said', () => {
	test('is changed and taken back by whoever said it, and its old words are sent to nobody', async () => {
		const s = await scene();
		const { lead, member, viewer } = s.board;
		const key = `${s.board.key}-${(await cardRow(db, s.lined)).number}`;
		const { seq } = await say(lead, s.lined, 'A secret slip');
		await command(lead, 'ChangeComment', { card: s.lined, comment: seq, text: 'Half of it' });
		await command(lead, 'ChangeComment', { card: s.lined, comment: seq, text: `All of it, @${viewer.name}` });
		assert.match((await noticesOf(viewer))[0]!.says[0]!, /names you: “All of it/);
		assert.equal(
			(await refusal(command(member, 'ChangeComment', { card: s.lined, comment: seq, text: 'Mine now' })))
				.code,
			'comment.not_yours',
		);
		assert.equal(
			(await refusal(command(member, 'WithdrawComment', { card: s.lined, comment: seq }))).code,
			'comment.not_yours',
		);
		const said = () => cardPage(member, key).then((card) => JSON.stringify(card));
		assert.doesNotMatch(await said(), /secret slip|Half of it/);
		assert.match(await said(), /All of it/);
		await command(lead, 'WithdrawComment', { card: s.lined, comment: seq });
		assert.doesNotMatch(await said(), /secret slip|Half of it|All of it/);
		assert.equal(
			(await refusal(command(lead, 'ChangeComment', { card: s.lined, comment: seq, text: 'Again' }))).code,
			'comment.gone',
		);
		assert.equal((await refusal(say(member, s.lined, 'To what?', seq!))).code, 'comment.gone');
		assert.doesNotMatch(JSON.stringify(await noticesPage(viewer, {})), /All of it/);
	});

	test('names nobody who may not see the card, and says so; and at most fifty people', async () => {
		const s = await scene();
		const { rows } = await db.query<{ id: string }>(
			`insert into person (name, initials, email, created_at) values ('Ada Outside', 'AO', gen_random_uuid() || '@outside.example', now()) returning id`,
		);
		const outside = { ...s.board.lead, id: rows[0]!.id, name: 'Ada Outside' };
		const { advice } = await say(
			s.board.lead,
			s.lined,
			'Ask @Ada Outside, or mail her at ada@outside.example?',
		);
		assert.equal(advice, 'Nobody was told of @Ada: 1 name of nobody who may see this card.');
		assert.deepEqual(await noticesOf(outside), []);
		const names = Array.from({ length: 60 }, (_, i) => `Crowd number${i}`);
		await db.query(
			`with p as (
				insert into person (name, initials, email, created_at)
				select n, 'CN', gen_random_uuid() || '@crowd.example', now() from unnest($2::text[]) n returning id
			) insert into membership (team_id, person_id, role) select $1, id, 'member' from p`,
			[s.board.team, names],
		);
		const many = await refusal(say(s.board.lead, s.lined, names.map((name) => `@${name}`).join(' ')));
		assert.deepEqual([many.code, many.status], ['mentions.too_many', 422]);
		await say(s.board.lead, s.lined, '@team: hands up?');
		const { rows: told } = await db.query('select from notice where board_id = $1 and asks', [s.board.id]);
		assert.equal(told.length, 62);
	});
});

describe('a right that is lost', () => {
	test('takes its notices along: of a card made private, and of a board that one sees no more', async () => {
		const s = await scene();
		await say(s.board.viewer, s.working, 'I was here');
		await say(s.board.lead, s.working, `@${s.board.viewer.name} and so was I?`);
		assert.equal((await noticesOf(s.board.viewer)).length, 1);
		await on(s.board.lead, 'PrivateCard', s.working, { private: true });
		assert.deepEqual(await noticesOf(s.board.viewer), []);
		assert.deepEqual(await noticeCount(s.board.viewer), { unread: 0, asks: 0 });
		assert.equal((await refusal(say(s.board.viewer, s.working, 'Still here?'))).status, 404);
		await on(s.board.lead, 'PrivateCard', s.working, { private: false });
		assert.equal((await noticesOf(s.board.viewer)).filter(({ asks }) => asks).length, 1);
		await command(s.board.lead, 'RemoveMember', {
			team: s.board.team,
			person: s.board.viewer.id,
			to: null,
		}).catch(() =>
			db.query('update membership set left_at = now() where person_id = $1', [s.board.viewer.id]),
		);
		assert.deepEqual(await noticesOf(s.board.viewer), []);
	});
});

describe('what somebody chooses', () => {
	test('is how they are told: by kind, by board, and card by card', async () => {
		const s = await scene();
		const { lead, member } = s.board;
		const told = async (choices: object) => {
			await command(member, 'ChooseNotices', choices);
			await say(lead, s.lined, `Well, @${member.name}.`);
			const { length } = await noticesOf(member);
			await readAll(member);
			return length;
		};
		assert.equal(await told({}), 1);
		assert.equal(await told({ kinds: { mentioned: 'none' } }), 0);
		assert.equal(
			await told({ kinds: { mentioned: 'none' }, boards: { [s.board.id]: { mentioned: 'harrow' } } }),
			1,
		);
		assert.equal(await told({ boards: { [s.board.id]: { all: 'none' } } }), 0);
		assert.equal(await told({ kinds: { said: 'none' } }), 1);
		for (const [choices, code] of [
			[{ kinds: { weather: 'none' } }, 'invalid.kinds'],
			[{ kinds: { said: 'loud' } }, 'invalid.kinds'],
			[{ boards: { [s.board.id]: 'none' } }, 'invalid.boards'],
			[{ boards: { [crypto.randomUUID()]: { all: 'none' } } }, 'board.unknown'],
		] as const)
			assert.equal((await refusal(command(member, 'ChooseNotices', choices))).code, code);
		await command(member, 'ChooseNotices', {});
		await say(member, s.lined, 'I take part');
		await command(member, 'WatchCard', { card: s.lined, watch: false });
		await say(lead, s.lined, 'Nobody hears');
		assert.equal((await noticesOf(member)).length, 0);
		await say(lead, s.lined, `But you do, @${member.name}.`);
		assert.equal((await noticesOf(member)).length, 1);
	});

	test('marks only notices of one’s own', async () => {
		const s = await scene();
		await say(s.board.lead, s.lined, `@${s.board.member.name}, look.`);
		const [notice] = await noticesOf(s.board.member);
		const ids = { notices: [notice!.id] };
		assert.deepEqual((await command(s.board.lead, 'MarkNotices', { ...ids, as: 'away' })).result, {
			notices: 0,
		});
		assert.equal((await noticesOf(s.board.member)).length, 1);
		for (const as of ['read', 'unread', 'away', 'back'])
			assert.deepEqual((await command(s.board.member, 'MarkNotices', { ...ids, as })).result, { notices: 1 });
	});
});

test('a notice is on the other person’s open page within a second, through any process, with two hundred pages open', async () => {
	const s = await scene();
	const cookieOf = async (person: Person) => ({
		cookie: `${SESSION_COOKIE}=${await openSession(person.id)}`,
	});
	const [member, viewer] = [await cookieOf(s.board.member), await cookieOf(s.board.viewer)];
	const board = `/api/boards/${s.board.slug}/live`;
	// They have caught up long before the others are there.
	const mine = await Promise.all([
		listenTo(`${server.url}${board}`, member, 'notices'),
		listenTo(`${other.url}/api/you/live`, member, 'notices'),
	]);
	const pages = await Promise.all(
		Array.from({ length: 200 }, (_, i) =>
			listenTo(`${(i % 2 ? server : other).url}${i % 3 ? board : '/api/you/live'}`, i % 4 ? viewer : member),
		),
	);
	await mine[1].until(() => true);
	const took: number[] = [];
	for (let i = 0; i < 20; i++) {
		const began = performance.now();
		const heard = Promise.all(mine.map((stream) => stream.until(() => true)));
		await say(s.board.lead, s.lined, `@${s.board.member.name}, number ${i}.`);
		await heard;
		took.push(performance.now() - began);
	}
	const p95 = took.sort((a, b) => a - b)[18]!;
	assert.ok(p95 < 1000, `${Math.round(p95)} ms`);
	for (const stream of [...pages, ...mine]) stream.stop();
});

test('a notice that comes while a page is still catching up is told to it once it has', async () => {
	const s = await scene();
	const cookie = { cookie: `${SESSION_COOKIE}=${await openSession(s.board.member.id)}` };
	const alone = await listenTo(`${server.url}/api/you/live`, cookie, 'notices');
	await alone.until(() => true);
	const holder = await db.connect();
	try {
		await holder.query('begin');
		await holder.query('lock table event in access exclusive mode');
		const page = await listenTo(`${server.url}/api/boards/${s.board.slug}/live`, cookie, 'notices');
		const waits = `select from pg_locks l where not granted and relation = 'event'::regclass`;
		while (!(await holder.query(waits)).rowCount);
		// As the database says it to all processes.
		await db.query(`select pg_notify('harrow', 'notice ' || $1)`, [s.board.member.id]);
		await alone.until(() => true);
		await holder.query('commit');
		await page.until(() => true);
		page.stop();
	} finally {
		holder.release();
		alone.stop();
	}
});

describe('reminders', () => {
	const set = (person: Person, card: string, more: object) =>
		command(person, 'RemindCard', { card, owners: false, ...more });
	const due = { before: 'due', days: 1, hour: 9 };

	test('move with the date, come once for each, and again where it is put off', async () => {
		const s = await busy(db);
		const { lead, viewer } = s.board;
		await set(viewer, s.loose, { ...due, words: 'Ask for the key' });
		const come = async (time: string) => {
			await at(time, async () => {
				await Promise.all(Array.from({ length: 4 }, () => remind()));
			});
			return (await noticesOf(viewer)).length;
		};
		const date = async (day: string) => on(lead, 'DateCard', s.loose, { due: day });
		assert.equal(await come('2026-11-30T12:00:00Z'), 0, 'without a date it never comes');
		await date('2026-12-04');
		// Nine in Lisbon on the day before.
		assert.equal(await come('2026-12-03T08:59:00Z'), 0);
		assert.equal(await come('2026-12-03T09:00:00Z'), 1);
		assert.equal(await come('2026-12-03T15:00:00Z'), 1);
		assert.deepEqual((await cardPage(viewer, `${s.board.key}-3`)).reminders, []);
		await at('2026-12-03T16:00:00Z', () => date('2026-12-10'));
		assert.equal((await cardPage(viewer, `${s.board.key}-3`)).reminders.length, 1);
		assert.equal(await come('2026-12-09T10:00:00Z'), 2);
	});

	test('for the owners reach whoever owns it then; nobody is reminded of what is finished, or that they may not see', async () => {
		const s = await busy(db);
		const { lead, member, viewer } = s.board;
		await command(lead, 'RemindCard', { card: s.loose, owners: true, at: '2026-11-24T09:00:00Z' });
		await set(viewer, s.loose, { at: '2026-11-24T10:00:00Z' });
		await set(lead, s.working, { at: '2026-11-24T09:00:00Z' });
		await on(lead, 'AssignCard', s.loose, { owners: [member.id] });
		await Promise.all([lead, member, viewer].map(readAll));
		await on(lead, 'MoveCard', s.working, { column: s.board.columns.Done });
		await Promise.all([lead, member, viewer].map(readAll));
		await at('2026-11-24T09:30:00Z', remind);
		assert.deepEqual(
			(await noticesOf(member)).map(({ says }) => says[0]),
			[`${lead.name} reminds you.`],
		);
		assert.deepEqual(await noticesOf(lead), []);
		await on(member, 'PrivateCard', s.loose, { private: true });
		await at('2026-11-24T10:30:00Z', remind);
		assert.deepEqual(await noticesOf(viewer), []);
	});

	test('are refused in words', async () => {
		const s = await busy(db);
		const { lead, viewer } = s.board;
		for (const [more, code] of [
			[{}, 'reminder.when'],
			[{ ...due, at: '2026-12-01T09:00:00Z' }, 'reminder.when'],
			[{ before: 'due', days: 1 }, 'reminder.when'],
			[{ at: '2026-11-20T09:00:00Z' }, 'reminder.past'],
			[{ at: 'tomorrow' }, 'invalid.at'],
			[{ ...due, days: 61 }, 'invalid.days'],
		] as const)
			assert.equal((await refusal(set(lead, s.loose, more))).code, code);
		assert.equal((await refusal(set(viewer, s.loose, { ...due, owners: true }))).status, 403);
		const { result } = await set(lead, s.loose, due);
		const drop = (person: Person) =>
			command(person, 'DropReminder', { card: s.loose, reminder: result.reminder });
		assert.equal((await refusal(drop(viewer))).code, 'reminder.not_found');
		await drop(lead);
		assert.equal((await refusal(drop(lead))).code, 'reminder.not_found');
		for (let n = 0; n < 20; n++) await set(lead, s.loose, due);
		assert.equal((await refusal(set(lead, s.loose, due))).code, 'reminder.too_many');
	});
});
