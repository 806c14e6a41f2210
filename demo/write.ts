import { group } from 'd3-array';
import { generateNKeysBetween } from 'fractional-indexing';
import { dayText, weekday } from '../src/core/calendar/days.ts';
import { zoneOf, type Zone } from '../src/core/calendar/zone.ts';
import type { BoardFile } from '../src/core/sprint/board.ts';
import { lifetimes, type Lifetime } from '../src/core/flow/lifetime.ts';
import { sprintAccounts } from '../src/core/sprint/accounts.ts';
import type { Tx } from '../src/lib/server/database.ts';
import { hashPassword } from '../src/lib/server/sign-in.ts';
import type { Rota } from '../src/core/capacity/hours.ts';
import { BOARDS, type DemoBoard } from './boards.ts';
import { PEOPLE } from './people.ts';
import {
	fileOf,
	frozenHours,
	historyOf,
	HOLIDAYS,
	nextOwners,
	RECORDED,
	refine,
	rotaOfDemo,
	writeShares,
} from './planning.ts';
import { outcomes, writeBudgets, writeRates, writeSplits, writeTime, writeTimers } from './working.ts';
import type { DemoEvent, DemoHistory } from './simulate.ts';
import { typicalHistory } from './typical.ts';

const TEAM = 'Skerrow Observatory';
const TIME_ZONE = 'Europe/Dublin';
const PASSWORD = 'harrow demo';

/** Writes the made-up observatory, with half a year of history up to an instant, into an empty database. */
export async function fillDemo(tx: Tx, at: Date): Promise<number> {
	const zone = zoneOf(TIME_ZONE);
	const today = zone.day(at.getTime());
	const { rows } = await tx.query<{ id: string }>(
		'insert into team (name, time_zone) values ($1, $2) returning id',
		[TEAM, TIME_ZONE],
	);
	const team = rows[0]!.id;
	const people = await writePeople(tx, team, today, at);
	const rota = rotaOfDemo(today);
	let cards = 0;
	for (const [position, board] of BOARDS.entries()) {
		const history = typicalHistory(board, PEOPLE, zone, at.getTime());
		cards += await writeBoard(tx, team, people, board, position, history, rota, zone, at);
	}
	await writeDetails(tx);
	await writeShares(tx, team, people, today);
	await writeRates(tx, team, people, today);
	await writeTimers(tx, people, zone, at);
	return cards;
}

async function writePeople(tx: Tx, team: string, today: number, at: Date): Promise<Map<string, string>> {
	const password = await hashPassword(PASSWORD);
	const ids = new Map<string, string>();
	for (const person of PEOPLE) {
		const words = person.name.toLowerCase().split(' ');
		const email = `${person.called ? `${words[0]}.${words.at(-1)}` : words[0]}@tidewatch.example`;
		const { rows } = await tx.query<{ id: string }>(
			`with p as (
				insert into person (name, initials, email, password_hash, time_zone, created_at) values ($1, $2, $3, $4, $5, $6) returning id
			), m as (
				insert into membership (team_id, person_id, role, title) select $7, id, $8, $9 from p
			)
			select id from p`,
			[
				person.called ?? person.name,
				person.initials,
				email,
				password,
				TIME_ZONE,
				at,
				team,
				person.role,
				person.title,
			],
		);
		const id = rows[0]!.id;
		ids.set(person.name, id);
		if (person.role !== 'viewer')
			await tx.query(
				`with skills as (
					insert into skill (team_id, person_id, name) select $1, $2, unnest($5::text[])
				), spell as (
					insert into membership_spell (team_id, person_id, from_day) values ($1, $2, $3)
				)
				insert into working_week (team_id, person_id, from_day, hours) values ($1, $2, $3, $4)`,
				[team, id, dayText(today - RECORDED), person.week, person.skills],
			);
		for (const [from, to] of person.away)
			await tx.query('insert into absence (person_id, from_day, to_day) values ($1, $2, $3)', [
				id,
				dayText(today + from),
				dayText(today + to),
			]);
	}
	for (const [ago, name] of HOLIDAYS)
		await tx.query('insert into holiday (team_id, day, name) values ($1, $2, $3)', [
			team,
			dayText(today - ago),
			name,
		]);
	return ids;
}

