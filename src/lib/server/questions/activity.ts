import { ACTIVITY_NAMES, GROUP_OF, kindsOf, type ActivityGroup } from '../../../core/activity/groups.ts';
import { doneSentence, type Done } from '../../../core/activity/sentence.ts';
import { dayText } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import type { CardEventName } from '../../../core/events/kinds.ts';
import type { ActivityAsked, ActivityPage, ActivityRow } from '../../../core/pages/activity.ts';
import { wholeNames } from '../../../core/words.ts';
import { dayAsked, isId, rangeWithin } from '../asked.ts';
import { rows } from '../database.ts';
import { Problem } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';

const AT_ONCE = 100;
const DAYS = 7;
const MOST_DAYS = 370;
/** So many rows a file has at most. */
export const MOST_IN_FILE = 50_000;

/** What an address asks for, by the names of its parameters. */
export type Asks = (name: string) => string | null;

/**
 * What is meant by an address: the last seven days unless it says otherwise.
 * @throws Problem 422 for what is no day, group or id, and for more than a year
 */
function meantBy(asks: Asks): ActivityAsked {
	const today = zoneOf('UTC').day(now().getTime());
	const to = dayAsked(asks('to'), 'to') ?? today;
	const from = dayAsked(asks('from'), 'from') ?? to - (DAYS - 1);
	const range = rangeWithin(from, to);
	if (range[1] - range[0] >= MOST_DAYS)
		throw new Problem(422, 'range.too_long', 'What was done is shown for at most a year.', 'from');
	const group = asks('group') || null;
	if (group && !ACTIVITY_NAMES.includes(group as ActivityGroup))
		throw new Problem(422, 'invalid.group', `The kind is one of: ${ACTIVITY_NAMES.join(', ')}.`, 'group');
	for (const name of ['team', 'person'])
		if (asks(name) && !isId(asks(name)!))
			throw new Problem(422, `invalid.${name}`, `The ${name} is named by its id.`, name);
	return {
		board: asks('board') || null,
		team: asks('team') || null,
		person: asks('person') || null,
		group: group as ActivityGroup | null,
		from: dayText(range[0]),
		to: dayText(range[1]),
	};
}

/** Events that person $1 may know of: on boards they see, of cards they see, and not taken back. $2 to $7 narrow them. */
const NEWS = `select e.board_id, e.seq, e.at, e.kind, e.card_id, e.actor_id,
		-- What is done to a team stands on each of its boards: over several it is told once.
		e.kind = 'people' and $4::text is null and exists (
			select from event o
			join board k on k.id = o.board_id and k.away_at is null
			join board_right w on w.board_id = k.id and w.person_id = $1
			where o.command_id = e.command_id and o.kind = 'people' and o.value = e.value and o.board_id < e.board_id) as again
	from board b
	join board_right r on r.board_id = b.id and r.person_id = $1
	join team t on t.id = b.team_id
	join event e on e.board_id = b.id
		and e.at >= $2::date::timestamp at time zone t.time_zone and e.at < ($3::date + 1)::timestamp at time zone t.time_zone
	left join card c on c.id = e.card_id
	where b.away_at is null and t.away_at is null
		and ($4::text is null or b.slug = $4) and ($5::uuid is null or b.team_id = $5) and ($6::uuid is null or e.actor_id = $6)
		and ($7::text[] is null or case when e.card_id is null then 'set' = any($7) else e.kind = any($7) end)
		and (c.id is null or not c.private or may_see((select w from card w where w.id = c.id), $1))
		and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)`;

