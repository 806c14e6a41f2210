import { dayText } from '../src/core/calendar/days.ts';
import type { Zone } from '../src/core/calendar/zone.ts';
import { rawHours, sprintDays, type Rota } from '../src/core/capacity/hours.ts';
import { closedSprints } from '../src/core/capacity/past.ts';
import { learn, PERSON_DAY } from '../src/core/capacity/promise.ts';
import { shareOut } from '../src/core/capacity/share-out.ts';
import type { BoardFile } from '../src/core/sprint/board.ts';
import { FILED_EVENTS, type FiledEvent } from '../src/core/events/kinds.ts';
import { type HistoryEvent } from '../src/core/flow/history.ts';
import { sprintAccounts } from '../src/core/sprint/accounts.ts';
import type { Tx } from '../src/lib/server/database.ts';
import { BOARDS, type DemoBoard } from './boards.ts';
import { PEOPLE } from './people.ts';
import type { DemoEvent, DemoHistory } from './simulate.ts';

/** Working weeks and shares are known since so many days ago. */
export const RECORDED = 400;

/** Holidays, by how many days ago they were. */
export const HOLIDAYS: readonly (readonly [ago: number, name: string])[] = [
	[147, 'Founders’ day'],
	[84, 'Harbour fair'],
	[-32, 'Midwinter'],
];

/** The part of a demo history that stands in the history file. */
export function historyOf(history: DemoHistory): HistoryEvent[] {
	const isKind = (kind: string): kind is FiledEvent => (FILED_EVENTS as readonly string[]).includes(kind);
	return history.events.flatMap((e): HistoryEvent[] =>
		isKind(e.event) ? [{ card: String(e.card), at: e.at, event: e.event, value: e.value }] : [],
	);
}

/** A demo board as the history file describes it. */
export function fileOf(board: DemoBoard, history: DemoHistory, zone: Zone): BoardFile {
	return {
		name: board.name,
		zone,
		unit: board.unit,
		columns: board.columns.map(({ name, kind, limit }) => ({ name, kind, limit: limit ?? null })),
		commitment: board.columns.findIndex((column) => column.name === board.commitment),
		sprints: history.sprints,
	};
}

/** How long the people of the demo work, named by their names and the boards by their keys. */
export function rotaOfDemo(today: number): Rota {
	const workers = PEOPLE.filter((person) => person.role !== 'viewer');
	return {
		boards: BOARDS.map((board) => board.key),
		weeks: workers.map((person) => ({ person: person.name, from: today - RECORDED, hours: person.week })),
		members: workers.map((person) => ({ person: person.name, from: today - RECORDED, until: null })),
		absences: workers.flatMap((person) =>
			person.away.map(([from, to]) => ({
				person: person.name,
				from: today + from,
				to: today + to,
				hours: null,
			})),
		),
		shares: workers.map((person) => ({ person: person.name, from: today - RECORDED, boards: person.share })),
		holidays: new Set(HOLIDAYS.map(([ago]) => today - ago)),
	};
}

/** What each started sprint froze: everyone's hours, and the focus and keep-back learned by then. */
export function frozenHours(
	file: BoardFile,
	events: HistoryEvent[],
	history: DemoHistory,
	rota: Rota,
	board: string,
	at: number,
): Map<number, { raw: Record<string, number>; days: number[]; focus: number; keepBack: number }> {
	const { ledgers } = sprintAccounts(file, events, at);
	const started = history.sprints.filter((sprint) => sprint.startedAt !== null);
	const raws = new Map(
		started.map((sprint) => {
			const { from, to } = sprintDays(sprint, history.sprints);
			const own = PEOPLE.map(
				(person) => [person.name, rawHours(rota, person.name, board, from, to)] as const,
			);
			return [sprint.number, Object.fromEntries(own.filter(([, hours]) => hours > 0))];
		}),
	);
	const sums = new Map(
		[...raws].map(([number, raw]) => [number, Object.values(raw).reduce((a, b) => a + b, 0)]),
	);
	return new Map(
		started.map((sprint) => {
			const { focus, keepBack } = learn(closedSprints(file, ledgers, sums, sprint.startedAt!));
			const { from, to } = sprintDays(sprint, history.sprints);
			const days = Array.from({ length: to - from + 1 }, (_, i) =>
				PEOPLE.reduce((sum, one) => sum + rawHours(rota, one.name, board, from + i, from + i), 0),
			);
			const raw = raws.get(sprint.number)!;
			return [sprint.number, { raw, days, focus, keepBack: Math.min(0.9, keepBack) }];
		}),
	);
}