async function writeBoard(
	tx: Tx,
	team: string,
	people: Map<string, string>,
	board: DemoBoard,
	position: number,
	history: DemoHistory,
	rota: Rota,
	zone: Zone,
	at: Date,
): Promise<number> {
	const { rows } = await tx.query<{ id: string }>(
		`insert into board (team_id, name, slug, key, purpose, visible_to, unit, sprint_days, position, sprint_weekday)
		values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) returning id`,
		[
			team,
			board.name,
			board.slug,
			board.key,
			board.purpose,
			board.visibleTo,
			board.unit,
			board.sprintDays,
			position,
			history.sprints[0] ? weekday(history.sprints[0].starts) : 0,
		],
	);
	const id = rows[0]!.id;
	const columns = await tx.query<{ id: string; name: string }>(
		`insert into board_column (board_id, name, kind, position, wip_limit, limit_mode, policy, commitment)
		select $1, c.name, c.kind, c.position, c."limit", coalesce(c.mode, 'advise'), coalesce(c.policy, ''), c.name = $3
		from jsonb_to_recordset($2) as c(name text, kind text, position integer, "limit" integer, mode text, policy text)
		returning id, name`,
		[id, JSON.stringify(board.columns.map((column, i) => ({ ...column, position: i }))), board.commitment],
	);
	await tx.query(
		`insert into lane (board_id, name, class, wip_limit, limit_mode, position)
		select $1, l.name, l.class, l."limit", l.mode, l.n - 1
		from rows from (jsonb_to_recordset($2) as (name text, class text, "limit" integer, mode text))
			with ordinality as l(name, class, "limit", mode, n)`,
		[id, JSON.stringify(board.lanes ?? [])],
	);
	const columnIds = board.columns.map((column) => columns.rows.find((row) => row.name === column.name)!.id);
	const file = fileOf(board, history, zone);
	const frozen = frozenHours(file, historyOf(history), history, rota, board.key, at.getTime());
	const raw = (number: number) => {
		const hours = frozen.get(number)?.raw;
		return hours && Object.fromEntries(Object.entries(hours).map(([name, h]) => [people.get(name), h]));
	};
	history.events.push(...nextOwners(board, file, history, rota, at.getTime()));
	history.events.sort((a, b) => a.at - b.at);
	const met = outcomes(file, historyOf(history), at.getTime());
	const sprints = await tx.query<{ id: string; number: number }>(
		`insert into sprint (board_id, number, goal, starts, ends, started_at, closed_at, focus, keep_back, raw_hours,
			day_hours, goal_met, goal_words)
		select $1, s.number, s.goal, s.starts, s.ends, s."startedAt", s."closedAt", s.focus, s."keepBack", s.raw, s.days, s.met,
			coalesce(s.words, '')
		from jsonb_to_recordset($2) as s(number integer, goal text, starts date, ends date, "startedAt" timestamptz, "closedAt" timestamptz,
			focus numeric, "keepBack" numeric, raw jsonb, days jsonb, met text, words text)
		returning id, number`,
		[
			id,
			JSON.stringify(
				history.sprints.map((s) => ({
					...s,
					starts: dayText(s.starts),
					ends: dayText(s.ends),
					startedAt: s.startedAt && new Date(s.startedAt),
					closedAt: s.closedAt && new Date(s.closedAt),
					focus: frozen.get(s.number)?.focus,
					keepBack: frozen.get(s.number)?.keepBack,
					raw: raw(s.number),
					days: frozen.get(s.number)?.days,
					...met.get(s.number),
				})),
			),
		],
	);
	const sprintIds = new Map(sprints.rows.map((row) => [row.number, row.id]));
	const cards = cardRows(file, history, at.getTime(), columnIds, sprintIds);
	const written = await tx.query<{ id: string; number: number }>(
		`insert into card (board_id, number, title, description, column_id, rank, type, class, size, "left", due, sprint_id, unplanned,
			clock, entered_at, started_at, finished_at, blocked_since, blocked_reason, archived_at, archived_reason, created_at)
		select $1, c.number, c.title, c.description, c.column_id, c.rank, c.type, c.class, c.size, c."left", c.due, c.sprint_id, c.unplanned,
			c.clock, c.entered_at, c.started_at, c.finished_at, c.blocked_since, c.blocked_reason, c.archived_at, c.archived_reason, c.created_at
		from jsonb_populate_recordset(null::card, $2) as c
		returning id, number`,
		[id, JSON.stringify(cards.map(({ life: _life, owners: _owners, labels: _labels, ...row }) => row))],
	);
	const cardIds = new Map(written.rows.map((row) => [row.number, row.id]));
	await writeSpells(tx, id, cards, cardIds, columnIds, people);
	await tx.query(
		`insert into event (board_id, seq, card_id, actor_id, kind, at, value, after)
		select $1, e.seq, e.card, e.actor, e.kind, e.at, e.value, e.after
		from jsonb_to_recordset($2) as e(seq bigint, card uuid, actor uuid, kind text, at timestamptz, value text, after jsonb)`,
		[
			id,
			JSON.stringify(
				history.events.map((e, i) => ({
					seq: i + 1,
					card: cardIds.get(e.card),
					actor: people.get(e.by),
					kind: e.event,
					at: new Date(e.at),
					// A description stands on the card; the event says that it was written.
					value: e.event === 'described' ? '' : owning(e) ? calledOf(e.value) : e.value,
					after: owning(e) ? { person: people.get(e.value) } : e.after,
				})),
			),
		],
	);
	await tx.query('update board set last_seq = $2, last_number = $3 where id = $1', [
		id,
		history.events.length,
		cards.length,
	]);
	await refine(tx, id, board);
	await writeTime(tx, id, file, history, cardIds, people);
	await writeSplits(tx, history, cardIds);
	await writeBudgets(tx, id, board);
	return cards.length;
}

