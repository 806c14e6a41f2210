import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import ICAL from 'ical.js';
import { daysPage } from '../src/lib/server/questions/days.ts';
import { calendarOf } from '../src/lib/server/questions/calendar.ts';
import { rotaOf } from '../src/lib/server/questions/rota.ts';
import { accountPage } from '../src/lib/server/questions/account.ts';
import { hoursOn } from '../src/core/capacity/hours.ts';
import { parseDay } from '../src/core/calendar/days.ts';
import { useDatabase } from './support/database.ts';
import { scene, type Scene } from './support/scene.ts';
import { command, refusal } from './support/small-board.ts';
import { seen } from './support/sprint.ts';
import { startServer } from './support/server.ts';

const db = await useDatabase('empty');
const WEEK = [8, 8, 8, 8, 8, 0, 0];

/** The scene, in which the member works from Monday to Friday. */
async function working(): Promise<Scene> {
	const s = await scene(db);
	await command(s.board.lead, 'ChangeWeek', {
		...{ team: s.board.team, person: s.board.member.id, from: '2026-01-01', hours: WEEK },
	});
	return s;
}
const input = (s: Scene, more: object) => ({
	team: s.board.team,
	person: s.board.member.id,
	part: 'day',
	...more,
});
const put = (s: Scene, more: object, by = s.board.lead) => command(by, 'BookDays', input(s, more));
const bookings = async (s: Scene) => (await daysPage(s.board.viewer, s.board.team, '2026-11-23')).bookings;
const said = async (s: Scene) => (await bookings(s)).map(({ day, part, called }) => [day, part, called]);

describe('putting somebody down for days', () => {
	test('takes the days on which they work, on a site, a board or an initiative, with a note', async () => {
		const s = await working();
		await put(s, { from: '2026-11-26', to: '2026-11-30', site: 'Lamb Island', note: 'with the boat' });
		assert.deepEqual(await said(s), [
			['2026-11-26', 'day', 'Lamb Island'],
			['2026-11-27', 'day', 'Lamb Island'],
			['2026-11-30', 'day', 'Lamb Island'],
		]);
		await command(s.board.lead, 'AddInitiative', { board: s.board.id, name: 'Gauges' });
		const { rows } = await db.query('select initiative_named($1, $2) as id', [s.board.id, 'Gauges']);
		await put(s, { from: '2026-12-01', to: '2026-12-01', part: 'morning', initiative: rows[0].id });
		await put(s, { from: '2026-12-01', to: '2026-12-01', part: 'afternoon', board: s.board.id });
		assert.deepEqual((await said(s)).slice(3), [
			['2026-12-01', 'morning', 'Gauges'],
			['2026-12-01', 'afternoon', `Small ${s.board.slug.split('-')[1]}`],
		]);
		assert.deepEqual((await daysPage(s.board.lead, s.board.team, null)).sites, ['Lamb Island']);
	});

	test('a clash is named before it is kept; it takes the place only when that is said', async () => {
		const s = await working();
		await put(s, { from: '2026-11-24', to: '2026-11-24', part: 'morning', site: 'Lamb Island' });
		const again = { from: '2026-11-23', to: '2026-11-25', site: 'Outer Skerry' };
		const refused = await refusal(put(s, again));
		assert.equal(refused.code, 'booking.taken');
		assert.match(refused.message, /put down for Lamb Island on Tue 24 Nov 2026/);
		assert.equal((await bookings(s)).length, 1);
		await put(s, { ...again, part: 'afternoon' });
		await put(s, { ...again, instead: true });
		assert.deepEqual(
			(await said(s)).map(([, part, called]) => [part, called]),
			[1, 2, 3].map(() => ['day', 'Outer Skerry']),
		);
	});

	test('days away are asked about; nobody is put down there unless that is said', async () => {
		const s = await working();
		await command(s.board.member, 'AddAbsence', {
			...{ team: s.board.team, person: s.board.member.id, from: '2026-11-25', to: '2026-11-25' },
		});
		const away = { from: '2026-11-25', to: '2026-11-26', site: 'Lamb Island' };
		assert.equal((await refusal(put(s, away))).code, 'booking.away');
		assert.equal(
			(await refusal(put(s, { ...away, from: '2026-11-28', to: '2026-11-29' }))).code,
			'booking.away',
		);
		await put(s, { ...away, anyway: true });
		assert.equal((await bookings(s)).length, 2);
	});

	test('two leads at once never put somebody down twice', async () => {
		const s = await working();
		const answers = await Promise.allSettled(
			['Lamb Island', 'Outer Skerry', 'Watch room'].map((site) =>
				put(s, { from: '2026-11-24', to: '2026-11-25', site }),
			),
		);
		assert.deepEqual(answers.map(({ status }) => status).sort(), ['fulfilled', 'rejected', 'rejected']);
		assert.equal((await bookings(s)).length, 2);
	});

	test('the day of somebody in two teams is taken once; what the other team said is not told', async () => {
		const [s, other] = [await working(), await working()];
		await db.query(`insert into membership (team_id, person_id, role) values ($1, $2, 'member')`, [
			other.board.team,
			s.board.member.id,
		]);
		const days = { from: '2026-11-24', to: '2026-11-24' };
		await put(s, { ...days, site: 'Lamb Island' });
		const there = { ...days, team: other.board.team, site: 'Pier', anyway: true };
		const taken = await refusal(put(s, there, other.board.lead));
		assert.equal(taken.code, 'booking.taken');
		assert.match(taken.message, /something of another team/);
		assert.equal(
			(await refusal(put(s, { ...there, instead: true }, other.board.lead))).code,
			'booking.elsewhere',
		);
	});

	test('members put themselves down, and nobody else; days are freed again', async () => {
		const s = await working();
		const days = { from: '2026-11-24', to: '2026-11-24', site: 'Pier' };
		await put(s, days, s.board.member);
		const other = command(s.board.member, 'BookDays', {
			...input(s, days),
			person: s.board.lead.id,
			anyway: true,
		});
		assert.equal((await refusal(other)).code, 'right.missing');
		const [one] = await bookings(s);
		const free = { team: s.board.team, bookings: [one!.id] };
		await command(s.board.member, 'DropBookings', free);
		assert.deepEqual(await bookings(s), []);
		assert.equal((await refusal(command(s.board.lead, 'DropBookings', free))).code, 'booking.not_found');
	});

	test('what is no day, runs backwards, is too long, or names no thing or two is refused in words', async () => {
		const s = await working();
		const refused = async (more: object) =>
			(await refusal(put(s, { from: '2026-11-24', to: '2026-11-24', ...more }))).code;
		assert.equal(await refused({ from: '2026-02-30', site: 'Pier' }), 'invalid.from');
		assert.equal(await refused({ to: '2026-11-23', site: 'Pier' }), 'booking.backwards');
		assert.equal(await refused({ to: '2027-11-23', site: 'Pier' }), 'booking.too_long');
		assert.equal(await refused({}), 'invalid.board');
		assert.equal(await refused({ site: 'Pier', board: s.board.id }), 'invalid.board');
		assert.equal(await refused({ board: s.board.team }), 'board.unknown');
		assert.equal(await refused({ initiative: s.board.team }), 'initiative.unknown');
		assert.equal(await refused({ part: 'evening', site: 'Pier' }), 'invalid.part');
		assert.equal(await refused({ person: s.board.outsider.id, site: 'Pier' }), 'person.unknown');
		assert.deepEqual(await bookings(s), []);
	});
});