/** The next sprint is half planned: most of its cards have found an owner, one person holds too much. */
export function nextOwners(
	board: DemoBoard,
	file: BoardFile,
	history: DemoHistory,
	rota: Rota,
	at: number,
): DemoEvent[] {
	const next = history.sprints.find((sprint) => sprint.startedAt === null);
	if (!next) return [];
	const events = historyOf(history);
	const { ledgers, cards } = sprintAccounts(file, events, at);
	const frozen = frozenHours(file, events, history, rota, board.key, at);
	const sums = new Map([...frozen].map(([n, { raw }]) => [n, Object.values(raw).reduce((a, b) => a + b, 0)]));
	const { focus, keepBack, perDay } = learn(closedSprints(file, ledgers, sums, at));
	const { from, to } = sprintDays(next, history.sprints);
	const workers = PEOPLE.filter((person) => person.role !== 'viewer' && person.share[board.key]);
	const owned = new Set(history.events.filter((e) => e.event === 'owner').map((e) => e.card));
	const loose = [...cards.values()]
		.filter((card) => card.sprint === next.number && !owned.has(Number(card.card)))
		.sort((a, b) => Number(a.card) - Number(b.card));
	const hands = workers.map((person) => {
		const raw = rawHours(rota, person.name, board.key, from, to);
		const promise =
			board.unit === 'points' ? (raw / PERSON_DAY) * (perDay ?? 1) : raw * focus * (1 - keepBack);
		return { person: person.name, promise, placed: 0, skills: [] };
	});
	const found = shareOut(
		loose.slice(0, -2).map(({ card, left }) => ({ card, left, skills: [] })),
		hands,
	);
	const lead = workers.find((person) => person.role === 'lead')!.name;
	const planned =
		history.events.findLast((e) => e.event === 'sprint' && e.value === String(next.number))?.at ?? at;
	const heaviest = [...found.placed].sort((a, b) => b[1] - a[1])[0]?.[0];
	return loose.slice(0, -1).flatMap((card, i): DemoEvent[] => {
		// The last but one goes to whoever holds most already, as happens.
		const owner = i === loose.length - 2 ? heaviest : found.owners.get(card.card);
		return owner
			? [{ card: Number(card.card), at: planned + 60_000 + i, event: 'owner', value: owner, by: lead }]
			: [];
	});
}

/** What refining left on the cards: types with their checklists, initiatives, ready marks, links and parts. */
export async function refine(tx: Tx, board: string, demo: DemoBoard): Promise<void> {
	await tx.query(
		`insert into card_type (board_id, name, checklist, position)
		select $1, t.name, t.checklist, t.n from jsonb_to_recordset($2) as t(name text, checklist text[], n integer)`,
		[
			board,
			JSON.stringify(Object.entries(demo.types).map(([name, checklist], n) => ({ name, checklist, n }))),
		],
	);
	await tx.query(
		`with shared as (
			update initiative i set wide = true from board b, board o
			where b.id = i.board_id and o.id = $1 and b.team_id = o.team_id and b.id <> o.id
				and i.name = any($3)
			returning i.id, i.name
		), own as (
			insert into initiative (board_id, name)
			select $1, value from jsonb_each_text($2) where value not in (select name from shared)
			returning id, name
		), made as (
			select * from shared union all select * from own
		)
		update card c set initiative_id = m.id
		from card_label k
		join label l on l.id = k.label_id
		join jsonb_each_text($2) i on i.key = l.name
		join made m on m.name = i.value
		where k.card_id = c.id and c.board_id = $1`,
		[board, JSON.stringify(demo.initiatives), demo.shares ?? []],
	);
	// Done cards have ticked off everything, those in hand the first lines; what waits far down has not been refined yet.
	await tx.query(
		`update card c set checklist = coalesce((
				select jsonb_agg(jsonb_build_object('id', c.number || '-' || line.n, 'text', line.text,
					'done', c.clock = 'done' or (c.clock = 'running' and line.n <= c.number % 3)) order by line.n)
				from unnest(t.checklist) with ordinality line(text, n)), '[]')
		from card_type t
		where t.board_id = $1 and c.board_id = $1 and t.name = c.type and (c.column_id is not null or c.number % 3 > 0)`,
		[board],
	);
	await tx.query(
		`with waiting as (
			select id, row_number() over (order by rank) as n from card
			where board_id = $1 and column_id is null and archived_at is null and size is not null
		)
		update card c set ready = true from waiting w where w.id = c.id and (c.sprint_id is not null or w.n <= 9)`,
		[board],
	);
	// Some cards wait for others.
	await tx.query(
		`with waiting as (
			select id, row_number() over (order by rank) as n from card
			where board_id = $1 and column_id is null and archived_at is null
		)
		insert into card_link (from_id, to_id, kind)
		select a.id, b.id, case when a.n % 2 = 0 then 'blocks' else 'relates' end
		from waiting a join waiting b on b.n = a.n + 3
		where a.n in (2, 7)`,
		[board],
	);
}

/** How everyone's hours are shared between the boards. */
export async function writeShares(
	tx: Tx,
	team: string,
	people: Map<string, string>,
	today: number,
): Promise<void> {
	const { rows } = await tx.query<{ id: string; key: string }>(
		'select id, key from board where team_id = $1',
		[team],
	);
	const boards = new Map(rows.map((board) => [board.key, board.id]));
	for (const person of PEOPLE.filter((one) => one.role !== 'viewer'))
		await tx.query('insert into board_share (team_id, person_id, from_day, shares) values ($1, $2, $3, $4)', [
			team,
			people.get(person.name),
			dayText(today - RECORDED),
			JSON.stringify(
				Object.fromEntries(Object.entries(person.share).map(([key, share]) => [boards.get(key), share])),
			),
		]);
}
