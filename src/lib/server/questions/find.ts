import pg from 'pg';
import type { Found } from '../../../core/pages/find.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';

const cleaned = (text: string) =>
	text
		.replace(/\0|\p{Surrogate}/gu, '')
		.trim()
		.slice(0, 100);

/** Card numbers that begin with these digits, as ranges: 43 is 43, 430 to 439, 4300 to 4399 and so on. */
function beginningWith(digits: string): { from: number; to: number }[] {
	const ranges: { from: number; to: number }[] = [];
	for (let n = Number(digits), wide = 1; n > 0 && n <= 2_000_000_000; n *= 10, wide *= 10)
		ranges.push({ from: n, to: Math.min(n + wide - 1, 2_147_483_647) });
	return ranges;
}

/**
 * What holds the words: cards whose number begins so or whose title has the words, the one that has just this key first, then
 * those of open work; boards and people by name; sprints by number or goal; labels and initiatives by name. At most 12 cards, and few of the others. Titles of
 * cards that are done or archived are looked at from three letters on.
 * @param board only cards of this board
 */
export async function find(person: Person, text: string, board: string | null = null): Promise<Found[]> {
	const query = cleaned(text);
	if (!query) return [];
	const pattern = `%${query.replace(/[\\%_]/g, '\\$&')}%`;
	const [{ ahead, behind }, cards] = await Promise.all([
		board ? { ahead: [], behind: [] } : namesWith(person, pattern),
		cardsWith(person, query, pattern, board),
	]);
	return [...ahead, ...cards, ...behind];
}

/** So many cards of a board are looked at first that were done or archived lately: what is found among them often is found everywhere. */
const LATEST = 300;

/**
 * Cards by their key, number or title. Words that few cards have are looked up; those that many have are found among open
 * cards and the latest of the others, before all that have them would be read.
 */
async function cardsWith(
	person: Person,
	query: string,
	pattern: string,
	board: string | null,
): Promise<Found[]> {
	const [, key = null, digits = ''] = /^(?:([a-z][a-z0-9]*)-)?(\d{1,9})$/i.exec(query) ?? [];
	// All of it stands in the statement itself: how rare the words are decides how they are looked for. What cannot find
	// anything is left out: to plan it takes longer than to run it.
	const [who, words, long] = [pg.escapeLiteral(person.id), pg.escapeLiteral(pattern), query.length > 2];
	const ways: Record<string, string> = {
		...(digits && {
			numbered: `(
				select c.id
				from jsonb_to_recordset(${pg.escapeLiteral(JSON.stringify(beginningWith(digits)))}) n("from" integer, "to" integer), seen b,
					lateral (select id from card k where board_id = b.id and number between n."from" and n."to" and may_see(k, ${who}) order by number limit 12) c
				where ${key === null ? 'true' : `b.id = (select board_id from board_key where key = upper(${pg.escapeLiteral(key)}))`})`,
		}),
		...(long && {
			latest: `materialized (
				select c.id
				from seen b, lateral (select k.id, k.number, k.title, k as card from card k
					where board_id = b.id and (archived_at is not null or clock = 'done')
					order by number desc limit ${LATEST}) c
				where c.title ilike ${words} and may_see(c.card, ${who})
				order by c.number desc
				limit 12)`,
			rare: `materialized (
				select k.id
				from card k
				where (select count(*) from latest) < 12 and title ilike ${words} and board_id in (select id from seen) and may_see(k, ${who}))`,
		}),
		open: `(
			select c.id
			from seen b, lateral (select id from card k
				where board_id = b.id and archived_at is null and clock <> 'done' and title ilike ${words} and may_see(k, ${who})
				order by (column_id is null), number desc limit 12) c
			${long ? 'where (select count(*) from latest) = 12' : ''})`,
	};
	return rows<Found>(
		`with seen as materialized (
			select b.id, b.slug, b.key
			from board b join board_right r on r.board_id = b.id and r.person_id = ${who}
			where ${board === null ? 'b.away_at is null' : `b.slug = ${pg.escapeLiteral(board)}`}
		), ${Object.entries(ways)
			.map(([name, way]) => `${name} as ${way}`)
			.join(', ')}
		select 'card' as kind, c.id::text as id, b.key || '-' || c.number as key, b.slug as board, c.title,
			case when c.archived_at is not null then 'archived' else coalesce(k.name, 'backlog') end as place,
			'/boards/' || b.slug || '?card=' || b.key || '-' || c.number as "to"
		from card c
		join seen b on b.id = c.board_id
		left join board_column k on k.id = c.column_id
		where c.id = any(array(${Object.keys(ways)
			.map((name) => `select id from ${name}`)
			.join(' union ')}))
		order by (c.number::text = ${pg.escapeLiteral(digits)}) desc, (c.archived_at is not null), (c.clock = 'done'), (c.column_id is null), c.number desc
		limit 12`,
	);
}

/** What is found by its name: boards and people stand ahead of the cards, sprints, labels and initiatives behind them. */
async function namesWith(person: Person, pattern: string): Promise<Record<'ahead' | 'behind', Found[]>> {
	const [found] = await rows<Record<'ahead' | 'behind', Found[]>>(
		`with seen as materialized (
			select b.id, b.slug, b.key, b.name, b.team_id, b.sprint_name
			from board b join board_right r on r.board_id = b.id and r.person_id = $1
			where b.away_at is null
		), boards as (
			select 'board' as kind, '' as id, '' as key, b.slug as board, b.name as title, t.name as place, '/boards/' || b.slug as "to"
			from seen b join team t on t.id = b.team_id
			where b.name ilike $2 or b.key ilike $2
			order by b.name
			limit 4
		), people as (
			select distinct 'person' as kind, p.id::text as id, '' as key, '' as board, p.name as title,
				coalesce(nullif(m.title, ''), t.name) as place, '/teams/' || t.id || '/people?person=' || p.id as "to"
			from membership me
			join team t on t.id = me.team_id
			join membership m on m.team_id = t.id and m.left_at is null and m.role <> 'viewer'
			join person p on p.id = m.person_id
			where me.person_id = $1 and me.left_at is null and p.name ilike $2
			limit 4
		), sprints as (
			select 'sprint' as kind, '' as id, '' as key, b.slug as board,
				b.name || ', ' || lower(b.sprint_name) || ' ' || s.number || case when s.goal = '' then '' else ': ' || s.goal end as title,
				case when s.closed_at is not null then 'closed' when s.started_at is not null then 'running' else 'to come' end as place,
				'/boards/' || b.slug || case when s.started_at is null then '/plan?sprint=' else '/look-back/' end || s.number as "to"
			from sprint s join seen b on b.id = s.board_id
			where s.goal ilike $2 or b.sprint_name || ' ' || s.number ilike $2
			order by s.starts desc
			limit 4
		), names as (
			select n.kind, n.id::text as id, '' as key, b.slug as board, n.name as title, b.name as place,
				'/boards/' || b.slug || case when n.kind = 'label' then '/backlog?group=label' else '/initiatives/' || n.id end as "to"
			from (
				select 'label' as kind, board_id, id, name from label where retired_at is null and name ilike $2
				union all
				select 'initiative', board_id, id, name from initiative where retired_at is null and name ilike $2
			) n
			join seen b on b.id = n.board_id
			order by n.name
			limit 4
		)
		select (select coalesce(json_agg(f), '[]') from (select * from boards union all select * from people) f) as ahead,
			(select coalesce(json_agg(f), '[]') from (select * from sprints union all select * from names) f) as behind`,
		[person.id, pattern],
		'find-names',
	);
	return found!;
}