describe('absences that a lead agrees to', () => {
	test('change no hours until then; what a lead enters counts at once', async () => {
		const s = await working();
		const { lead, member, team } = s.board;
		await command(lead, 'ChangeTeam', { team, agreeAbsences: true });
		const away = { team, person: member.id, from: '2026-11-26', to: '2026-11-26' };
		const asked = await command(member, 'AddAbsence', away);
		assert.match(asked.advice!, /once a lead has agreed/);
		const hours = async () => hoursOn(await rotaOf(team), member.id, parseDay('2026-11-26')!);
		assert.equal(await hours(), 8);
		const before = await rotaOf(team);
		assert.equal(await rotaOf(team), before, 'the same thing, not one like it, while nothing has changed');
		const absence = asked.result.absence as string;
		const [person] = (await daysPage(lead, team, null)).people.filter(({ id }) => id === member.id);
		assert.deepEqual(
			person!.absences.map(({ waits }) => waits),
			[true],
		);
		assert.equal(
			(await refusal(command(member, 'AgreeAbsence', { team, absence, agreed: true }))).code,
			'right.missing',
		);
		await command(lead, 'AgreeAbsence', { team, absence, agreed: true });
		assert.equal(await hours(), 0);
		assert.notEqual(await rotaOf(team), before);
		assert.equal(
			(await refusal(command(lead, 'AgreeAbsence', { team, absence, agreed: false }))).code,
			'absence.not_found',
		);
		const next = { ...away, from: '2026-11-27', to: '2026-11-27' };
		const again = await command(member, 'AddAbsence', next);
		await command(lead, 'AgreeAbsence', { team, absence: again.result.absence, agreed: false });
		assert.equal(hoursOn(await rotaOf(team), member.id, parseDay('2026-11-27')!), 8);
		await command(lead, 'AddAbsence', next);
		assert.equal(hoursOn(await rotaOf(team), member.id, parseDay('2026-11-27')!), 0);
		// Where nobody agrees any more, what waited counts.
		await command(member, 'AddAbsence', { ...away, from: '2026-11-30', to: '2026-11-30' });
		await command(lead, 'ChangeTeam', { team, agreeAbsences: false });
		assert.equal(hoursOn(await rotaOf(team), member.id, parseDay('2026-11-30')!), 0);
	});
});

