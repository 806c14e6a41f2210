import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { describe, test } from 'node:test';
import { Ajv2020 } from 'ajv/dist/2020.js';
import answers from '../src/lib/server/api-answers.json' with { type: 'json' };
import { COMMANDS } from '../src/lib/server/commands/index.ts';
import { Problem } from '../src/lib/server/problem.ts';
import { openSession, SESSION_COOKIE, type Person } from '../src/lib/server/sign-in.ts';
import type { Sent } from './support/at-once.ts';
import { useDatabase } from './support/database.ts';
import { asSeen, scene, type Scene } from './support/scene.ts';
import { startServer } from './support/server.ts';
import { command } from './support/small-board.ts';
import { PAGES, TAKES } from './support/pages.ts';
import { board, team, undoableCommands } from './support/undoable.ts';

process.env.HARROW_SMTP = 'smtp://127.0.0.1:9';
const db = await useDatabase('empty');
const server = await startServer({ HARROW_OUTBOX: '/nowhere' });

/** Who may ask, and how they stand to the board's team. */
const STANDINGS = ['lead', 'member', 'viewer', 'left', 'invited', 'other team', 'nobody'] as const;
type Standing = (typeof STANDINGS)[number];
const RANK = { viewer: 0, member: 1, lead: 2 };

let made = 0;
async function someone(name: string): Promise<Person> {
	const email = `${name.replace(' ', '.')}${++made}@rights.example`;
	const { rows } = await db.query<{ id: string }>(
		'insert into person (name, initials, email, created_at) values ($1, $2, $3, now()) returning id',
		[name, 'XX', email],
	);
	return { id: rows[0]!.id, name, initials: 'XX', email, scope: 'write' };
}

/** One person of every standing; nobody has no session. */
async function people(s: Scene): Promise<Record<Exclude<Standing, 'nobody'>, Person>> {
	const [left, invited, other] = [
		await someone('Left'),
		await someone('Invited'),
		await someone('Other team'),
	];
	await db.query(
		`insert into membership (team_id, person_id, role, left_at) values ($1, $2, 'member', now())`,
		[s.board.team, left.id],
	);
	await command(s.board.lead, 'Invite', { team: s.board.team, role: 'member', title: '', several: true });
	await command(other, 'MakeTeam', {
		name: 'Elsewhere',
		timeZone: 'Europe/Lisbon',
		week: [8, 8, 8, 8, 8, 0, 0],
	});
	const { lead, member, viewer } = s.board;
	return { lead, member, viewer, left, invited, 'other team': other };
}

/** Its ask page is opened. */
const opened = (s: Scene) =>
	command(s.board.lead, 'ChangeAskPage', {
		...board(s),
		page: { words: '', fields: [], column: null, top: false },
	});

/** A retrospective that is held. */
async function held(s: Scene) {
	const input = { ...board(s), columns: ['To try'], anonymous: false, votes: 3 };
	const { result } = await command(s.board.lead, 'HoldRetrospective', input);
	return { ...board(s), retrospective: result.retrospective };
}

