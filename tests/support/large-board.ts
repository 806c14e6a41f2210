import type pg from 'pg';
import { generateNKeysBetween } from 'fractional-indexing';

/**
 * A board with many open cards: most of them in one queue, so that one list is long. Made beside the demo, for its team.
 * @returns the slug of the board
 */
export async function largeBoard(db: pg.Pool, cards = 2000, name = 'Large'): Promise<string> {
	const { rows } = await db.query<{ id: string; slug: string }>(
		`insert into board (team_id, name, slug, key, position, last_number)
		select id, $2, lower($2), upper($2), 9, $1 from team limit 1 returning id, slug`,
		[cards, name],
	);
	const board = rows[0]!.id;
	await db.query(
		`insert into board_column (board_id, name, kind, position, commitment)
		values ($1, 'Ready', 'queue', 0, false), ($1, 'Making', 'work', 1, true), ($1, 'Check', 'work', 2, false), ($1, 'Done', 'done', 3, false)`,
		[board],
	);
	const ranks = generateNKeysBetween(null, null, cards);
	await db.query(
		`insert into card (board_id, number, title, column_id, rank, size, "left", clock, entered_at, started_at, created_at)
		select $1, i, 'Card number ' || i || case when i % 3 = 0 then ' with a title that takes up two lines of a card' else '' end,
			k.id, r.rank, 5, 5, case when k.name = 'Ready' then 'none' else 'running' end, '2026-11-20T09:00Z',
			case when k.name = 'Ready' then null else timestamptz '2026-11-20T09:00Z' end, '2026-11-01T09:00Z'
		from generate_series(1, $2::int) i
		join unnest($3::text[]) with ordinality r(rank, n) on r.n = i
		join board_column k on k.board_id = $1 and k.name = case when i <= $2::int * 0.75 then 'Ready' when i <= $2::int * 0.9 then 'Making' else 'Check' end`,
		[board, cards, ranks],
	);
	await db.query(
		`insert into stay (card_id, column_id, entered_at) select id, column_id, entered_at from card where board_id = $1`,
		[board],
	);
	await db.query('analyze');
	return rows[0]!.slug;
}

/**
 * A team of its own with so many people, a sprint that holds so many of their cards, and a long backlog, beside the
 * demo; someone of the demo leads it.
 * @returns the slug of the board
 */
export async function largePlan(
	db: pg.Pool,
	lead: string,
	people = 40,
	cards = 300,
	waiting = 2000,
): Promise<string> {
	const { rows } = await db.query<{ team: string; board: string }>(
		`with t as (
			insert into team (name, time_zone) values ('Many', 'Europe/Dublin') returning id
		), b as (
			insert into board (team_id, name, slug, key, position, last_number, sprint_days)
			select id, 'Many', 'many', 'MANY', 1, $1, 14 from t returning id
		)
		select t.id as team, b.id as board from t, b`,
		[cards + waiting],
	);
	const { team, board } = rows[0]!;
	await db.query(
		`with p as (
			insert into person (name, initials, email, created_at)
			select 'Person ' || lpad(i::text, 2, '0'), 'P' || i, 'person' || i || '@many.example', now() from generate_series(1, $2::int) i
			returning id
		), all_people as (
			select id, 'member' as role from p union all select id, 'lead' from person where name = $3
		), m as (
			insert into membership (team_id, person_id, role) select $1, id, role from all_people returning person_id
		)
		insert into working_week (team_id, person_id, from_day, hours) select $1, id, '2026-01-01', '{8,8,8,8,8,0,0}' from p`,
		[team, people, lead],
	);
	await db.query(
		`insert into board_column (board_id, name, kind, position, commitment)
		values ($1, 'Ready', 'queue', 0, false), ($1, 'Making', 'work', 1, true), ($1, 'Done', 'done', 2, false)`,
		[board],
	);
	await db.query(
		`insert into sprint (board_id, number, starts, ends) values ($1, 1, '2026-11-30', '2026-12-11')`,
		[board],
	);
	const ranks = generateNKeysBetween(null, null, cards + waiting);
	await db.query(
		`with made as (
			insert into card (board_id, number, title, rank, size, "left", sprint_id, created_at)
			select $1, i, 'Card number ' || i, r.rank, 1 + i % 6, 1 + i % 6, case when i <= $2::int then s.id end, '2026-11-01T09:00Z'
			from generate_series(1, $3::int) i
			join unnest($4::text[]) with ordinality r(rank, n) on r.n = i
			join sprint s on s.board_id = $1
			returning id, number, sprint_id
		), stays as (
			insert into stay (card_id, column_id, entered_at) select id, null, '2026-11-01T09:00Z' from made
		)
		insert into card_owner
		select m.id, p.id
		from made m
		join (select id, row_number() over (order by name) as n from person where email like '%@many.example') p
			on p.n = 1 + m.number % $5::int
		where m.sprint_id is not null`,
		[board, cards, cards + waiting, ranks, people],
	);
	await db.query('analyze');
	return 'many';
}

/**
 * A board of twelve columns and five lanes with 2,000 open cards that have owners, labels, types and dates, and as many
 * again that wait in its backlog and are listed with them. Made beside the demo, for its team.
 * @returns the slug of the board
 */