describe('weeks of people', () => {
	test('carry a note for the team; by its Monday only', async () => {
		const s = await working();
		const { lead, member, viewer, team } = s.board;
		const note = { team, person: member.id, monday: '2026-11-30', note: 'Home at noon on Thursday' };
		await command(member, 'NoteWeek', note);
		const { notes } = await daysPage(viewer, team, '2026-11-23');
		assert.deepEqual(notes, [{ person: member.id, monday: '2026-11-30', note: note.note }]);
		assert.equal(
			(await refusal(command(lead, 'NoteWeek', { ...note, monday: '2026-12-01' }))).code,
			'invalid.monday',
		);
		assert.equal(
			(await refusal(command(member, 'NoteWeek', { ...note, person: lead.id }))).code,
			'right.missing',
		);
		await command(lead, 'NoteWeek', { ...note, note: '' });
		assert.deepEqual((await daysPage(viewer, team, '2026-11-23')).notes, []);
	});

	test('their use is that of the account over the same days', async () => {
		const s = await working();
		const { lead, member, team } = s.board;
		await command(member, 'LogTime', { card: s.working, day: '2026-11-18', hours: 6 });
		const { use } = await daysPage(lead, team, null);
		const week = use.weeks.indexOf('2026-11-16');
		const own = use.byWeek.find(({ person }) => person === member.id)!.each[week]!;
		const account = await accountPage(lead, team, { from: '2026-11-16', to: '2026-11-22', by: 'person' });
		const line = account.use.find(({ person }) => person === member.id)!;
		assert.deepEqual([own.worked, own.hours, own.use], [line.worked, line.available, line.use]);
		assert.equal(own.worked, 6);
	});
});

describe('private addresses of calendars', () => {
	const read = (text: string) =>
		new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent').map((component) => {
			const event = new ICAL.Event(component);
			return [event.startDate.toString(), event.endDate.toString(), event.summary];
		});
	const make = async (s: Scene, board: string | null, person = s.board.member) =>
		(await command(person, 'MakeCalendarAddress', { board })).secret!;
	const text = (secret: string) => calendarOf(secret, 'http://harrow.example');

	test('one’s own says days, absences and due dates; a board’s its sprints and milestones', async () => {
		const s = await working();
		const { lead, member, team, key } = s.board;
		await command(lead, 'AssignCard', { ...(await seen(db, s.lined))[0]!, owners: [member.id] });
		await command(lead, 'DateCard', { ...(await seen(db, s.lined))[0]!, due: '2026-12-04' });
		await put(s, { from: '2026-11-24', to: '2026-11-24', part: 'morning', site: 'Lamb Island' });
		await command(member, 'AddAbsence', {
			team,
			person: member.id,
			from: '2026-12-07',
			to: '2026-12-09',
			note: 'Leave',
		});
		const own = read((await text(await make(s, null)))!);
		assert.deepEqual(own, [
			['2026-11-24', '2026-11-25', 'Lamb Island, morning'],
			['2026-12-04', '2026-12-05', `${key}-2 is due: Lined up, renamed`],
			['2026-12-07', '2026-12-10', 'Away'],
		]);
		await command(lead, 'AddMilestone', { team, name: 'Harbour day', day: '2026-12-18' });
		const board = read((await text(await make(s, s.board.id)))!);
		assert.ok(board.some(([from, , summary]) => from === '2026-12-18' && summary === 'Harbour day'));
		assert.ok(board.some(([, , summary]) => /^Sprint 1 of /.test(String(summary))));
	});

	test('a guessed one, an ended one, one that another took the place of, and one of somebody who has left answer nothing', async () => {
		const s = await working();
		const secret = await make(s, null);
		assert.ok(await text(secret));
		assert.equal(await text(`${secret}x`), null);
		const next = await make(s, null);
		assert.equal(await text(secret), null);
		const { rows } = await db.query(
			'select id from calendar_address where person_id = $1 and revoked_at is null',
			[s.board.member.id],
		);
		await command(s.board.member, 'EndCalendarAddress', { address: rows[0].id });
		assert.equal(await text(next), null);
		const other = command(s.board.lead, 'EndCalendarAddress', { address: rows[0].id });
		assert.equal((await refusal(other)).code, 'address.not_found');
		const board = await make(s, s.board.id);
		assert.ok(await text(board));
		await command(s.board.lead, 'RemoveMember', { team: s.board.team, person: s.board.member.id });
		assert.equal(await text(board), null);
		assert.equal(
			(await refusal(command(s.board.outsider, 'MakeCalendarAddress', { board: s.board.id }))).code,
			'board.not_found',
		);
	});

	test('are asked for without a session, and say in words that there is nothing', async () => {
		const s = await working();
		const server = await startServer();
		const found = await fetch(`${server.url}/calendar/${await make(s, null)}.ics`);
		assert.equal(found.headers.get('content-type'), 'text/calendar; charset=utf-8');
		assert.match(await found.text(), /^BEGIN:VCALENDAR\r\n/);
		const none = await fetch(`${server.url}/calendar/cal_guessed.ics`);
		assert.equal(none.status, 404);
		assert.equal(((await none.json()) as { code: string }).code, 'calendar.not_found');
	});
});
