import type pg from 'pg';
import { generateNKeysBetween } from 'fractional-indexing';

const DAY_MS = 86_400_000;
/** The Monday on which the last sprint began. */
const LAST = Date.parse('2026-11-16T08:00:00Z');
const LENGTH = 14;

interface Event {
	card: number;
	at: number;
	kind: string;
	value: string;
	/** The sprint in which it was worked. */
	sprint: number | null;
}

/**
 * A board with a long past, beside the demo and for its team: so many sprints of so many cards, the last one running.
 * Every fifth card of a sprint is carried into the next one.
 * @returns the slug of the board
 */
export async function manySprints(db: pg.Pool, sprints = 60, cards = 60): Promise<string> {
	const { rows } = await db.query<{ id: string }>(
		`insert into board (team_id, name, slug, key, position, sprint_days) select id, 'Sprints', 'sprints', 'SPRINTS', 8, 14
		from team where name <> 'Many' limit 1 returning id`,
	);
	const board = rows[0]!.id;
	await db.query(
		`insert into board_column (board_id, name, kind, position, commitment)
		values ($1, 'Ready', 'queue', 0, false), ($1, 'Making', 'work', 1, true), ($1, 'Done', 'done', 2, false)`,
		[board],
	);
	const starts = (n: number) => LAST - (sprints - n) * LENGTH * DAY_MS;
	await db.query(
		`insert into sprint (board_id, number, starts, ends, started_at, closed_at, focus, keep_back, raw_hours, day_hours)
		select $1, s.number, s.at, s.at + interval '11 days', s.at, case when s.number < $3 then s.at + interval '11 days 9 hours' end,
			0.6, 0.1, '{}', '[40, 40, 40, 40, 40, 0, 0, 40, 40, 40, 40, 40, 0, 0]'
		from jsonb_to_recordset($2) as s(number integer, at timestamptz)`,
		[
			board,
			JSON.stringify(
				Array.from({ length: sprints }, (_, i) => ({ number: i + 1, at: new Date(starts(i + 1)) })),
			),
			sprints,
		],
	);
	const events: Event[] = [];
	const standing: { column: string; left: number; sprint: number; since: number }[] = [];
	const note = (card: number, at: number, kind: string, value: string, sprint: number | null = null) =>
		events.push({ card, at, kind, value, sprint });
	let carried: number[] = [];
	for (let sprint = 1; sprint <= sprints; sprint++) {
		const at = starts(sprint);
		const list = [...carried];
		while (list.length < cards) {
			const card = standing.push({ column: 'Ready', left: 8, sprint, since: at }) - 1;
			list.push(card);
			note(card, at - 6 * 3_600_000, 'created', `Card ${card + 1}`);
			note(card, at - 5 * 3_600_000, 'sized', '8');
			note(card, at - 4 * 3_600_000, 'sprint', String(sprint));
		}
		carried = [];
		for (const [i, card] of list.entries()) {
			const now = standing[card]!;
			// The last one is in its first week.
			const day = at + (i % (sprint === sprints ? 5 : 10)) * DAY_MS;
			note(card, at + 3_600_000, 'column', 'Ready');
			note(card, day + 2 * 3_600_000, 'column', 'Making');
			note(card, day + 4 * 3_600_000, 'worked', '3', sprint);
			now.left = Math.max(0, now.left - 3);
			now.column = 'Making';
			if (i % 5 === 4 && now.left > 0) {
				if (sprint === sprints) continue;
				carried.push(card);
				now.sprint = sprint + 1;
				note(card, at + 11 * DAY_MS + 9 * 3_600_000, 'sprint', String(sprint + 1));
			} else {
				note(card, day + 7 * 3_600_000, 'column', 'Done');
				Object.assign(now, { column: 'Done', left: 0, since: day + 7 * 3_600_000 });
			}
		}
	}
	events.sort((a, b) => a.at - b.at);
	const ranks = generateNKeysBetween(null, null, standing.length);
	await db.query(
		`with made as (
			insert into card (board_id, number, title, column_id, rank, size, "left", sprint_id, clock, entered_at, started_at, finished_at, created_at)
			select $1, c.number, 'Card ' || c.number, k.id, c.rank, 8, c."left", case when s.closed_at is null then s.id end,
				case when c."column" = 'Done' then 'done' else 'running' end, c.since, c.since, case when c."column" = 'Done' then c.since end, c.since
			from jsonb_to_recordset($2) as c(number integer, "column" text, rank text, "left" numeric, sprint integer, since timestamptz)
			join board_column k on k.board_id = $1 and k.name = c."column"
			join sprint s on s.board_id = $1 and s.number = c.sprint
			returning id, number
		), happened as materialized (
			select e.*, m.id
			from jsonb_to_recordset($3) as e(seq bigint, card integer, kind text, at timestamptz, value text, sprint integer)
			join made m on m.number = e.card + 1
		), logged as (
			insert into time_entry (card_id, person_id, day, hours, note, billable, sprint_id, seq, logged_at)
			select h.id, (select m.person_id from membership m join board b on b.team_id = m.team_id
					where b.id = $1 and m.role <> 'viewer' order by m.person_id limit 1),
				h.at::date, h.value::numeric, '', false, s.id, h.seq, h.at
			from happened h
			join sprint s on s.board_id = $1 and s.number = h.sprint
		)
		insert into event (board_id, seq, card_id, kind, at, value)
		select $1, seq, id, kind, at, value from happened`,
		[
			board,
			JSON.stringify(
				standing.map((card, i) => ({ ...card, number: i + 1, rank: ranks[i], since: new Date(card.since) })),
			),
			JSON.stringify(events.map((event, i) => ({ ...event, seq: i + 1, at: new Date(event.at) }))),
		],
	);
	await db.query('update board set last_seq = $2, last_number = $3 where id = $1', [
		board,
		events.length,
		standing.length,
	]);
	await db.query('analyze');
	return 'sprints';
}