export async function wideBoard(db: pg.Pool, cards = 2000, waiting = 3000): Promise<string> {
	const { rows } = await db.query<{ id: string; team: string }>(
		`insert into board (team_id, name, slug, key, position, last_number) select id, 'Wide', 'wide', 'WIDE', 9, $1 from team limit 1
		returning id, team_id as team`,
		[cards + waiting],
	);
	const { id: board, team } = rows[0]!;
	await db.query(
		`insert into board_column (board_id, name, kind, position, commitment)
		select $1, 'Step ' || i, case i when 0 then 'queue' when 11 then 'done' else 'work' end, i, i = 1 from generate_series(0, 11) i`,
		[board],
	);
	await db.query(
		`insert into lane (board_id, name, position) select $1, 'Lane ' || i, i from generate_series(0, 4) i`,
		[board],
	);
	await db.query(`insert into label (board_id, name) select $1, name from unnest($2::text[]) name`, [
		board,
		['quay', 'mast', 'night', 'winter'],
	]);
	await db.query(
		`with made as (
			insert into card (board_id, number, title, description, column_id, lane_id, rank, size, "left", due, clock, entered_at, started_at, created_at)
			select $1, i, 'Card number ' || i || ' of many', 'What is to be done about ' || i, k.id,
				(select id from lane where board_id = $1 and position = (i / 11) % 5), r.rank, 5, 5,
				case when i % 3 = 0 then date '2026-11-23' + i % 40 end,
				case when i > $2 or k.kind = 'queue' then 'none' else 'running' end,
				case when i <= $2 then timestamptz '2026-11-20T09:00Z' end,
				case when i <= $2 and k.kind = 'work' then timestamptz '2026-11-20T09:00Z' end, '2026-11-01T09:00Z'
			from generate_series(1, $2::int + $3::int) i
			join unnest($4::text[]) with ordinality r(rank, n) on r.n = i
			left join board_column k on k.board_id = $1 and i <= $2 and k.position = i % 11
			returning id, number, column_id
		), owned as (
			insert into card_owner
			select made.id, p.person_id from made
			join (select person_id, row_number() over (order by person_id) - 1 as n, count(*) over () as many from membership where team_id = $5 and role <> 'viewer') p
				on p.n = made.number % p.many
		), labelled as (
			insert into card_label
			select made.id, l.id from made join (select id, row_number() over (order by name) - 1 as n from label where board_id = $1) l on l.n = made.number % 4
		)
		insert into stay (card_id, column_id, entered_at) select id, column_id, '2026-11-20T09:00Z' from made`,
		[board, cards, waiting, generateNKeysBetween(null, null, cards + waiting), team],
	);
	await db.query('analyze');
	return 'wide';
}

/**
 * A team of its own with twelve boards, so many cards with dates, of which many wait for others, and twelve initiatives
 * that all boards share; someone of the demo leads it.
 * @returns the id of the team
 */
export async function largePanorama(db: pg.Pool, lead: string, cards = 5000): Promise<string> {
	const { rows } = await db.query<{ team: string }>(
		`insert into team (name, time_zone) values ('Wide', 'Europe/Dublin') returning id as team`,
	);
	const { team } = rows[0]!;
	await db.query(
		`with lead as (
			insert into membership (team_id, person_id, role) select $1, id, 'lead' from person where name = $2 returning person_id
		), week as (
			insert into working_week (team_id, person_id, from_day, hours) select $1, person_id, '2026-01-01', '{8,8,8,8,8,0,0}' from lead
		), b as (
			insert into board (team_id, name, slug, key, position, last_number, unit)
			select $1, 'Wide ' || n, 'wide-' || n, 'W' || n, n, $3, 'hours' from generate_series(10, 21) n
			returning id, position
		), k as (
			insert into board_column (board_id, name, kind, position, commitment)
			select b.id, v.name, v.kind, v.at, v.at = 1 from b, (values ('Next', 'queue', 0), ('Working', 'work', 1), ('Done', 'done', 2)) v(name, kind, at)
		), i as (
			insert into initiative (board_id, name, wide, target) select id, 'Initiative ' || position, true, '2027-06-30' from b
			returning id, name
		), c as (
			insert into card (board_id, number, title, rank, size, "left", start, due, initiative_id, created_at)
			select b.id, n, 'Dated ' || n, 'y' || lpad(n::text, 8, '0'), 5, 5, date '2026-11-25' + (n % 400), date '2026-11-27' + (n % 400),
				i.id, now()
			from generate_series(0, $3::integer - 1) n
			join b on b.position = 10 + n % 12
			join i on i.name = 'Initiative ' || (10 + n / 12 % 12)
			returning id, number
		), owner as (
			insert into card_owner (card_id, person_id) select c.id, lead.person_id from c, lead where c.number % 3 = 0
		), link as (
			insert into card_link (from_id, to_id, kind)
			select a.id, z.id, 'blocks' from c a join c z on z.number - a.number in (4, 9) and a.number / 400 = z.number / 400
			limit 8000
		)
		select`,
		[team, lead, cards],
	);
	await db.query('analyze');
	return team;
}