/** Commands that cannot be taken back, with what they ask for; of those that can there is a table already. */
const LASTING: Record<string, (s: Scene) => Promise<Sent> | Sent> = {
	RetryLetter: async (s) => {
		const { rows } = await db.query(
			`insert into mail (kind, person_id, secret, made_at) values ('notice', $1, gen_random_uuid(), now()) returning id`,
			[s.board.member.id],
		);
		return [s.board.lead, 'RetryLetter', { team: s.board.team, letter: rows[0].id }];
	},
	RemindCard: (s) => [
		s.board.viewer,
		'RemindCard',
		{ card: s.lined, owners: false, before: 'due', days: 1, hour: 9 },
	],
	DropReminder: (s) => [s.board.viewer, 'DropReminder', { card: s.lined, reminder: randomUUID() }],
	AskForCard: async (s) => {
		await opened(s);
		return [s.board.viewer, 'AskForCard', { ...board(s), title: 'A lamp' }];
	},
	SayOnAsked: async (s) => {
		await opened(s);
		const { result } = await command(s.board.viewer, 'AskForCard', { ...board(s), title: 'A lamp' });
		const { rows } = await db.query('select id from card where board_id = $1 and number = $2', [
			s.board.id,
			Number(String(result.key).split('-')[1]),
		]);
		return [s.board.viewer, 'SayOnAsked', { card: rows[0].id, text: 'A bright one' }];
	},
	HoldRetrospective: (s) => [
		s.board.lead,
		'HoldRetrospective',
		{ ...board(s), columns: ['To try'], anonymous: false, votes: 3 },
	],
	MoveRetrospective: async (s) => [s.board.lead, 'MoveRetrospective', { ...(await held(s)), from: 'write' }],
	WriteNote: async (s) => [s.board.viewer, 'WriteNote', { ...(await held(s)), place: 0, words: 'A word' }],
	ChangeNote: async (s) => [
		s.board.viewer,
		'ChangeNote',
		{ ...(await held(s)), note: randomUUID(), words: 'Two' },
	],
	WithdrawNote: async (s) => [s.board.viewer, 'WithdrawNote', { ...(await held(s)), note: randomUUID() }],
	LayNote: async (s) => [s.board.viewer, 'LayNote', { ...(await held(s)), note: randomUUID(), on: null }],
	VoteNote: async (s) => [s.board.viewer, 'VoteNote', { ...(await held(s)), note: randomUUID(), votes: 1 }],
	AgreeAction: async (s) => [
		s.board.member,
		'AgreeAction',
		{ ...(await held(s)), words: 'Sooner', owner: null, due: null, asCard: false },
	],
	ChangeAction: async (s) => [
		s.board.member,
		'ChangeAction',
		{ ...board(s), action: randomUUID(), version: 1, done: true },
	],
	ChangeTime: (s) => [
		s.board.member,
		'ChangeTime',
		{ card: s.working, entry: randomUUID(), version: 1, hours: 1 },
	],
	RemoveTime: (s) => [s.board.member, 'RemoveTime', { card: s.working, entry: randomUUID(), version: 1 }],
	StartTimer: (s) => [s.board.member, 'StartTimer', { card: s.working }],
	RemoveMember: (s) => [s.board.lead, 'RemoveMember', team(s)],
	ChangeName: (s) => [s.board.lead, 'ChangeName', { ...board(s), label: 'none', to: 'other' }],
	KeepTemplate: (s) => [s.board.lead, 'KeepTemplate', { ...board(s), name: 'Ours', sentence: '' }],
	SendCards: async (s) => {
		const made = await command(s.board.lead, 'MakeBoard', {
			team: s.board.team,
			name: 'Elsewhere',
			key: `E${s.board.key}`,
			unit: 'hours',
			sprintDays: null,
		});
		return [s.board.member, 'SendCards', { ...board(s), cards: [asSeen(s, s.loose)], to: made.result.board }];
	},
	MakeBoard: (s) => [
		s.board.lead,
		'MakeBoard',
		{ team: s.board.team, name: 'New', key: `N${s.board.key}`, unit: 'hours', sprintDays: null },
	],
	Invite: (s) => [s.board.lead, 'Invite', { team: s.board.team, role: 'viewer', title: '', several: false }],
	RevokeInvitation: (s) => [
		s.board.lead,
		'RevokeInvitation',
		{ team: s.board.team, invitation: randomUUID() },
	],
	BringBackMember: (s) => [s.board.lead, 'BringBackMember', { ...team(s), role: 'member' }],
	MakeReset: (s) => [s.board.lead, 'MakeReset', team(s)],
	UndoCommand: (s) => [s.board.member, 'UndoCommand', { of: s.undoable }],
	WatchCard: (s) => [s.board.viewer, 'WatchCard', { card: s.lined, watch: true }],
	AskToWatch: (s) => [s.board.member, 'AskToWatch', { card: s.lined, people: [s.board.viewer.id] }],
	WatchBoard: (s) => [s.board.viewer, 'WatchBoard', { ...board(s), watch: true }],
	ChangeComment: async (s) => {
		const { seq } = await command(s.board.lead, 'CommentCard', { card: s.lined, text: 'Said' });
		return [s.board.lead, 'ChangeComment', { card: s.lined, comment: seq, text: 'Said better' }];
	},
	WithdrawComment: async (s) => {
		const { seq } = await command(s.board.lead, 'CommentCard', { card: s.lined, text: 'Said' });
		return [s.board.lead, 'WithdrawComment', { card: s.lined, comment: seq }];
	},
	CommentPage: (s) => [s.board.viewer, 'CommentPage', { ...board(s), text: 'Said' }],
	ChangePageComment: async (s) => {
		const { seq } = await command(s.board.lead, 'CommentPage', { ...board(s), text: 'Said' });
		return [s.board.lead, 'ChangePageComment', { ...board(s), comment: seq, text: 'Said better' }];
	},
	WithdrawPageComment: async (s) => {
		const { seq } = await command(s.board.lead, 'CommentPage', { ...board(s), text: 'Said' });
		return [s.board.lead, 'WithdrawPageComment', { ...board(s), comment: seq }];
	},
	WatchPage: (s) => [s.board.viewer, 'WatchPage', { ...board(s), watch: true }],
};
const TABLE = { ...undoableCommands(db), ...LASTING };

