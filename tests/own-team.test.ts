import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { keyFrom, slugFrom } from '../src/core/flow/set-up.ts';
import { TEMPLATES } from '../src/core/board/templates.ts';
import { makeAccount, setPassword } from '../src/lib/server/account.ts';
import { boardHead, boardsOf } from '../src/lib/server/questions/board-head.ts';
import { cardPage } from '../src/lib/server/questions/card.ts';
import { homePage } from '../src/lib/server/questions/home.ts';
import { sessionsOf } from '../src/lib/server/questions/sessions.ts';
import { teamPage } from '../src/lib/server/questions/team-page.ts';
import { checkPassword, openSession, personOfRequest, type Person } from '../src/lib/server/sign-in.ts';
import { here, otherProcess } from './support/at-once.ts';
import { useDatabase } from './support/database.ts';
import { startServer } from './support/server.ts';
import { addCard, cardRow, command, refusal, smallBoard, type SmallBoard } from './support/small-board.ts';

const db = await useDatabase('empty');
const WEEK = [8, 8, 8, 8, 8, 0, 0];
const GOOD = 'seven gulls over the pier';

/** Sends a form as a browser does; gives where it leads, or what it says. */
async function form(url: string, path: string, fields: Record<string, string>, cookie = '') {
	const answer = await fetch(url + path, {
		method: 'POST',
		redirect: 'manual',
		headers: {
			origin: url,
			accept: 'application/json',
			'x-sveltekit-action': 'true',
			'content-type': 'application/x-www-form-urlencoded',
			cookie,
		},
		body: new URLSearchParams(fields),
	});
	const text = await answer.text();
	return {
		status: JSON.parse(text).status as number,
		text,
		cookie: answer.headers.get('set-cookie')?.split(';')[0] ?? '',
	};
}

// First of all, as nobody is there yet.
describe('a server that nobody has set up', () => {
	const FIRST = {
		name: 'Tove Lind',
		email: 'tove@example.org',
		password: GOOD,
		team: 'Harbour workshop',
		zone: 'Europe/Lisbon',
		'day-0': 'on',
		board: 'Boats in the yard',
		template: 'field-work',
	};
	test('shows one page and nothing else, and lets only who has the code set it up, once', async () => {
		const server = await startServer({ HARROW_SETUP_CODE: 'the-code', HARROW_DEMO: '' });
		assert.match(server.log(), /\/first\?code=the-code/);
		for (const path of ['/', '/sign-in', '/boards/x', '/you', '/teams/new']) {
			const answer = await fetch(server.url + path, { redirect: 'manual' });
			assert.deepEqual([answer.status, answer.headers.get('location')], [303, '/first'], path);
		}
		assert.equal((await fetch(`${server.url}/api/boards`)).status, 401);
		assert.equal((await fetch(`${server.url}/health`)).status, 200);
		assert.equal((await fetch(`${server.url}/first`)).status, 200);

		const guessed = await form(server.url, '/first', { ...FIRST, code: 'a guess' });
		assert.equal(guessed.status, 403);
		assert.match(guessed.text, /not the code/);
		for (const [change, said] of [
			[{ password: 'short' }, /at least 10 characters/],
			[{ password: 'password12345' }, /too weak/],
			[{ password: 'tove and the sea' }, /everyone knows of you/],
			[{ email: 'nobody' }, /not an e-mail address/],
			[{ name: ' ' }, /your name/],
			[{ team: '' }, /team is called/],
		] as const) {
			const refused = await form(server.url, '/first', { ...FIRST, code: 'the-code', ...change });
			assert.equal(refused.status, 422);
			assert.match(refused.text, said);
		}
		assert.equal((await db.query('select from person')).rowCount, 0, 'nothing was changed');

		// Two who have the code begin at once.
		const both = await Promise.all([
			form(server.url, '/first', { ...FIRST, code: 'the-code' }),
			form(server.url, '/first', { ...FIRST, code: 'the-code', email: 'other@example.org' }),
		]);
		assert.deepEqual(both.map(({ status }) => status).sort(), [303, 409]);
		assert.match(both.find(({ status }) => status === 409)!.text, /set this Harrow up already/);
		const { rows } = await db.query(
			`select b.name, b.key, b.sprint_days, (select count(*)::int from board_column k where k.board_id = b.id) as columns,
				(select count(*)::int from sprint s where s.board_id = b.id) as sprints from board b`,
		);
		assert.deepEqual(rows, [
			{ name: 'Boats in the yard', key: 'BITY', sprint_days: 7, columns: 6, sprints: 3 },
		]);
		const later = await fetch(`${server.url}/first`, { redirect: 'manual' });
		assert.equal(later.headers.get('location'), '/');
		assert.equal((await fetch(`${server.url}/`, { redirect: 'manual' })).headers.get('location'), '/sign-in');
	});
});

