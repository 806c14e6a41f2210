import { LRUCache } from 'lru-cache';
import { PRIVATE_TITLE } from '../../../core/board/private.ts';
import { dayText } from '../../../core/calendar/days.ts';
import { teamWorks } from '../../../core/calendar/team-days.ts';
import { workdaysOf } from '../../../core/calendar/workdays.ts';
import { DAY_MS, zoneOf, type Day } from '../../../core/calendar/zone.ts';
import type { CardColumns, KindRow, NamedCards, PanoramaPage } from '../../../core/pages/panorama.ts';
import type { AskedFor } from '../../../core/panorama/asked.ts';
import { cardsOf } from '../../../core/panorama/columns.ts';
import { isId } from '../asked.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { initiativesOf } from './initiatives.ts';
import { milestonesOf, withLate } from './milestones.ts';
import { rotaOf } from './rota.ts';
import { siftOf } from './sift.ts';
import { TITLE_TO } from './titles.ts';

/** What ended so long ago is no longer on the picture. */
const BACK_DAYS = 92;
/** Work days are told for so long ahead. */
const AHEAD_DAYS = 800;
/** *Done lately* is within so many days. */
export const LATELY_DAYS = 14;

type Head = Pick<
	PanoramaPage,
	'team' | 'role' | 'boards' | 'people' | 'holidays' | 'sprints' | 'stages' | 'lenses'
> & {
	zone: string;
	/** The last event of each board. */
	seqs: number[];
};

/**
 * The same with its cards as plain ones.
 * @throws Problem 404 when there is no such team, or the person is not in it
 */
export async function panoramaPage(person: Person, team: string, asked: AskedFor): Promise<PanoramaPage> {
	const { columns, ...page } = await panoramaColumns(person, team, asked);
	return { ...page, ...cardsOf(JSON.parse(columns) as CardColumns) };
}

/**
 * Several boards of a team as one picture: what has dates, initiatives, sprints, milestones; boards by kind of column
 * where they are looked at so. Of cards there are those with the words and fields that are asked for; the rest of what is
 * asked chooses among them. Cards with dates and what blocks what come as the database writes them, as `CardColumns`.
 * @throws Problem 404 when there is no such team, or the person is not in it
 */
export async function panoramaColumns(
	person: Person,
	team: string,
	asked: AskedFor,
): Promise<Omit<PanoramaPage, 'cards' | 'links'> & { columns: string }> {
	if (!isId(team)) throw notFound('team');
	const [[head], rota] = await Promise.all([
		rows<Head>(
			`select json_build_object('id', t.id, 'name', t.name) as team, t.time_zone as zone, me.role,
				(select coalesce(json_agg(json_build_object('id', b.id, 'name', b.name, 'slug', b.slug, 'key', b.key, 'unit', b.unit,
					'role', r.role) order by b.position), '[]')
				from board b join board_right r on r.board_id = b.id and r.person_id = $2
				where b.team_id = t.id and b.away_at is null) as boards,
				(select coalesce(json_agg(b.last_seq order by b.position), '[]')
				from board b join board_right r on r.board_id = b.id and r.person_id = $2
				where b.team_id = t.id and b.away_at is null) as seqs,
				(select coalesce(json_agg(json_build_object('id', p.id, 'name', p.name, 'initials', p.initials,
					'title', m.title, 'gone', m.left_at is not null) order by p.name), '[]')
				from membership m join person p on p.id = m.person_id where m.team_id = t.id and m.role <> 'viewer') as people,
				(select coalesce(json_agg(json_build_object('day', day, 'name', name) order by day), '[]')
				from holiday where team_id = t.id and withdrawn_at is null and day > $3::date - ${BACK_DAYS}) as holidays,
				(select coalesce(json_agg(json_build_object('board', b.id, 'name', b.sprint_name || ' ' || s.number, 'number', s.number,
					'starts', s.starts, 'ends', s.ends, 'state', case when s.closed_at is not null then 'closed'
						when s.started_at is not null then 'running' else 'coming' end) order by b.position, s.number), '[]')
				from sprint s join board b on b.id = s.board_id and b.team_id = t.id and b.away_at is null
				join board_right r on r.board_id = b.id and r.person_id = $2
				where s.ends > $3::date - ${BACK_DAYS}) as sprints,
				(select coalesce(json_agg(json_build_object('name', x.name, 'limit', t.stage_limits -> x.name) order by x.n), '[]')
				from unnest(t.stages) with ordinality x(name, n)) as stages,
				(select coalesce(json_agg(json_build_object('id', l.id, 'name', l.name, 'query', l.query, 'shared', l.shared,
					'mine', l.person_id = $2) order by l.shared, l.name), '[]')
				from lens l where l.team_id = t.id and l.retired_at is null and (l.shared or l.person_id = $2)) as lenses
			from team t
			join membership me on me.team_id = t.id and me.person_id = $2 and me.left_at is null
			where t.id = $1`,
			[team, person.id, now()],
			'panorama-head',
		),
		rotaOf(team),
	]);
	if (!head) throw notFound('team');
	const { zone, seqs, ...rest } = head;
	const today = zoneOf(zone).day(now().getTime());
	const slugs = head.boards.map(({ slug }) => slug);
	const works = (day: Day) => teamWorks(rota, day);
	const since = new Date(now().getTime() - BACK_DAYS * DAY_MS);
	// What is narrowed is asked for first: all else goes by it.
	const sifted = await siftOf(person, slugs, asked, since, today, works);
	const [{ among, ...dated }, [hanging], initiatives, milestones, byKind] = await Promise.all([
		remembered(sifted ? null : [person.id, team, zone, today, seqs, ...head.boards.map(({ id }) => id)], () =>
			datedOf(person, team, zone, dayText(today), sifted?.ids ?? null),
		),
		rows<{ loose: number }>(`with ${SEEN} select count(*) as loose ${LOOSE}`, [team, person.id], 'loose'),
		initiativesOf(person, team, today, zone, null, slugs),
		milestonesOf(person.id, team, today - BACK_DAYS),
		asked.as === 'kinds' ? kindsOf(person, team, sifted?.ids ?? null, asked.who) : null,
	]);
	return {
		...rest,
		me: person.id,
		today: dayText(today),
		workdays: workdaysOf(works, today - BACK_DAYS, today + AHEAD_DAYS),
		milestones: withLate(milestones, initiatives, today),
		initiatives,
		...dated,
		...hanging!,
		kinds: byKind,
		narrowed: sifted && { initiatives: among, words: sifted.words },
	};
}

