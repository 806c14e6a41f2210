import { dayText } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import type { NoticeChoices, NoticeKind } from '../../../core/notices/kinds.ts';
import {
	daySentence,
	noticeSentence,
	reminderSentence,
	type ToldEvent,
} from '../../../core/notices/sentence.ts';
import type { NoticeCount, NoticesOf, NoticesPage, NoticeView } from '../../../core/pages/notices.ts';
import { rows } from '../database.ts';
import { mailOn } from '../mail/settings.ts';
import { Problem } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';

const AT_ONCE = 50;
const TOLD = 3;

/** Joins to notices \`n\` of person $1 what they are about; lets through those of what they may see, of which something still counts. */
const SEEN = `join board b on b.id = n.board_id
	left join board_right r on r.board_id = n.board_id and r.person_id = $1
	left join card c on c.id = n.card_id
	left join page g on g.id = n.page_id
	left join initiative i on i.id = g.initiative_id
	where n.person_id = $1
		-- The whole row of a card is looked at only where it is private.
		and (c.id is null or not c.private or may_see((select w from card w where w.id = c.id), $1))
		-- Whoever asked for a card is told of it, though they may not see its board.
		and (r.person_id is not null or c.asker_id = $1 and not c.private)
		and case when n.reminder_id is not null then c.clock <> 'done' and c.archived_at is null
			when n.day is null
			then exists (
				select from unnest(n.seqs) s
				where not exists (select from event_void v where v.board_id = n.board_id and v.seq = s))
			-- A day counts as long as it is that of the card, or the sprint, and nothing is finished.
			when c.id is null then exists (
				select from sprint s where s.board_id = n.board_id and s.ends = n.day and s.started_at is not null and s.closed_at is null)
			else c.clock <> 'done' and c.archived_at is null
				and case n.kinds[1] when 'review-due' then c.review_by = n.day and c.reviewer_id = $1 else c.due = n.day end
		end`;

/** Whether the question that a notice is has not been answered. */
const OPEN = `exists (
	select from question q where q.board_id = n.board_id and q.seq = n.seqs[1] and q.person_id = $1
		and (q.answered_seq is null or exists (select from event_void v where v.board_id = q.board_id and v.seq = q.answered_seq))
)`;

/** How much somebody is told that they have not read, and how many questions to them are open. */
export async function noticeCount(person: Person): Promise<NoticeCount> {
	const [found] = await rows<NoticeCount>(
		`select count(*) filter (where n.read_at is null) as unread, count(*) filter (where n.asks and ${OPEN}) as asks
		from notice n
		${SEEN} and n.away_at is null and (n.read_at is null or n.asks)`,
		[person.id],
		'notice-count',
	);
	return found!;
}

interface Row extends Omit<NoticeView, 'says' | 'comment' | 'kind' | 'by'> {
	kinds: NoticeKind[];
	cursor: string;
	day: string | null;
	sprint: string | null;
	/** What it reminds of, and by whom where that is another. */
	reminds: { words: string; by: string | null } | null;
	events: (ToldEvent & { seq: number; comment: number | null; initials: string | null })[];
}

interface Wanted {
	text?: string;
	of?: NoticesOf;
	/** From which moment and notice on. */
	moment?: string;
	id?: string;
	/** These only. */
	ids?: readonly string[];
}

/** So many of the latest are looked at first. */
const LOOKED_AT = 300;

/** Notices of somebody, the latest first: one more than stands on a page. */
async function noticeRows(person: string, asked: Wanted): Promise<Row[]> {
	const wanted = asked.ids?.length ?? AT_ONCE + 1;
	const { found, looked } = await noticesAmong(person, asked, wanted, LOOKED_AT);
	// Of what somebody may not see any more there may be very much in between.
	return found.length < wanted && looked === LOOKED_AT
		? (await noticesAmong(person, asked, wanted, null)).found
		: found;
}