async function account(name: string): Promise<Person> {
	const email = `${name.toLowerCase().replace(/\W/g, '.')}.${Math.random().toString(36).slice(2)}@example.org`;
	return makeAccount({ name, email, password: GOOD, timeZone: 'Europe/Lisbon' });
}
async function ownTeam(): Promise<{ lead: Person; team: string }> {
	const lead = await account('Lead Of All');
	const made = await command(lead, 'MakeTeam', { name: 'Own', timeZone: 'Europe/Lisbon', week: WEEK });
	return { lead, team: made.result.team as string };
}
const board = (name: string, key: string, more = {}) => ({
	name,
	key,
	unit: 'hours',
	sprintDays: null,
	...more,
});

describe('boards', () => {
	test('every template makes a board that works', async () => {
		assert.ok(TEMPLATES.length >= 9);
		const { lead, team } = await ownTeam();
		for (const [i, { id, name, setUp }] of TEMPLATES.entries()) {
			const made = await command(lead, 'MakeBoard', {
				team,
				name,
				key: `TPL${i}`,
				template: id,
				unit: setUp.unit,
				sprintDays: setUp.sprintDays,
			});
			const head = await boardHead(lead, made.result.slug as string);
			assert.deepEqual(
				head.columns.map((column) => column.name),
				setUp.columns.map((column) => column.name),
			);
			assert.equal(head.columns.filter((column) => column.commitment).length, 1, `${name} has a clock`);
			assert.ok(head.columns.some((column) => column.kind === 'done'));
			assert.ok(
				head.columns.every((column) => column.kind === 'done' || column.policy),
				`${name} has policies`,
			);
			assert.ok(head.types.length || setUp.off.includes('types'), `${name} has kinds of card`);
			const card = await command(lead, 'AddCard', { board: head.id, column: null, title: 'First' });
			let version = 1;
			for (const column of head.columns) {
				await command(lead, 'MoveCard', { card: card.result.card, version: version++, column: column.id });
			}
			assert.equal((await cardRow(db, card.result.card as string)).clock, 'done');
		}
	});

	test('begin like another board, or like one that was kept as a template', async () => {
		const { lead, team } = await ownTeam();
		const first = await command(lead, 'MakeBoard', {
			team,
			...board('First', 'OWNA', { template: 'support' }),
		});
		await command(lead, 'ChangeColumn', {
			column: (await boardHead(lead, first.result.slug as string)).columns[1]!.id,
			version: 1,
			limit: 7,
			name: 'At it',
		});
		const kept = await command(lead, 'KeepTemplate', {
			board: first.result.board,
			name: 'Ours',
			sentence: 'As we do',
		});
		for (const [key, begin] of [
			['OWNB', { from: first.result.board }],
			['OWNC', { template: kept.result.template }],
		] as const) {
			const made = await command(lead, 'MakeBoard', { team, ...board(`Like ${key}`, key, begin) });
			const head = await boardHead(lead, made.result.slug as string);
			assert.deepEqual([head.columns[1]!.name, head.columns[1]!.limit], ['At it', 7]);
			assert.deepEqual(head.off, ['hours']);
			assert.equal(
				(await homePage(lead)).boards.find((one) => one.key === key)!.open,
				0,
				'no cards came along',
			);
		}
		const outside = await account('Out Side');
		const theirs = await command(outside, 'MakeTeam', {
			name: 'Other',
			timeZone: 'Europe/Lisbon',
			week: WEEK,
		});
		for (const begin of [{ from: first.result.board }, { template: kept.result.template }])
			assert.match(
				(
					await refusal(
						command(outside, 'MakeBoard', { team: theirs.result.team, ...board('Theirs', 'OWND', begin) }),
					)
				).code,
				/unknown/,
			);
	});

	test('a name or key that is taken is refused, also of one that is put away, and old keys go on answering', async () => {
		const { lead, team } = await ownTeam();
		const made = await command(lead, 'MakeBoard', { team, ...board('Shed', 'SHED') });
		const id = made.result.board as string;
		const card = await command(lead, 'AddCard', { board: id, column: null, title: 'Sweep it' });
		await command(lead, 'ChangeBoard', { board: id, key: 'BARN' });
		assert.equal((await cardPage(lead, 'SHED-1')).id, card.result.card);
		assert.equal((await cardPage(lead, 'BARN-1')).id, card.result.card);
		await command(lead, 'ChangeBoard', { board: id, away: true });
		assert.deepEqual(await boardsOf(lead), []);
		for (const [input, code] of [
			[board('shed', 'NEWK'), 'board.name_taken'],
			[board('Other', 'BARN'), 'board.key_taken'],
			[board('Other', 'SHED'), 'board.key_taken'],
			[board('Other', 'S'), 'invalid.key'],
			[board('Other', 'shed'), 'invalid.key'],
		] as const) {
			const problem = await refusal(command(lead, 'MakeBoard', { team, ...input }));
			assert.equal(problem.code, code);
			assert.match(problem.message, /\.$/);
		}
		const { version } = await cardRow(db, card.result.card as string);
		const away = await refusal(command(lead, 'RenameCard', { card: card.result.card, version, title: 'No' }));
		assert.equal(away.code, 'board.away');
		await command(lead, 'ChangeBoard', { board: id, away: false });
		await command(lead, 'RenameCard', { card: card.result.card, version, title: 'Yes' });
	});

	test('two leads make boards of one name at once: one is made', async () => {
		const there = await otherProcess();
		const { lead, team } = await ownTeam();
		const both = await Promise.all([
			here([lead, 'MakeBoard', { team, ...board('Same', 'SAMA') }]),
			there([lead, 'MakeBoard', { team, ...board('Same', 'SAMB') }]),
		]);
		assert.equal(both.filter(({ result }) => result).length, 1);
		assert.equal(both.filter(({ refused }) => refused?.status === 409).length, 1);
	});

	test('keys and addresses are proposed from names', () => {
		assert.equal(keyFrom('Boats in the yard'), 'BITY');
		assert.equal(keyFrom('Werkstätte'), 'WERK');
		assert.equal(keyFrom('7'), 'BOAR');
		assert.equal(
			keyFrom('Boats', (key) => key === 'BOAT'),
			'BOAT2',
		);
		for (const name of ['Boats in the yard', 'É', '日本', 'a', '  x  y ', '1 2 3'])
			assert.match(keyFrom(name), /^[A-Z][A-Z0-9]{1,9}$/, name);
		assert.equal(slugFrom('Été & Herbst!'), 'ete-herbst');
		assert.equal(slugFrom('日本'), 'board');
	});

	test('are seen and changed by whom the lead says', async () => {
		const small = await smallBoard(db);
		const may = async (person: Person) =>
			(await boardsOf(person)).find((one) => one.slug === small.slug)?.role;
		const change = (input: object) => command(small.lead, 'ChangeBoard', { board: small.id, ...input });
		assert.deepEqual(await Promise.all([may(small.member), may(small.viewer), may(small.outsider)]), [
			'member',
			'viewer',
			undefined,
		]);
		await change({ visibleTo: 'named', people: [{ person: small.viewer.id, changes: true }] });
		assert.deepEqual(await Promise.all([may(small.member), may(small.viewer), may(small.lead)]), [
			undefined,
			'viewer',
			'lead',
		]);
		await change({ visibleTo: 'signed-in', changedBy: 'named', people: [] });
		assert.deepEqual(await Promise.all([may(small.member), may(small.outsider)]), ['viewer', 'viewer']);
		assert.equal(
			(await refusal(command(small.member, 'AddCard', { board: small.id, column: null, title: 'No' }))).code,
			'right.missing',
		);
		await change({ people: [{ person: small.member.id, changes: true }] });
		assert.equal(await may(small.member), 'member');
		assert.equal(
			(await refusal(change({ people: [{ person: small.outsider.id, changes: true }] }))).code,
			'person.unknown',
		);
	});
});