/** Open cards on the boards that are `seen` without a date, on which nothing hangs and that hang on nothing, in SQL. */
const LOOSE = `from seen s join card c on c.board_id = s.id
			where c.archived_at is null and c.clock <> 'done' and coalesce(c.due, c.start) is null
				and not exists (select from card_link l where l.kind = 'blocks' and l.from_id = c.id)
				and not exists (select from card_link l where l.kind = 'blocks' and l.to_id = c.id)
				and not exists (select from card k where k.parent_id = c.id and k.archived_at is null)`;
/** The boards of a team that somebody may see: of the team $1, for the person $2. */
const SEEN = `seen as materialized (
			select b.id, b.key, row_number() over (order by b.id) - 1 as place from board b join board_right r on r.board_id = b.id and r.person_id = $2
			where b.team_id = $1 and b.away_at is null
		)`;

/** So many characters of what was read last are remembered: whoever looks again, or otherwise, does not wait for it. */
const MOST_REMEMBERED = 30_000_000;
const memory = new LRUCache<string, Awaited<ReturnType<typeof datedOf>>>({
	maxSize: MOST_REMEMBERED,
	sizeCalculation: ({ columns }) => columns.length + 1,
});

/**
 * What was read, as long as nothing has happened on any of the boards.
 * @param by all that it goes by, the last events of the boards among it; null: it is not remembered
 */
async function remembered(
	by: unknown[] | null,
	read: () => ReturnType<typeof datedOf>,
): ReturnType<typeof datedOf> {
	if (!by) return read();
	const key = JSON.stringify(by);
	const known = memory.get(key);
	if (known) return known;
	const found = await read();
	memory.set(key, found);
	return found;
}

