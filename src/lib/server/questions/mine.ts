import { dayText } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { plainWords } from '../../../core/notices/sentence.ts';
import { shownTo } from '../../../core/board/private.ts';
import type { MineCard, MineOf, MinePage, PageQuestion } from '../../../core/pages/mine.ts';
import { withTitle } from '../../../core/words.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { cardViews } from './card-view.ts';

const MOST = 200;
/** What counts as finished lately, and as coming. */
const DAYS_DONE = 14;
const DAYS_AHEAD = 7;

/** Open questions to person $1. */
const ASKED = `select q.card_id, q.board_id, q.seq from question q
	where q.person_id = $1
		and (q.answered_seq is null or exists (select from event_void v where v.board_id = q.board_id and v.seq = q.answered_seq))
		and not exists (select from event_void v where v.board_id = q.board_id and v.seq = q.seq)`;

const OWN = 'select o.card_id from card_owner o where o.person_id = $1';
const OPEN = `c.clock <> 'done'`;

/** Which cards are meant, over `c`; $2 is today. */
const MEANT: Record<MineOf, string> = {
	mine: `${OPEN} and (c.id in (select card_id from (${ASKED}) a)
		or c.id in (${OWN}) and (c.column_id is not null or b.sprint_days is null))`,
	given: `${OPEN} and c.id in (
			select g.card_id from (
				select distinct on (e.card_id) e.card_id, e.actor_id, e.after ->> 'person' as person from event e
				where e.kind = 'owner' and e.card_id in (select g.card_id from event g where g.actor_id = $1 and g.kind = 'owner')
				order by e.card_id, e.seq desc
			) g where g.actor_id = $1 and g.person <> $1::text)
		and c.id not in (${OWN}) and exists (select from card_owner o where o.card_id = c.id)`,
	reviewing: `${OPEN} and c.reviewer_id = $1`,
	watched: `${OPEN} and c.id in (select w.card_id from watch w where w.person_id = $1 and w.how <> 'stopped') and c.id not in (${OWN})`,
	done: `c.clock = 'done' and c.finished_at > $2::date - ${DAYS_DONE} and c.id in (${OWN})`,
	days: `${OPEN} and (c.id in (${OWN}) and c.due <= $2::date + ${DAYS_AHEAD} or c.reviewer_id = $1 and c.review_by <= $2::date + ${DAYS_AHEAD})`,
};
const ORDER: Record<MineOf, string> = {
	mine: `v.started nulls last, s.starts nulls last, b.position, b.name, k.position nulls last, v.rank`,
	given: `v.due nulls last, b.position, v.number`,
	reviewing: `c.review_by nulls last, b.position, v.number`,
	watched: `b.position, k.position nulls last, v.rank`,
	done: `v.finished desc, v.number`,
	days: `least(v.due, c.review_by), b.position, v.number`,
};

interface Row extends Omit<MineCard, 'others'> {
	/** With what they do where somebody else of the team has that name. */
	others: { name: string; title: string | null }[];
}

/** Somebody's cards over all boards that they see: what to do next, or what they asked for beside that. */
export async function minePage(person: Person, of: MineOf): Promise<MinePage> {
	const at = now();
	const [zone] = await rows<{ zone: string }>(
		'select time_zone as zone from person where id = $1',
		[person.id],
		'zone-of',
	);
	const today = dayText(zoneOf(zone!.zone).day(at.getTime()));
	const onPages = of === 'mine' ? askedOnPages(person) : Promise.resolve([]);
	const cards = await rows<Row>(
		`select v.*, b.key || '-' || v.number as key,
			json_build_object('id', b.id, 'slug', b.slug, 'name', b.name, 'unit', b.unit, 'timeZone', t.time_zone, 'role', r.role) as board,
			k.name as place,
			(select json_build_object('id', n.id, 'name', n.name, 'limit', n.wip_limit,
					'standing', (select count(*) from card x where x.column_id = n.id and x.archived_at is null))
				from board_column n
				where n.board_id = b.id and n.retired_at is null and not n.hidden and n.position > coalesce(k.position, -1)
				order by n.position limit 1) as next,
			(select coalesce(json_agg(json_build_object('name', p.name, 'title', case when exists (
						select from membership n join person q on q.id = n.person_id and q.name = p.name
						where n.team_id = b.team_id and n.person_id <> p.id) then m.title end) order by p.name), '[]')
				from card_owner o
				join person p on p.id = o.person_id
				left join membership m on m.team_id = b.team_id and m.person_id = p.id
				where o.card_id = c.id and o.person_id <> $1) as others,
			(select json_build_object('comment', e.seq, 'who', p.name, 'text', coalesce((
					select w.value from event w
					where w.card_id = c.id and w.board_id = e.board_id and w.kind = 'comment-changed' and (w.after ->> 'of')::bigint = e.seq
					order by w.seq desc limit 1), e.value))
				from (${ASKED}) q
				join event e on e.board_id = q.board_id and e.seq = q.seq
				left join person p on p.id = e.actor_id
				where q.card_id = c.id
				order by e.seq desc limit 1) as asked
		from (${cardViews(`
			select c.id from card c
			join board b on b.id = c.board_id and b.away_at is null
			join board_right r on r.board_id = c.board_id and r.person_id = $1
			where $2::date is not null and c.archived_at is null and may_see(c, $1) and ${MEANT[of]}`)}) v
		join card c on c.id = v.id
		join board b on b.id = c.board_id
		join team t on t.id = b.team_id
		join board_right r on r.board_id = b.id and r.person_id = $1
		left join board_column k on k.id = c.column_id
		left join sprint s on s.id = c.sprint_id
		order by ${ORDER[of]}
		limit ${MOST}`,
		[person.id, today],
		`mine-${of}`,
	);
	return {
		of,
		today,
		cards: cards.map((card) => ({
			...(shownTo(card, person.id) as Row),
			others: card.others.map(({ name, title }) => (title ? withTitle(name, title) : name)),
			asked: card.asked && { ...card.asked, text: plainWords(card.asked.text) },
		})),
		asked: await onPages,
	};
}

/** Open questions to somebody on pages of boards that they see, the latest first. */
async function askedOnPages(person: Person): Promise<PageQuestion[]> {
	const found = await rows<PageQuestion>(
		`select json_build_object('id', b.id, 'slug', b.slug, 'name', b.name) as board, i.name as initiative, e.seq as comment,
			p.name as who, coalesce((
				select w.value from event w
				where w.page_id = e.page_id and w.kind = 'comment-changed' and (w.after ->> 'of')::bigint = e.seq
				order by w.seq desc limit 1), e.value) as text
		from question q
		join page g on g.id = q.page_id
		join board b on b.id = q.board_id and b.away_at is null
		join board_right r on r.board_id = b.id and r.person_id = $1
		join event e on e.board_id = q.board_id and e.seq = q.seq
		left join initiative i on i.id = g.initiative_id
		left join person p on p.id = e.actor_id
		where q.person_id = $1 and q.answered_seq is null
		order by e.at desc
		limit ${MOST}`,
		[person.id],
		'mine-on-pages',
	);
	return found.map((one) => ({ ...one, text: plainWords(one.text) }));
}