describe('people', () => {
	const invited = async (small: SmallBoard, several = false, by = small.lead) => {
		const answer = await command(by, 'Invite', {
			team: small.team,
			role: 'member',
			title: 'Rigger',
			several,
		});
		return { id: answer.result.invitation as string, secret: answer.secret! };
	};
	const take = (person: Person, secret: string) => command(person, 'TakeInvitation', { secret });

	test('come in by an invitation, once or several times, until it is ended or over', async () => {
		const small = await smallBoard(db);
		const one = await invited(small);
		const many = await invited(small, true);
		const [ana, ben, cy] = [await account('Ana Mota'), await account('Ben Holt'), await account('Cy Dunn')];
		await take(ana, one.secret);
		assert.equal((await refusal(take(ben, one.secret))).code, 'invitation.used');
		await take(ben, many.secret);
		await take(cy, many.secret);
		assert.equal((await refusal(take(cy, many.secret))).code, 'member.already');
		const page = await teamPage(small.lead, small.team);
		assert.equal(page.invitations.length, 1, 'the one for several waits on');
		assert.equal(page.invitations[0]!.taken, 2);
		const member = page.people.find((person) => person.id === ana.id)!;
		assert.deepEqual([member.role, member.title], ['member', 'Rigger']);
		assert.deepEqual((await teamPage(ana, small.team)).invitations, [], 'only leads see who is invited');
		await command(small.lead, 'RevokeInvitation', { team: small.team, invitation: many.id });
		const dee = await account('Dee Ford');
		assert.equal((await refusal(take(dee, many.secret))).code, 'invitation.revoked');
		const old = await invited(small);
		await db.query(`update invitation set until = '2026-01-01' where id = $1`, [old.id]);
		assert.equal((await refusal(take(dee, old.secret))).code, 'invitation.expired');
		assert.equal((await refusal(take(dee, 'nothing'))).code, 'invitation.unknown');
		assert.equal((await refusal(invited(small, false, small.member))).code, 'right.missing');
		// Nobody finds the secret again, neither with the command nor with its answer.
		const { rows } = await db.query('select from command where input::text like $1 or answer::text like $1', [
			`%${one.secret}%`,
		]);
		assert.equal(rows.length, 0);
	});

	test('of two who take the last place at once, one gets it', async () => {
		const there = await otherProcess();
		const small = await smallBoard(db);
		const { secret } = await invited(small);
		const [ana, ben] = [await account('Ana Mota'), await account('Ben Holt')];
		const both = await Promise.all([
			here([ana, 'TakeInvitation', { secret }]),
			there([ben, 'TakeInvitation', { secret }]),
		]);
		assert.equal(both.filter(({ result }) => result).length, 1);
		assert.deepEqual(
			both.flatMap(({ refused }) => refused?.code ?? []),
			['invitation.used'],
		);
	});

	test('leave, come back with what they did, and a team keeps a lead', async () => {
		const small = await smallBoard(db);
		const card = await addCard(small, 'Ready');
		await command(small.member, 'AssignCard', { card, version: 1, owners: [small.member.id] });
		const leave = (who: Person) => command(small.lead, 'RemoveMember', { team: small.team, person: who.id });
		assert.equal((await refusal(leave(small.lead))).code, 'team.last_lead');
		assert.equal(
			(
				await refusal(
					command(small.lead, 'ChangeMember', { team: small.team, person: small.lead.id, role: 'member' }),
				)
			).code,
			'team.last_lead',
		);
		assert.equal((await refusal(leave(small.member))).code, 'member.has_cards');
		const open = (await teamPage(small.lead, small.team)).people.find((one) => one.id === small.member.id)!;
		assert.deepEqual(
			open.cards.map(({ key }) => key),
			[`${small.key}-1`],
		);
		await command(small.lead, 'AssignCard', { card, version: (await cardRow(db, card)).version, owners: [] });
		await leave(small.member);
		const mine = async () => (await boardsOf(small.member)).find(({ slug }) => slug === small.slug);
		assert.equal(await mine(), undefined);
		await command(small.lead, 'BringBackMember', { team: small.team, person: small.member.id, role: 'lead' });
		assert.equal((await mine())!.role, 'lead');
		assert.equal(
			(
				await refusal(
					command(small.lead, 'BringBackMember', { team: small.team, person: small.member.id, role: 'lead' }),
				)
			).code,
			'member.already',
		);
		// Now there are two leads, and each makes the other a member at once: one stays.
		const there = await otherProcess();
		const both = await Promise.all([
			here([small.lead, 'ChangeMember', { team: small.team, person: small.member.id, role: 'member' }]),
			there([small.member, 'ChangeMember', { team: small.team, person: small.lead.id, role: 'member' }]),
		]);
		assert.equal(both.filter(({ result }) => result).length, 1, JSON.stringify(both));
		assert.equal(
			(await teamPage(small.viewer, small.team)).people.filter((one) => one.role === 'lead').length,
			1,
		);
	});

	test('set a new password by a link that is good once, and every session ends with it', async () => {
		const { lead, team } = await ownTeam();
		const made = await command(lead, 'MakeReset', { team, person: lead.id });
		const cookie = await openSession(lead.id, 'A test');
		await assert.rejects(setPassword(made.secret!, 'short'), /at least 10/);
		await setPassword(made.secret!, 'a lamp above the stairs');
		await assert.rejects(setPassword(made.secret!, 'a lamp above the stairs'), /used already/);
		assert.equal(await personOfRequest(undefined, cookie), null);
		assert.equal(await checkPassword(lead.email, 'a lamp above the stairs', 'here'), lead.id);
		const old = await command(lead, 'MakeReset', { team, person: lead.id });
		await db.query(`update reset set until = '2026-01-01' where used_at is null`);
		await assert.rejects(setPassword(old.secret!, GOOD), /older than a day/);
	});

	test('change their own password, which ends every other session, and end single ones', async () => {
		const person = await account('Ana Mota');
		const [mine, other] = [await openSession(person.id, 'Mine'), await openSession(person.id, 'Other')];
		const me = (await personOfRequest(undefined, mine))!;
		assert.equal(
			(await refusal(command(me, 'ChangePassword', { now: 'wrong', next: GOOD }))).code,
			'password.wrong',
		);
		assert.equal(
			(await refusal(command(me, 'ChangePassword', { now: GOOD, next: 'ana mota for ever' }))).code,
			'next.weak',
		);
		await command(me, 'ChangePassword', { now: GOOD, next: 'a lamp above the stairs' });
		assert.equal(await personOfRequest(undefined, other), null);
		assert.ok(await personOfRequest(undefined, mine));
		const { rows } = await db.query(`select input from command where name = 'ChangePassword'`);
		for (const { input } of rows) assert.deepEqual(input, { now: '•', next: '•' });
		const third = await openSession(person.id, 'Third');
		const sessions = await sessionsOf(me);
		assert.deepEqual(
			sessions.map(({ device, here: mineToo }) => [device, mineToo]),
			[
				['Mine', true],
				['Third', false],
			],
		);
		await command(me, 'EndSession', { session: sessions[1]!.id });
		assert.equal(await personOfRequest(undefined, third), null);
		const stranger = await account('Cy Dunn');
		assert.equal(
			(await refusal(command(stranger, 'EndSession', { session: sessions[0]!.id }))).code,
			'session.not_found',
		);
	});

	test('change their own name and address, but not to one that somebody has', async () => {
		const [ana, ben] = [await account('Ana Mota'), await account('Ben Holt')];
		await command(ana, 'ChangeYou', { name: 'Ana M. Mota', initials: 'amm', timeZone: 'Asia/Tokyo' });
		const { rows } = await db.query('select name, initials, time_zone from person where id = $1', [ana.id]);
		assert.deepEqual(rows[0], { name: 'Ana M. Mota', initials: 'AMM', time_zone: 'Asia/Tokyo' });
		assert.equal(
			(await refusal(command(ana, 'ChangeYou', { email: ben.email.toUpperCase() }))).code,
			'address.taken',
		);
		assert.equal((await refusal(command(ana, 'ChangeYou', { email: 'none' }))).code, 'invalid.email');
		assert.equal((await refusal(command(ana, 'ChangeYou', { timeZone: 'Moon/Sea' }))).code, 'zone.unknown');
		await assert.rejects(
			makeAccount({ name: 'Again', email: ana.email.toUpperCase(), password: GOOD, timeZone: '' }),
			/has an account with this address already/,
		);
	});
});

test('links that let people in are not guessed', async () => {
	const server = await startServer({ HARROW_DEMO: '' });
	const guess = async (path: string) => (await fetch(server.url + path)).text();
	for (let i = 0; i < 30; i++) assert.match(await guess(`/join/guess-${i}`), /lets nobody in/);
	assert.match(await guess('/join/one-more'), /Too many failed tries/);
	assert.match(await guess('/reset/one-more'), /Too many failed tries/);
});