/** Cards with dates over all boards of a team that somebody may see, and what blocks what. */
async function datedOf(
	person: Person,
	team: string,
	zone: string,
	today: string,
	ids: readonly string[] | null,
): Promise<{
	columns: string;
	/** The initiatives of all that are meant. */
	among: string[];
}> {
	const [found] = await rows<Awaited<ReturnType<typeof datedOf>>>(
		`with ${SEEN}, dated as materialized (
			select row_number() over (order by coalesce(c.start, c.due), c.board_id, c.number) - 1 as place,
				c.id, s.place as board, c.number, c.version, c.start, c.due, c.clock, c.initiative_id, c.class,
				case when c.initiative_id is not null then dense_rank() over (order by c.initiative_id) - 1 end as initiative,
				case when c.private and may_see(c, $2) is not true then '${PRIVATE_TITLE}' else c.title end as title,
				case when c.clock = 'running' then $4::date - (c.started_at at time zone $3)::date + 1 end as day
			from seen s join card c on c.board_id = s.id
			where coalesce(c.due, c.start) is not null and c.archived_at is null
				and (c.clock <> 'done' or greatest(c.due, (c.finished_at at time zone $3)::date) > $4::date - ${BACK_DAYS})
				and ($5::uuid[] is null or c.id = any($5))
		), owned as materialized (
			select d.place as card, o.person_id from dated d join card_owner o on o.card_id = d.id
		), owner as materialized (
			select person_id, row_number() over (order by person_id) - 1 as place from (select distinct person_id from owned) p
		)
		select (select row_to_json(x)::text from (select a.*, o.*, l.*,
				(select array_agg(id order by place) from seen) as boards,
				array(select distinct initiative_id from dated where initiative_id is not null order by 1) as initiatives,
				(select array_agg(person_id order by place) from owner) as people) x) as columns,
			array(select distinct c.initiative_id from card c where c.id = any($5) and c.initiative_id is not null) as among
		from (
			select array_agg(id) as id, array_agg(board) as board, array_agg(number) as number, array_agg(title) as title,
				array_agg(version) as version, array_agg(start) as start, array_agg(due) as due, array_agg(clock) as clock,
				array_agg(initiative) as initiative, array_agg(class) as class, array_agg(day) as day
			from (
				select * from dated order by place
			) c
		) a,
		(select array_agg(w.card) as owned, array_agg(p.place) as owner from owned w join owner p on p.person_id = w.person_id) o,
		(select array_agg(x.place) as "from", array_agg(y.place) as "to"
		from dated x join card_link l on l.from_id = x.id and l.kind = 'blocks' join dated y on y.id = l.to_id) l`,
		[team, person.id, zone, today, ids],
		'panorama-cards',
	);
	return found!;
}

/**
 * The open cards of a team’s boards without a date, on which nothing hangs and that hang on nothing.
 * @throws Problem 404 when there is no such team, or the person is not in it
 */
export async function looseCards(person: Person, team: string): Promise<NamedCards> {
	if (!isId(team)) throw notFound('team');
	const [found] = await rows<{ cards: { card: string; title: string }[] }>(
		`with ${SEEN}
		select (select coalesce(json_agg(json_build_object('card', s.key || '-' || c.number, 'title', ${TITLE_TO('$2')})
				order by s.key, c.number), '[]') ${LOOSE}) as cards
		from membership me
		where me.team_id = $1 and me.person_id = $2 and me.left_at is null`,
		[team, person.id],
		'loose-cards',
	);
	if (!found) throw notFound('team');
	return {
		cards: found.cards.map(({ card }) => ({ card, amount: null })),
		titles: Object.fromEntries(found.cards.map(({ card, title }) => [card, title])),
	};
}

/** Boards by kind of column, with the cards of each that are among some, and that somebody owns where that is asked. */
async function kindsOf(
	person: Person,
	team: string,
	ids: readonly string[] | null,
	who: string,
): Promise<PanoramaPage['kinds']> {
	const found = await rows<{
		board: string;
		slots: Record<'queue' | 'work' | 'done', number | null>;
		cards: { kind: 'queue' | 'work' | 'done'; card: string; title: string }[];
	}>(
		`select b.id as board,
			(select json_object_agg(kind, slots) from (
				select k.kind, case when bool_or(k.wip_limit is null) then null else sum(k.wip_limit) end as slots
				from board_column k where k.board_id = b.id and k.retired_at is null group by 1) s) as slots,
			(select coalesce(json_agg(json_build_object('kind', k.kind, 'card', b.key || '-' || c.number, 'title', ${TITLE_TO('$2')})
				order by k.position desc, c.rank), '[]')
			from card c join board_column k on k.id = c.column_id
			where c.board_id = b.id and c.archived_at is null
				and (k.kind <> 'done' or c.finished_at > $3::timestamptz - interval '${LATELY_DAYS} days')
				and ($4::uuid[] is null or c.id = any($4))
				and ($5::text = '' or exists (select from card_owner o where o.card_id = c.id and o.person_id::text = $5))) as cards
		from board b
		join board_right r on r.board_id = b.id and r.person_id = $2
		where b.team_id = $1 and b.away_at is null
		order by b.position`,
		[team, person.id, now(), ids, who],
		'panorama-kinds',
	);
	const titles: Record<string, string> = {};
	const byBoard = found.map(({ board, slots, cards }): KindRow => {
		const cell = (kind: 'queue' | 'work' | 'done') => ({
			slots: kind === 'done' ? null : (slots[kind] ?? null),
			cards: cards.filter((one) => one.kind === kind).map(({ card }) => ({ card, amount: null })),
		});
		for (const { card, title } of cards) titles[card] = title;
		return { board, queue: cell('queue'), work: cell('work'), done: cell('done') };
	});
	return { rows: byBoard, titles };
}
