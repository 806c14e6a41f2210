import type { Telling } from '../../../core/events/event.ts';
import { BOARD_EVENTS } from '../../../core/events/board-events.ts';
import { CARD_EVENTS } from '../../../core/events/card-events.ts';
import type { BoardEventName, CardEventName } from '../../../core/events/kinds.ts';
import { NOTICE_KINDS } from '../../../core/notices/kinds.ts';
import { gatherSeconds, NEW_SECRET, queueLetter } from '../mail/post.ts';
import { mailOn } from '../mail/settings.ts';
import type { BoardContext } from './contexts.ts';

/** An event that a command writes. */
export interface Written {
	seq: number;
	card: string | null;
	/** The page on which it happened. */
	page: string | null;
	kind: CardEventName | BoardEventName;
	value: string;
	after: unknown;
}

/** At most so many events of one notice are told one by one. */
const MOST_TOLD = 20;

const WAYS = Object.fromEntries(Object.entries(NOTICE_KINDS).map(([kind, { way }]) => [kind, way]));

/**
 * Tells people of what a command has done, in its own transaction: whom each event concerns stands with its kind. Nobody
 * is told of what they did themselves, of what they may not see, or of what they do not want to be told. What happens to a
 * card while its notice is unread joins that notice; a question stands by itself.
 */