/** The first of somebody's notices, looked for among so many of the latest; null: among all. And how many were looked at. */
async function noticesAmong(
	person: string,
	asked: Wanted,
	wanted: number,
	latest: number | null,
): Promise<{ found: Row[]; looked: number }> {
	const found = await rows<Row & { looked: number }>(
		`with card_hit as materialized (
		select c.id
		from (select distinct card_id from notice where person_id = $1 and $3 <> '') m
		join card c on c.id = m.card_id
		join board b on b.id = c.board_id
		where strpos(lower(b.key || '-' || c.number || ' ' || b.name || ' ' || c.title), lower($3)) > 0
	), board_hit as materialized (
		select id from board where $3 <> '' and strpos(lower(name), lower($3)) > 0
	), page_hit as materialized (
		select g.id
		from (select distinct page_id from notice where person_id = $1 and $3 <> '') m
		join page g on g.id = m.page_id
		left join initiative i on i.id = g.initiative_id
		where g.board_id in (select id from board_hit) or strpos(lower(i.name), lower($3)) > 0
	), latest as materialized (
		select * from notice n
		where n.person_id = $1 and ($6::uuid[] is null or n.id = any($6)) and (n.away_at is not null) = ($2 = 'away')
			and ($2 <> 'asks' or n.asks)
			and ($3 = '' or n.card_id in (select id from card_hit) or n.page_id in (select id from page_hit)
				or n.card_id is null and n.page_id is null and n.board_id in (select id from board_hit))
			and ($4::bigint is null or (n.at, n.id) < (timestamptz 'epoch' + $4::bigint * interval '1 microsecond', $5::uuid))
		order by n.at desc, n.id desc
		limit $8
	)
	select k.looked, told.* from (select count(*) as looked from latest) k left join (
		select n.id, json_build_object('id', b.id, 'slug', b.slug, 'name', b.name) as board,
		case when c.id is not null then json_build_object('id', c.id, 'key', b.key || '-' || c.number, 'title', c.title, 'version', c.version,
				'due', c.due, 'owners', array(select o.person_id from card_owner o where o.card_id = c.id),
				'works', r.role in ('lead', 'member') and c.clock <> 'done' and c.archived_at is null and b.away_at is null) end as card,
		case when g.id is not null then json_build_object('initiative', i.name) end as page,
		n.kinds, n.at, n.times, n.day::text,
			(select json_build_object('words', r.words, 'by', case when r.person_id <> $1 then p.name end)
			from reminder r join person p on p.id = r.person_id where r.id = n.reminder_id) as reminds,
		(select b.sprint_name || ' ' || s.number from sprint s where s.board_id = n.board_id and s.ends = n.day and n.card_id is null) as sprint, n.read_at is not null as read, n.away_at is not null as away, n.asks, n.asks and ${OPEN} as open,
		(extract(epoch from n.at) * 1000000)::bigint || '.' || n.id as cursor,
		(select coalesce(json_agg(json_build_object('seq', s.seq, 'kind', e.kind, 'as', n.kinds[s.i], 'card', e.card_id is not null,
				'value', coalesce(said.value, e.value), 'who', p.name, 'initials', p.initials, 'before', e.before, 'after', e.after,
				'comment', said.root, 'unit', case b.unit when 'hours' then ' h' when 'points' then ' points' else '' end) order by s.i), '[]')
			from unnest(n.seqs) with ordinality s(seq, i)
			join event e on e.board_id = n.board_id and e.seq = s.seq
			left join person p on p.id = e.actor_id
			left join lateral (
				select r.root, (
					select case w.kind when 'comment-withdrawn' then '' else w.value end from event w
					where (w.card_id = e.card_id or w.page_id = e.page_id) and w.kind in ('comment-changed', 'comment-withdrawn')
						and (w.after ->> 'of')::bigint = r.root and w.board_id = e.board_id
					order by w.seq desc
					limit 1
				) as value
				from (
					select case e.kind when 'comment' then e.seq when 'comment-changed' then (e.after ->> 'of')::bigint end as root
				) r
				where r.root is not null
			) said on true
			where not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)) as events
	from latest n
	${SEEN}
		and ($2 <> 'asks' or ${OPEN})
	order by n.at desc, n.id desc
	limit $7
	) told on true
	order by told.at desc, told.id desc`,
		[
			person,
			asked.of ?? 'all',
			asked.text?.trim() ?? '',
			asked.moment ?? null,
			asked.id ?? null,
			asked.ids ?? null,
			wanted,
			latest,
		],
		'notices',
	);
	return {
		found: found.flatMap(({ looked: _looked, ...row }) => (row.id === null ? [] : [row])),
		looked: found[0]!.looked,
	};
}

const viewOf = ({ cursor: _cursor, kinds, events, day, sprint, reminds, ...notice }: Row): NoticeView => ({
	...notice,
	kind: events[0]?.as ?? kinds[0]!,
	by: events[0]?.who ? { name: events[0].who, initials: events[0].initials! } : null,
	says: reminds
		? [reminderSentence(reminds.by, reminds.words)]
		: day
			? [daySentence(kinds[0]!, day, sprint)]
			: events.slice(0, TOLD).map(noticeSentence),
	comment: events.find(({ comment }) => comment)?.comment ?? null,
});

/** Some notices of somebody as they stand now: without those of what they may not see any more, and of what counts no more. */
export const noticesById = async (person: string, ids: readonly string[]): Promise<NoticeView[]> =>
	(await noticeRows(person, { ids })).map(viewOf);

/**
 * What somebody is told, the latest first.
 * @param asked of what: with words in the title, the key or the board’s name; all that is not put away, open questions only, or
 *   what is put away; from a place in the list on
 */
export async function noticesPage(
	person: Person,
	asked: { text?: string; of?: NoticesOf; before?: string },
): Promise<NoticesPage> {
	const [, moment, id] = /^(\d+)\.([0-9a-f-]{36})$/.exec(asked.before ?? '') ?? [];
	if (asked.before && !moment)
		throw new Problem(422, 'invalid.before', 'The place from which it goes on is none.', 'before');
	const [found, count, [own], boards] = await Promise.all([
		noticeRows(person.id, { ...asked, moment, id }),
		noticeCount(person),
		rows<{ notices: NoticeChoices; zone: string }>(
			'select notices, time_zone as zone from person where id = $1',
			[person.id],
			'notice-choices',
		),
		rows<NoticesPage['boards'][number]>(
			`select b.id, b.name, w.person_id is not null as watched
			from board b
			join board_right r on r.board_id = b.id and r.person_id = $1
			left join board_watch w on w.board_id = b.id and w.person_id = $1
			where b.away_at is null and (w.person_id is not null or exists (
				select from membership m where m.team_id = b.team_id and m.person_id = $1 and m.left_at is null))
			order by b.position, b.name`,
			[person.id],
			'notice-boards',
		),
	]);
	const shown = found.slice(0, AT_ONCE);
	return {
		notices: shown.map(viewOf),
		today: dayText(zoneOf(own!.zone).day(now().getTime())),
		next: found.length > AT_ONCE ? shown.at(-1)!.cursor : null,
		...count,
		choices: own!.notices,
		mail: mailOn() ? person.email : null,
		boards,
	};
}
