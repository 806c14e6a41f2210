import type {
	BoardHead,
	BoardPlaces,
	ColumnView,
	PersonView,
	SeenBoard,
	SprintView,
} from '../../../core/pages/board.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';

/** What a column was called before, in SQL over `k`. */
const WAS = `array(select n.name from column_name n where n.column_id = k.id and n.name <> k.name order by n.name)`;

/** The columns of a board that were taken away, in SQL over `b`. */
const RETIRED = `(select coalesce(json_agg(json_build_object('name', k.name, 'kind', k.kind, 'position', k.position, 'was', ${WAS})
				order by k.position), '[]')
			from board_column k where k.board_id = b.id and k.retired_at is not null)`;

/** Boards as one person ($1) looks at them. */
const HEAD = `select b.id, b.name, b.slug, b.key, t.name as team, t.id as "teamId", b.unit, t.time_zone as "timeZone", b.sprint_days as "sprintDays",
			b.sprint_weekday as "sprintWeekday", b.sprint_name as "sprintName",
			(select coalesce(json_agg(json_build_object('name', name, 'checklist', checklist, 'size', first_size, 'class', first_class) order by position, name), '[]')
			from card_type where board_id = b.id and retired_at is null) as types,
			array(select name from label where board_id = b.id and retired_at is null order by name) as labels,
			array(select i.name from initiative i join board o on o.id = i.board_id
				where i.retired_at is null and (o.id = b.id or i.wide and o.team_id = b.team_id) order by i.name) as initiatives,
			b.members_settle as "membersSettle", b.done_days as "doneDays",
			b.person_limit as "personLimit", b.person_mode as "personMode",
			b.expectation_percentile as percentile, r.role, r.person_id as me, b.last_seq as seq,
			(select json_agg(json_build_object('id', k.id, 'name', k.name, 'kind', k.kind, 'limit', k.wip_limit,
				'mode', k.limit_mode, 'policy', k.policy, 'commitment', k.commitment, 'hidden', k.hidden, 'position', k.position,
				'was', ${WAS}, 'version', k.version) order by k.position)
			from board_column k where k.board_id = b.id and k.retired_at is null) as columns,
			${RETIRED} as retired,
			(select coalesce(json_agg(json_build_object('id', f.id, 'name', f.name, 'kind', f.kind, 'choices', f.choices) order by f.position), '[]')
			from field f where f.board_id = b.id and f.retired_at is null) as fields,
			(select coalesce(json_agg(json_build_object('id', l.id, 'name', l.name, 'class', l.class, 'limit', l.wip_limit,
				'mode', l.limit_mode) order by l.position), '[]')
			from lane l where l.board_id = b.id and l.retired_at is null and 'lanes' <> all(b.off)) as lanes,
			(select coalesce(json_agg(json_build_object('id', l.id, 'name', l.name, 'query', l.query, 'shared', l.shared,
				'mine', l.person_id = $1) order by l.shared, l.name), '[]')
			from lens l where l.board_id = b.id and l.retired_at is null and (l.shared or l.person_id = $1)) as lenses,
			coalesce((select f.face from face f where f.board_id = b.id and f.person_id = $1), b.face) as face,
			exists (select from face f where f.board_id = b.id and f.person_id = $1) as "ownFace", b.line_states as "lineStates",
			b.off, b.away_at is not null as away,
			(select coalesce(json_agg(json_build_object('number', s.number, 'goal', s.goal, 'starts', s.starts, 'ends', s.ends,
				'startedAt', s.started_at, 'closedAt', s.closed_at, 'focus', s.focus, 'keepBack', s.keep_back, 'version', s.version,
				'dayHours', s.day_hours, 'raw', (select sum(value::numeric) from jsonb_each_text(s.raw_hours))) order by s.number), '[]')
			from sprint s where s.board_id = b.id) as sprints,
			(select coalesce(json_agg(json_build_object('id', p.id, 'name', p.name, 'initials', p.initials, 'title', m.title,
				'role', m.role, 'gone', m.left_at is not null, 'skills', coalesce(k.skills, '{}')) order by p.name), '[]')
			from membership m
			join person p on p.id = m.person_id
			left join (select team_id, person_id, array_agg(name order by name) as skills from skill group by 1, 2) k
				on k.team_id = b.team_id and k.person_id = m.person_id
			where m.team_id = b.team_id) as people,
			(select json_agg(json_build_object('id', o.id, 'name', o.name, 'slug', o.slug, 'team', u.name) order by u.name, o.position)
			from board o
			join team u on u.id = o.team_id
			join board_right w on w.board_id = o.id and w.person_id = $1
			where o.away_at is null and u.away_at is null or o.id = b.id) as boards
		from board b
		join team t on t.id = b.team_id
		join board_right r on r.board_id = b.id and r.person_id = $1`;