export async function tellPeople(context: BoardContext, events: readonly Written[]): Promise<void> {
	const { tx, board, person, at } = context;
	const done = new Set(board.columns.filter(({ kind }) => kind === 'done').map(({ name }) => name));
	// Of a whole sprint one thing is told; what that does to each card the board shows.
	const whole = events.some(
		(event) => event.card === null && event.page === null && tellingsOf(event, false).length,
	);
	const news = events
		.filter((event) => !whole || event.card === null)
		.flatMap((event) =>
			tellingsOf(event, done.has(event.value)).map(({ as, to }, rank) => ({
				...{ card: event.card, page: event.page, seq: event.seq, as, rank },
				to: typeof to === 'string' ? to : 'named',
				people: typeof to === 'string' ? [] : named(event.after, to.named),
			})),
		);
	const parts = events.flatMap(({ kind, card, page, seq, after }) =>
		kind === 'created' || kind === 'comment' ? [{ card, page, seq, asks: named(after, 'asks') }] : [],
	);
	if (parts.length)
		await tx.query({
			name: 'took-part',
			text: `with part as (
					select * from jsonb_to_recordset($1) n(card uuid, page uuid, seq bigint, asks uuid[])
				), watched as (
					insert into watch (card_id, person_id, how) select distinct card, $2::uuid, 'took-part' from part where card is not null
					on conflict do nothing
				), watched_page as (
					insert into page_watch (page_id, person_id, how) select distinct page, $2::uuid, 'took-part' from part where page is not null
					on conflict do nothing
				)
				insert into question (board_id, seq, card_id, page_id, person_id)
				select $3, part.seq, part.card, part.page, p from part, unnest(part.asks) p
				on conflict do nothing`,
			values: [JSON.stringify(parts), person.id, board.id],
		});
	if (!news.length) return;
	await tx.query({
		name: 'tell-people',
		text: `with news as materialized (
				select * from jsonb_to_recordset($1) n(card uuid, page uuid, seq bigint, "as" text, rank integer, "to" text, people uuid[])
			), meant as (
				select n.*, p as person from news n, unnest(n.people) p
				union all
				select n.*, w.person_id from news n join watch w on w.card_id = n.card and w.how <> 'stopped' where n."to" = 'watchers'
				union all
				select n.*, o.person_id from news n join card_owner o on o.card_id = n.card where n."to" = 'watchers'
				union all
				select n.*, c.reviewer_id from news n join card c on c.id = n.card where n."to" = 'watchers' and c.reviewer_id is not null
				union all
				select n.*, w.person_id from news n
				join card c on c.id = n.card
				join page g on g.initiative_id = c.initiative_id
				join page_watch w on w.page_id = g.id and w.how = 'chosen'
				where n."to" = 'watchers'
				union all
				select n.*, w.person_id from news n join board_watch w on w.board_id = $2 where n."to" in ('watchers', 'team', 'page')
				union all
				select n.*, w.person_id from news n join page_watch w on w.page_id = n.page and w.how <> 'stopped' where n."to" = 'page'
				union all
				select n.*, i.lead_id from news n join page g on g.id = n.page join initiative i on i.id = g.initiative_id
				where n."to" = 'page' and i.lead_id is not null
				union all
				select n.*, m.person_id from news n join membership m on m.team_id = $3 and m.left_at is null and m.role = 'lead'
				where n."to" = 'leads'
				union all
				select n.*, g.actor_id from news n, lateral (
					select e.actor_id from event e where e.card_id = n.card and e.kind = 'owner' order by e.seq desc limit 1
				) g where n."to" = 'giver'
				union all
				select n.*, o.person_id from news n
				join card_link l on l.from_id = n.card and l.kind = 'blocks'
				join card_owner o on o.card_id = l.to_id
				where n."to" = 'waiting'
				union all
				select n.*, m.person_id from news n join membership m on m.team_id = $3 and m.left_at is null and m.role <> 'viewer'
				where n."to" = 'team'
			), first as (
				select distinct on (person, card, page, seq) m.* from meant m
				where m.person <> $4
					and not ("to" in ('watchers', 'team')
						and exists (select from watch s where s.card_id = m.card and s.person_id = m.person and s.how = 'stopped'))
					and not ("to" = 'page'
						and exists (select from page_watch s where s.page_id = m.page and s.person_id = m.person and s.how = 'stopped'))
				order by person, card, page, seq, rank
			), told as (
				select f.*, way from first f
				join person p on p.id = f.person
				left join board_right r on r.board_id = $2 and r.person_id = f.person
				left join card c on c.id = f.card
				cross join lateral coalesce(p.notices #>> array['boards', $2::text, f."as"], p.notices #>> array['boards', $2::text, 'all'],
					p.notices #>> array['kinds', f."as"], $5::jsonb ->> f."as") way
				where (r.person_id is not null or c.asker_id = f.person and not c.private) and (c.id is null or may_see(c, f.person)) and way <> 'none'
			), made as (
				insert into notice (person_id, board_id, card_id, page_id, seqs, kinds, times, asks, at)
				select person, $2, card, page, (array_agg(seq order by seq desc))[:${MOST_TOLD}], (array_agg("as" order by seq desc))[:${MOST_TOLD}],
					count(*), "as" = 'asked', $6
				from told
				group by person, card, page, "as" = 'asked'
				on conflict (person_id, board_id, card_id, page_id) where read_at is null and away_at is null and not asks and day is null do update
				set seqs = (excluded.seqs || notice.seqs)[:${MOST_TOLD}], kinds = (excluded.kinds || notice.kinds)[:${MOST_TOLD}],
					times = notice.times + excluded.times, at = excluded.at
				returning id, person_id, card_id, page_id, asks
			), posted as (
				insert into mail (kind, person_id, notices, secret, made_at)
				select 'notice', m.person_id, array[m.id], ${NEW_SECRET}, $6
				from made m
				where $7 and exists (
					select from told t
					where t.person = m.person_id and t.card is not distinct from m.card_id and t.page is not distinct from m.page_id and (t."as" = 'asked') = m.asks and t.way = 'mail')
				on conflict ((notices[1])) where kind = 'notice' and sent_at is null and dropped_at is null do nothing
				returning id
			), queued as materialized (select ${queueLetter('$8::double precision')} from posted)
			select pg_notify('harrow', 'notice ' || person_id) from (select distinct person_id from made) p, (select count(*) from queued) q`,
		values: [
			JSON.stringify(news),
			board.id,
			board.team,
			person.id,
			JSON.stringify(WAYS),
			at,
			mailOn(),
			gatherSeconds(),
		],
	});
}

function tellingsOf({ card, kind }: Written, done: boolean): readonly Telling[] {
	if (card === null)
		return (BOARD_EVENTS[kind as BoardEventName] as { tells?: readonly Telling[] }).tells ?? [];
	return CARD_EVENTS[kind as CardEventName].tells(done);
}

/** Ids of people that an event keeps under a name: one, or a list of them. */
function named(after: unknown, key: string): string[] {
	const held = (after as Record<string, unknown> | null)?.[key];
	return (Array.isArray(held) ? held : [held]).filter((one): one is string => typeof one === 'string');
}
