import type { BoardHead } from '../../../core/pages/board.ts';
import type { CardEvent } from '../../../core/pages/card.ts';
import type { InitiativePage, OwnPage } from '../../../core/pages/own-page.ts';
import { changedLines } from '../../../core/talk/notes.ts';
import { asSaid } from '../../../core/talk/talk.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { isId } from '../asked.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { initiativesOf } from './initiatives.ts';
import { namedIn } from './named-cards.ts';
import { TITLE_TO } from './titles.ts';

/** So many changes of notes a page tells of. */
const MOST_CHANGES = 30;

interface Row extends Omit<OwnPage, 'changes' | 'named' | 'watching'> {
	changes: { seq: number; at: string; who: string | null; undone: boolean; before: string; after: string }[];
}

/**
 * The page of a board, or of one of its initiatives. Rights are those of the board whose head is given.
 * @param initiative its id; null for the page of the board itself
 */
export async function ownPage(head: BoardHead, initiative: string | null): Promise<OwnPage> {
	const [found] = await rows<Row>(
		`with recursive meant as materialized (
			select id, notes, version from page where board_id = $1 and initiative_id is not distinct from $2::uuid
		), ways(id, old) as (
			select id, false from meant
			union
			select p.id, true from ways w join page p on p.merged_into = w.id
		)
		select (select name from initiative where id = $2) as initiative,
			coalesce((select notes from meant), '') as notes, coalesce((select version from meant), 1) as version,
			(select coalesce(json_agg(json_build_object('seq', e.seq, 'at', e.at, 'kind', e.kind, 'value', e.value, 'who', p.name,
				'before', null, 'after', e.after, 'undone', false, 'command', null, 'by', e.actor_id, 'old', w.old) order by e.at, e.seq), '[]')
			from ways w join event e on e.page_id = w.id left join person p on p.id = e.actor_id
			where e.kind in ('comment', 'comment-changed', 'comment-withdrawn')) as history,
			(select coalesce(json_agg(c order by c.seq desc), '[]') from (
				select e.seq, e.at, p.name as who, v.seq is not null as undone, e.before ->> 'text' as before, e.after ->> 'text' as after
				from meant m
				join event e on e.page_id = m.id and e.kind = 'notes-changed'
				left join person p on p.id = e.actor_id
				left join event_void v on v.board_id = e.board_id and v.seq = e.seq
				order by e.seq desc limit ${MOST_CHANGES}) c) as changes,
			(select coalesce(json_agg(json_build_object('id', a.id, 'name', a.name, 'media', b.media, 'bytes', b.bytes, 'front', false,
				'by', p.name, 'at', a.at) order by a.at, a.name), '[]')
			from meant m
			join attachment a on a.page_id = m.id and a.removed_at is null
			join blob b on b.sha256 = a.sha256
			join person p on p.id = a.person_id) as files,
			array(
				select t.id::text from (
					select w.person_id as id from meant m join page_watch w on w.page_id = m.id and w.how <> 'stopped'
					union
					select w.person_id from board_watch w where w.board_id = $1 and $2 is null
					union
					select i.lead_id from initiative i where i.id = $2 and i.lead_id is not null
				) t
				join board_right r on r.board_id = $1 and r.person_id = t.id
				where not exists (select from meant m join page_watch s on s.page_id = m.id and s.person_id = t.id and s.how = 'stopped')
			) as told`,
		[head.id, initiative],
		'own-page',
	);
	const { changes, ...page } = found!;
	const history = asSaid(JSON.parse(JSON.stringify(page.history)) as CardEvent[]);
	return {
		...page,
		history,
		changes: changes.map(({ before, after, ...change }) => ({
			...change,
			lines: changedLines(before, after),
		})),
		named: await namedIn(head.me, [page.notes, ...history.map(({ value }) => value)].join('\n')),
		watching: page.told.includes(head.me),
	};
}

/**
 * An initiative of a board.
 * @param named its id, or its name
 * @returns its page; or, where it is another board’s own, that board’s last part of the address
 * @throws Problem 404 where the board has none of that name, or its own board may not be seen
 */