/**
 * A board as every one of its places needs it.
 * @throws Problem 404 when there is none of that name, or the person may not see it
 */
export async function boardHead(person: Person, slug: string): Promise<BoardHead> {
	if (!/^[a-z0-9-]+$/.test(slug)) throw notFound('board');
	const [head] = await rows<BoardHead>(`${HEAD} where b.slug = $2`, [person.id, slug], 'board-head');
	if (!head) throw notFound('board');
	return head;
}

/** The same of several boards, in the order in which they are named; those that the person may not see are left out. */
export const boardHeads = (person: Person, slugs: readonly string[]): Promise<BoardHead[]> =>
	rows(
		`${HEAD} where b.slug = any($2) order by array_position($2, b.slug)`,
		[person.id, slugs],
		'board-heads',
	);

/** Of a board what its history is folded by. */
export interface FoldHead extends Pick<
	BoardHead,
	'id' | 'name' | 'key' | 'unit' | 'timeZone' | 'retired' | 'seq'
> {
	columns: Pick<ColumnView, 'name' | 'kind' | 'limit' | 'commitment' | 'hidden' | 'was' | 'position'>[];
	sprints: Pick<SprintView, 'number' | 'starts' | 'ends' | 'startedAt' | 'closedAt'>[];
	people: Pick<PersonView, 'id' | 'name' | 'gone'>[];
}

/** Boards that a person may see, as far as their histories are folded by it, by the last parts of their addresses. */
export async function foldHeads(person: Person, slugs: readonly string[]): Promise<Map<string, FoldHead>> {
	const found = await rows<FoldHead & { slug: string }>(
		`select b.id, b.slug, b.name, b.key, b.unit, t.time_zone as "timeZone", b.last_seq as seq,
			(select json_agg(json_build_object('name', k.name, 'kind', k.kind, 'limit', k.wip_limit, 'commitment', k.commitment,
				'hidden', k.hidden, 'position', k.position, 'was', ${WAS}) order by k.position)
			from board_column k where k.board_id = b.id and k.retired_at is null) as columns,
			${RETIRED} as retired,
			(select coalesce(json_agg(json_build_object('number', s.number, 'starts', s.starts, 'ends', s.ends,
				'startedAt', s.started_at, 'closedAt', s.closed_at) order by s.number), '[]')
			from sprint s where s.board_id = b.id) as sprints,
			(select coalesce(json_agg(json_build_object('id', p.id, 'name', p.name, 'gone', m.left_at is not null) order by p.name), '[]')
			from membership m join person p on p.id = m.person_id where m.team_id = b.team_id) as people
		from board b
		join team t on t.id = b.team_id
		join board_right r on r.board_id = b.id and r.person_id = $1
		where b.slug = any($2)`,
		[person.id, slugs],
		'fold-heads',
	);
	return new Map(found.map(({ slug, ...head }) => [slug, head]));
}

/** A board by its key, for the command line: whoever holds the database may read all of it. */
export async function boardByKey(key: string): Promise<BoardHead | null> {
	const [found] = await rows<{ slug: string; person: Person }>(
		`select b.slug, json_build_object('id', p.id, 'name', p.name, 'initials', p.initials, 'email', p.email, 'scope', 'read') as person
		from board b
		join board_right r on r.board_id = b.id
		join person p on p.id = r.person_id
		where b.id = (select board_id from board_key where key = $1)
		order by (r.role = 'lead') desc
		limit 1`,
		[key.toUpperCase()],
	);
	return found ? boardHead(found.person, found.slug) : null;
}

/** A board of a team, as the line of its places needs it; null when there is none, or the person may not see it. */
export async function placesOf(person: Person, team: string, slug: string): Promise<BoardPlaces | null> {
	const [found] = await rows<BoardPlaces>(
		`select b.name, b.slug, b.sprint_days as "sprintDays", b.team_id as "teamId", r.role, b.off,
			(select json_agg(json_build_object('id', m.person_id, 'gone', m.left_at is not null)) from membership m
			where m.team_id = b.team_id) as people
		from board b
		join board_right r on r.board_id = b.id and r.person_id = $1
		where b.slug = $2 and b.team_id::text = $3`,
		[person.id, slug, team],
		'places-of',
	);
	return found ?? null;
}

/** The boards that a person may see. */
export async function boardsOf(person: Person): Promise<SeenBoard[]> {
	return rows(
		`select b.name, b.slug, b.key, t.name as team, b.purpose, r.role
		from board b
		join team t on t.id = b.team_id
		join board_right r on r.board_id = b.id and r.person_id = $1
		where b.away_at is null and t.away_at is null
		order by t.name, b.position`,
		[person.id],
		'boards-of',
	);
}