const owning = ({ event }: DemoEvent) => event === 'owner' || event === 'unowner';
const calledOf = (name: string) => PEOPLE.find((person) => person.name === name)?.called ?? name;

type Row = ReturnType<typeof cardRows>[number];

/** The cards as they stand at the end of their history, as the core reads it. */
function cardRows(
	file: BoardFile,
	history: DemoHistory,
	at: number,
	columnIds: string[],
	sprintIds: Map<number, string>,
) {
	const events = historyOf(history);
	const work = sprintAccounts(file, events, at).cards;
	const closed = new Set(history.sprints.filter((s) => s.closedAt !== null).map((s) => s.number));
	const rows = lifetimes(file, events, at).map((life) => {
		const number = Number(life.card);
		const own = history.events.filter((e) => e.card === number);
		const last = (kind: DemoEvent['event']) => own.findLast((e) => e.event === kind)?.value;
		const blocked = life.blockages.find((blockage) => blockage.until === null);
		const { size, left, sprint } = work.get(life.card)!;
		const running = history.sprints.find((s) => s.number === sprint);
		const joined = own.findLast((e) => e.event === 'sprint')?.at ?? 0;
		const instant = (t: number | null) => (t === null ? null : new Date(t).toISOString());
		return {
			life,
			owners: ownersOf(own),
			labels: own.filter((e) => e.event === 'label').map((e) => e.value),
			number,
			title: life.title,
			description: last('described') ?? '',
			column_id: life.column === null ? null : columnIds[life.column]!,
			rank: '',
			type: last('type') ?? '',
			class: last('class') ?? 'standard',
			size,
			left: life.state === 'done' ? 0 : left,
			due: last('due') ?? null,
			sprint_id: sprint === null || closed.has(sprint) ? null : (sprintIds.get(sprint) ?? null),
			unplanned: running?.startedAt != null && joined > running.startedAt,
			clock: life.state,
			entered_at: instant(life.entered),
			started_at: instant(life.started),
			finished_at: instant(life.finished),
			blocked_since: blocked ? instant(blocked.from) : null,
			blocked_reason: blocked?.reason ?? null,
			archived_at: life.archived ? instant(own.findLast((e) => e.event === 'archived')!.at) : null,
			archived_reason: life.archived ? last('archived')! : null,
			created_at: instant(life.created ?? at),
		};
	});
	// Ranks run in the order of coming to a place; the backlog's in the order of its making.
	const places = group(rows, (row) => row.column_id);
	for (const place of places.values()) {
		place.sort((a, b) => (a.life.entered ?? 0) - (b.life.entered ?? 0) || a.number - b.number);
		const ranks = generateNKeysBetween(null, null, place.length);
		place.forEach((row, i) => (row.rank = ranks[i]!));
	}
	return rows.sort((a, b) => a.number - b.number);
}