export async function initiativePage(
	head: BoardHead,
	person: Person,
	named: string,
): Promise<InitiativePage | { home: string }> {
	const [found] = await rows<{ id: string; home: string; stages: InitiativePage['stages'] }>(
		`select i.id, b.slug as home,
			(select coalesce(json_agg(json_build_object('name', x.name, 'limit', t.stage_limits -> x.name) order by x.n), '[]')
			from unnest(t.stages) with ordinality x(name, n)) as stages
		from initiative i
		join board b on b.id = i.board_id
		join board_right r on r.board_id = b.id and r.person_id = $4
		join team t on t.id = b.team_id
		where i.id = coalesce($2::uuid, initiative_named($1, $3)) and b.team_id = $5`,
		[head.id, isId(named) ? named : null, named, person.id, head.teamId],
		'initiative-named',
	);
	if (!found) throw notFound('initiative');
	if (found.home !== head.slug) return { home: found.home };
	const today = zoneOf(head.timeZone).day(now().getTime());
	const [[figures], work, page] = await Promise.all([
		initiativesOf(person, head.teamId, today, head.timeZone, [found.id]),
		workOf(person, head.teamId, found.id),
		ownPage(head, found.id),
	]);
	// A board that is put away is in no big picture: its own pages are still read.
	if (!figures) throw notFound('initiative');
	return { figures, stages: found.stages, ...work, page };
}

/** What was worked for an initiative, as far as boards may be seen; cost for leads only. */
async function workOf(
	person: Person,
	team: string,
	initiative: string,
): Promise<Pick<InitiativePage, 'boards' | 'spent' | 'people' | 'titles'>> {
	const [found] = await rows<Pick<InitiativePage, 'boards' | 'spent' | 'people' | 'titles'>>(
		`with seen as materialized (
			select b.id, b.name, b.slug, b.key, b.unit, b.sprint_name, b.position from board b
			join board_right r on r.board_id = b.id and r.person_id = $1
			where b.team_id = $2
		), entry as materialized (
			select t.person_id, s.key || '-' || c.number as card, c.id as card_id, date_trunc('week', t.day)::date as week,
				to_char(t.day, 'YYYY-MM') as month, s.sprint_name || ' ' || n.number
					|| case when (select count(distinct board_id) from card where initiative_id = $3) > 1 then ', ' || s.name else '' end as sprint,
				sum(t.hours) as hours, case when me.role = 'lead' then sum(t.hours * h.rate) end as cost
			from card c
			join seen s on s.id = c.board_id
			join time_entry t on t.card_id = c.id and t.withdrawn_at is null
			left join sprint n on n.id = t.sprint_id
			left join membership me on me.team_id = $2 and me.person_id = $1 and me.left_at is null
			left join lateral (
				select rate from hourly_rate where team_id = $2 and person_id = t.person_id and from_day <= t.day
				order by from_day desc limit 1
			) h on me.role = 'lead'
			where c.initiative_id = $3
			group by 1, 2, 3, 4, 5, 6, me.role
		)
		select
			(select coalesce(json_agg(json_build_object('id', s.id, 'name', s.name, 'slug', s.slug, 'key', s.key, 'unit', s.unit) order by s.position), '[]')
			from seen s where exists (select from card c where c.board_id = s.id and c.initiative_id = $3)) as boards,
			(select coalesce(json_agg(json_build_object('person', person_id, 'card', card, 'week', week, 'month', month, 'sprint', sprint,
				'hours', hours, 'cost', cost) order by week, card), '[]') from entry) as spent,
			(select coalesce(json_object_agg(p.id, p.name), '{}') from person p where p.id in (select person_id from entry)) as people,
			(select coalesce(json_object_agg(s.key || '-' || c.number, ${TITLE_TO('$1')}), '{}')
			from card c join seen s on s.id = c.board_id where c.id in (select card_id from entry)) as titles`,
		[person.id, team, initiative],
		'initiative-work',
	);
	return found!;
}