/** What a page and a file say of some of them `n`. */
const TOLD = `select n.at, n.board_id || '.' || n.seq as id, json_build_object('name', b.name, 'slug', b.slug, 'timeZone', t.time_zone) as board,
		case when e.kind = 'people' and $4::text is null then json_build_object('id', t.id, 'name', t.name) end as team,
		case when c.id is not null then json_build_object('key', b.key || '-' || c.number, 'title', c.title) end as card,
		case when p.id is not null then json_build_object('id', p.id, 'name', p.name, 'initials', p.initials) end as who,
		json_build_object('kind', e.kind, 'card', e.card_id is not null, 'value', e.value, 'who', p.name, 'before', e.before, 'after', e.after,
			'unit', case b.unit when 'hours' then ' h' when 'points' then ' points' else '' end,
			'size', case when e.kind = 'sized' then (
				select o.value from event o where o.card_id = e.card_id and o.kind = 'sized' and o.seq < e.seq and o.board_id = e.board_id
				order by o.seq desc limit 1) end,
			'said', case when e.kind in ('comment', 'comment-changed') then coalesce((
				select case w.kind when 'comment-withdrawn' then '' else w.value end from event w
				where (w.card_id = e.card_id or w.page_id = e.page_id) and w.board_id = e.board_id and w.kind in ('comment-changed', 'comment-withdrawn')
					and (w.after ->> 'of')::bigint = coalesce((e.after ->> 'of')::bigint, e.seq)
				order by w.seq desc limit 1), e.value) end) as event
	from n
	join event e on e.board_id = n.board_id and e.seq = n.seq
	join board b on b.id = n.board_id
	join team t on t.id = b.team_id
	left join card c on c.id = n.card_id
	left join person p on p.id = n.actor_id
	order by n.at desc, n.board_id, n.seq desc`;

interface Row extends Omit<ActivityRow, 'text' | 'group'> {
	id: string;
	event: Done;
}

const rowOf = ({ event, at, board, team, card, who }: Row): ActivityRow[] => {
	const text = doneSentence(event);
	const group = event.card ? GROUP_OF[event.kind as CardEventName] : 'set';
	return text === null ? [] : [{ at, board, team, card, who, text, group }];
};

const valuesOf = (person: Person, asked: ActivityAsked) => [
	person.id,
	asked.from,
	asked.to,
	asked.board,
	asked.team,
	asked.person,
	asked.group === null ? null : asked.group === 'set' ? ['set'] : kindsOf(asked.group),
];

/**
 * What was done over some days, a page at a time, and how much of it by whom, of which kind and where.
 * @param asks what the address says; `before` is the place from which it goes on
 */