function ownersOf(events: DemoEvent[]): string[] {
	const owners = new Set<string>();
	for (const { event, value } of events) {
		if (event === 'owner') owners.add(value);
		if (event === 'unowner') owners.delete(value);
	}
	return [...owners];
}

async function writeSpells(
	tx: Tx,
	board: string,
	cards: Row[],
	cardIds: Map<number, string>,
	columnIds: string[],
	people: Map<string, string>,
): Promise<void> {
	const date = (t: number | null) => (t === null ? null : new Date(t));
	const stays = cards.flatMap(({ number, life }) =>
		withBacklog(life).map((stay) => ({
			card: cardIds.get(number),
			column: stay.column === null ? null : columnIds[stay.column],
			from: date(stay.from),
			until: date(stay.until),
		})),
	);
	const blockages = cards.flatMap(({ number, life }) =>
		life.blockages.map((b) => ({
			card: cardIds.get(number),
			reason: b.reason,
			from: date(b.from),
			until: date(b.until),
		})),
	);
	const owners = cards.flatMap(({ number, owners }) =>
		owners.map((name) => ({ card: cardIds.get(number), person: people.get(name) })),
	);
	const labels = cards.flatMap(({ number, labels }) =>
		labels.map((name) => ({ card: cardIds.get(number), name })),
	);
	await tx.query(
		`insert into stay (card_id, column_id, entered_at, left_at)
		select s.card, s."column", s."from", s.until from jsonb_to_recordset($1) as s(card uuid, "column" uuid, "from" timestamptz, until timestamptz)`,
		[JSON.stringify(stays)],
	);
	await tx.query(
		`insert into blockage (card_id, from_at, until_at, reason)
		select b.card, b."from", b.until, b.reason from jsonb_to_recordset($1) as b(card uuid, "from" timestamptz, until timestamptz, reason text)`,
		[JSON.stringify(blockages)],
	);
	await tx.query(
		'insert into card_owner select o.card, o.person from jsonb_to_recordset($1) as o(card uuid, person uuid)',
		[JSON.stringify(owners)],
	);
	await tx.query(
		`with named as (
			select l.card, l.name from jsonb_to_recordset($2) as l(card uuid, name text)
		), made as (
			insert into label (board_id, name) select distinct $1::uuid, name from named returning id, name
		)
		insert into card_label select distinct n.card, m.id from named n join made m on m.name = n.name`,
		[board, JSON.stringify(labels)],
	);
}

/** A card's stays with those in the backlog between them: it stands somewhere from its making on. */
function withBacklog(life: Lifetime): { column: number | null; from: number; until: number | null }[] {
	const whole: { column: number | null; from: number; until: number | null }[] = [];
	let since = life.created ?? life.stays[0]?.from ?? 0;
	for (const stay of life.stays) {
		if (stay.from > since) whole.push({ column: null, from: since, until: stay.from });
		whole.push(stay);
		if (stay.until === null) return whole;
		since = stay.until;
	}
	return [...whole, { column: null, from: since, until: null }];
}

/** What is said of cards beside their history: who looks them over, and how far the parts for repairs have come. */
async function writeDetails(tx: Tx): Promise<void> {
	await tx.query(
		`update card c set reviewer_id = (
			select m.person_id from membership m
			where m.team_id = b.team_id and m.role <> 'viewer'
				and not exists (select from card_owner o where o.card_id = c.id and o.person_id = m.person_id)
			order by md5(c.number::text || m.person_id::text) limit 1)
		from board b, board_column k
		where b.id = c.board_id and b.key = 'TIDE' and k.id = c.column_id and k.name = 'Review' and c.clock <> 'done'`,
	);
	const states = ['needed', 'ordered', 'here', 'fitted'];
	await tx.query(`update board set line_states = $1 where key = 'BUOY'`, [states]);
	await tx.query(
		`update card c set checklist = (
			select jsonb_agg(case when (l ->> 'done')::boolean then l || jsonb_build_object('state', 'fitted')
				else l || jsonb_build_object('state', ($1::text[])[1 + (c.number + n) % 3]) end order by n)
			from jsonb_array_elements(c.checklist) with ordinality x(l, n))
		from board b
		where b.id = c.board_id and b.key = 'BUOY' and c.clock <> 'done' and c.checklist <> '[]' and c.archived_at is null`,
		[states],
	);
}