/** Commands about oneself: whoever is signed in gives them. */
const ABOUT_ONESELF = [...COMMANDS.values()].flatMap((one) => (one.about === 'person' ? [one.name] : []));

/** Where a role may give a command, and what it names is somebody else's: then it is refused all the same. */
const SOMEBODY_ELSES: Record<string, Standing[]> = {
	AddAbsence: ['viewer'],
	WithdrawAbsence: ['viewer'],
	ReadCalendar: ['viewer'],
	ChangeSkills: ['viewer'],
	UndoCommand: ['viewer', 'lead'],
	SettleSprint: ['member'],
	// Of initiatives that somebody else leads.
	StageInitiative: ['member'],
	// A shared one is let go by who made it, or by a lead.
	DropTeamLens: ['viewer', 'member'],
	// What somebody else has said.
	ChangeComment: ['viewer', 'member'],
	WithdrawComment: ['viewer', 'member'],
	ChangePageComment: ['viewer', 'member'],
	WithdrawPageComment: ['viewer', 'member'],
	// What cards show to everyone a lead says.
	ChangeFace: ['viewer', 'member'],
};

const ajv = new Ajv2020({ strict: false });
const answered = new Set<string>();
/** What a command answers is what the published description says that it does. */
function answersAsPublished(name: string, result: unknown): void {
	const schema = (answers.results as Record<string, object>)[name] ?? { type: 'object', maxProperties: 0 };
	assert.ok(ajv.validate(schema, result), `${name}: ${JSON.stringify(result)} ${ajv.errorsText(ajv.errors)}`);
	answered.add(name);
}

describe('every command, given by everyone', () => {
	test('has a row here', () => {
		assert.deepEqual(
			Object.keys(TABLE).sort(),
			[...COMMANDS.keys()].filter((name) => !ABOUT_ONESELF.includes(name)).sort(),
		);
	});

	for (const [name, prepare] of Object.entries(TABLE))
		test(name, async () => {
			const s = await scene(db);
			const all = await people(s);
			const [, , input] = await prepare(s);
			const about = COMMANDS.get(name)!;
			assert.ok(about.about !== 'person');
			// Those who may not come first: what they are refused changes nothing for the next.
			for (const standing of [...STANDINGS].reverse()) {
				if (standing === 'nobody') continue;
				const refused = await command(all[standing], name, input).then(
					({ result }) => {
						answersAsPublished(name, result);
						return null;
					},
					(error: unknown) => {
						if (error instanceof Problem) return error;
						throw error;
					},
				);
				if (about.role === 'anyone') {
					// Whoever asks needs no right on the board; what was asked for is for whoever asked.
					const may = name === 'AskForCard' || standing === 'viewer';
					assert.equal(refused?.status ?? 200, may ? 200 : 404, `${name} by ${standing}: ${refused?.code}`);
					continue;
				}
				const role = RANK[standing as 'lead'] as number | undefined;
				const may =
					role !== undefined && role >= RANK[about.role] && !SOMEBODY_ELSES[name]?.includes(standing);
				const how = `${name} by ${standing}: ${refused?.status ?? 200} ${refused?.code ?? ''}`;
				if (role === undefined) assert.equal(refused?.status, 404, how);
				else if (!may) assert.equal(refused?.status, 403, how);
				else
					assert.ok(
						refused?.status !== 403 && !/^(board|team|card|column)\.not_found$/.test(refused?.code ?? ''),
						how,
					);
			}
		});

	test('answers as it is published, where it answers anything', () => {
		// What they name here is not there: they answer in retrospective.test.ts and names.test.ts.
		const refused = ['AgreeAction', 'ChangeName'];
		assert.deepEqual(
			Object.keys(answers.results).filter((name) => !answered.has(name) && !ABOUT_ONESELF.includes(name)),
			refused,
		);
	});

	test('by nobody, and by whoever may only read', async () => {
		const reader = { ...(await scene(db)).board.lead, scope: 'read' as const };
		for (const name of COMMANDS.keys()) {
			const body = JSON.stringify({ id: randomUUID(), command: name, input: {} });
			const answer = await fetch(`${server.url}/api/commands`, {
				method: 'POST',
				headers: { origin: server.url, 'content-type': 'application/json' },
				body,
			});
			assert.equal(answer.status, 401, name);
			await assert.rejects(
				command(reader, name, {}),
				(error: Problem) => error.code === 'token.read_only',
				name,
			);
		}
	});
});