export async function activityPage(person: Person, asks: Asks): Promise<ActivityPage> {
	const asked = meantBy(asks);
	const [, moment, board, seq] = /^(\d+)\.([0-9a-f-]{36})\.(\d+)$/.exec(asks('before') ?? '') ?? [];
	if (asks('before') && !moment)
		throw new Problem(422, 'invalid.before', 'The place from which it goes on is none.', 'before');
	const values = valuesOf(person, asked);
	const [counts, found, [all]] = await Promise.all([
		rows<{
			who: string | null;
			kind: string | null;
			board: string | null;
			set: number;
			n: number;
			all: number;
			of: number;
		}>(
			`with news as materialized (${NEWS})
			select actor_id as who, case when card_id is null then 'set' else kind end as kind, board_id as board,
				count(*) filter (where not again)::int as n, count(*)::int as all,
				grouping(actor_id, case when card_id is null then 'set' else kind end, board_id) as of
			from news
			group by grouping sets ((), (actor_id), (case when card_id is null then 'set' else kind end), (board_id))`,
			values,
			'activity-counts',
		),
		rows<Row & { cursor: string }>(
			`with news as (${NEWS}), n as (
				select * from news
				where not again and ($8::bigint is null or at < timestamptz 'epoch' + $8::bigint * interval '1 microsecond'
					or at = timestamptz 'epoch' + $8::bigint * interval '1 microsecond' and (board_id > $9::uuid or board_id = $9 and seq < $10::bigint))
				order by at desc, board_id, seq desc
				limit ${AT_ONCE + 1}
			)
			select (extract(epoch from told.at) * 1000000)::bigint || '.' || told.id as cursor, told.*
			from (${TOLD}) told`,
			[...values, moment ?? null, board ?? null, seq ?? null],
			'activity-rows',
		),
		rows<{
			boards: ActivityPage['all']['boards'];
			ids: Record<string, string>;
			people: Known[];
		}>(
			`select coalesce(json_agg(json_build_object('slug', b.slug, 'name', b.name) order by b.position, b.name), '[]') as boards,
				coalesce(json_object_agg(b.id, b.slug), '{}') as ids,
				${PEOPLE} as people
			from board b join board_right r on r.board_id = b.id and r.person_id = $1
			join team t on t.id = b.team_id and t.away_at is null
			where b.away_at is null and ($2::uuid is null or b.team_id = $2)`,
			[person.id, asked.team],
			'activity-all',
		),
	]);
	const shown = found.slice(0, AT_ONCE);
	const most = <T extends { n: number }>(list: T[]) => list.sort((a, b) => b.n - a.n);
	// grouping() says which of the three are summed over: 7 all of them, 3 all but who, 5 all but the kind, 6 all but the board.
	const by = (of: number) => counts.filter((one) => one.of === of);
	const groups = new Map<ActivityGroup, number>();
	for (const { kind, n } of by(5)) {
		const group = kind === 'set' ? 'set' : GROUP_OF[kind as CardEventName];
		if (group) groups.set(group, (groups.get(group) ?? 0) + n);
	}
	const named = wholeNames(all!.people);
	const people = all!.people.map(({ id, initials }) => ({ id, name: named(id), initials }));
	return {
		asked,
		total: by(7)[0]?.n ?? 0,
		people: most(
			by(3).flatMap(({ who, n }) => {
				const one = people.find(({ id }) => id === who);
				return one ? [{ ...one, n }] : [];
			}),
		),
		groups: most([...groups].map(([group, n]) => ({ group, n }))),
		boards: most(
			by(6).flatMap(({ board: id, all: n }) => {
				const slug = all!.ids[id!];
				const known = all!.boards.find((one) => one.slug === slug);
				return known ? [{ ...known, n }] : [];
			}),
		),
		rows: calledBy(all!.people, shown.flatMap(rowOf)),
		next: found.length > AT_ONCE ? shown.at(-1)!.cursor : null,
		all: { boards: all!.boards, people: people.map(({ id, name }) => ({ id, name })) },
	};
}

/** All of it, the latest first, as a file has it; at most fifty thousand rows. */
export async function activityRows(
	person: Person,
	asks: Asks,
): Promise<{ asked: ActivityAsked; rows: ActivityRow[] }> {
	const asked = meantBy(asks);
	const [found, [known]] = await Promise.all([
		rows<Row>(
			`with news as (${NEWS}), n as (select * from news where not again order by at desc, board_id, seq desc limit ${MOST_IN_FILE}) ${TOLD}`,
			valuesOf(person, asked),
			'activity-file',
		),
		rows<{ people: Known[] }>(`select ${PEOPLE} as people`, [person.id], 'activity-people'),
	]);
	return { asked, rows: calledBy(known!.people, found.flatMap(rowOf)) };
}

/** Whoever is or was in a team of the one who asks ($1), with what they do there. */
const PEOPLE = `(select coalesce(json_agg(json_build_object('id', p.id, 'name', p.name, 'initials', p.initials, 'title', k.title) order by p.name), '[]')
	from person p
	join lateral (
		select m.title from membership m join membership o on o.team_id = m.team_id and o.person_id = $1 and o.left_at is null
		where m.person_id = p.id order by m.left_at is null desc, m.title limit 1) k on true)`;

interface Known {
	id: string;
	name: string;
	initials: string;
	title: string;
}

/** Two of one name are told apart by what they do. */
function calledBy(people: readonly Known[], done: ActivityRow[]): ActivityRow[] {
	const named = wholeNames(people);
	const called = new Map(people.map(({ id }) => [id, named(id)]));
	return done.map((row) => ({
		...row,
		who: row.who && { ...row.who, name: called.get(row.who.id) ?? row.who.name },
	}));
}