describe('every page and read, asked for by everyone', () => {
	test('has a row here', () => {
		const routes = readdirSync('src/routes', { recursive: true, encoding: 'utf8' }).filter((file) =>
			/(\+page\.svelte|\+page\.server\.ts|\+server\.ts)$/.test(file),
		);
		const paths = new Set(routes.map((file) => `/${file}`.replace(/\/\+[^/]+$/, '') || '/'));
		assert.deepEqual([...paths].sort(), [...Object.keys(PAGES), ...TAKES].sort());
	});

	test('is seen by those who may, and not found by the others', async () => {
		const s = await scene(db);
		const all = await people(s);
		const cookies = new Map<Standing, string>([['nobody', '']]);
		for (const [standing, person] of Object.entries(all))
			cookies.set(standing as Standing, `${SESSION_COOKIE}=${await openSession(person.id)}`);
		const ask = async (path: string, cookie: string) => {
			const leave = new AbortController();
			const { status, headers } = await fetch(server.url + path, {
				headers: { cookie },
				redirect: 'manual',
				signal: leave.signal,
			});
			leave.abort();
			return `${status}${status === 303 && headers.get('location')?.startsWith('/sign-in') ? ' sign in' : ''}`;
		};
		for (const [route, [sees, address]] of Object.entries(PAGES)) {
			const path = (await address?.(s)) ?? route;
			for (const standing of STANDINGS) {
				const got = await ask(path, cookies.get(standing)!);
				const inTeam = standing in RANK;
				const out = path.startsWith('/api/') ? '401' : '303 sign in';
				const how = `${path} by ${standing}: ${got}`;
				if (sees === 'anybody') assert.match(got, /^(200|303)$/, how);
				else if (standing === 'nobody') assert.equal(got, out, how);
				else if (sees === 'nobody') assert.equal(got, '404', how);
				else if (sees !== 'signed in' && !inTeam) assert.equal(got, '404', how);
				else if (sees === 'lead' && standing !== 'lead') assert.equal(got, '403', how);
				else assert.match(got, /^(200|303)$/, how);
			}
		}
		// Of a board that only named people see, the others of the team find nothing.
		await command(s.board.lead, 'ChangeBoard', {
			...board(s),
			visibleTo: 'named',
			people: [{ person: s.board.viewer.id, changes: true }],
		});
		for (const [route, [sees, address]] of Object.entries(PAGES))
			if (sees === 'board') {
				assert.equal(await ask(await address!(s), cookies.get('member')!), '404', route);
				assert.match(await ask(await address!(s), cookies.get('viewer')!), /^(200|303)$/, route);
				assert.match(await ask(await address!(s), cookies.get('lead')!), /^(200|303)$/, route);
			}
	});
});
