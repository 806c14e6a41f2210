import type { CardPage } from '../../../core/pages/card.ts';
import { asSaid } from '../../../core/talk/talk.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { TITLE_TO } from './titles.ts';
import { cardViews } from './card-view.ts';
import { namedIn } from './named-cards.ts';

/**
 * A card with all that happened to it. One that was moved to another board is read there, as far as the person may see it.
 * @param key such as TIDE-214
 * @throws Problem 404 when there is none, or the person may not see its board
 */
export async function cardPage(person: Person, key: string): Promise<CardPage> {
	const parts = /^([A-Z][A-Z0-9]{1,9})-(\d{1,9})$/.exec(key.toUpperCase());
	if (!parts) throw notFound('card');
	const [card] = await rows<CardPage>(
		`select view.*, b.key || '-' || c.number as key, b.slug as board, c.description, c.created_at as created,
			c.archived_reason as "archivedReason", c.checklist,
			(select coalesce(json_agg(json_build_object('kind', l.kind, 'board', k.slug, 'key', case when may_see(o, $1) and o.board_id in
					(select board_id from board_right where person_id = $1) then k.key || '-' || o.number end,
				'title', case when o.board_id in (select board_id from board_right where person_id = $1) then ${TITLE_TO('$1', 'o')}
					else 'Something you may not see' end,
				'done', o.clock = 'done', 'archived', o.archived_at is not null, 'blocked', o.blocked_since is not null,
				'place', coalesce(p.name, 'the backlog'), 'comes', l.to_id = c.id) order by l.kind, k.key, o.number), '[]')
			from card_link l
			join card o on o.id = case when l.to_id = c.id then l.from_id else l.to_id end
			join board k on k.id = o.board_id
			left join board_column p on p.id = o.column_id
			where c.id in (l.from_id, l.to_id)) as links,
			(select json_build_object('id', o.id, 'number', o.number, 'title', ${TITLE_TO('$1', 'o')}) from card o where o.id = c.parent_id) as "parentCard",
			(select coalesce(json_agg(json_build_object('id', o.id, 'number', o.number, 'title', ${TITLE_TO('$1', 'o')}, 'size', o.size, 'left', o."left",
				'done', o.clock = 'done', 'column', o.column_id, 'version', o.version,
				'owners', array(select w.person_id::text from card_owner w where w.card_id = o.id)) order by o.rank, o.number), '[]')
			from card o where o.parent_id = c.id and o.archived_at is null) as children,
			(select coalesce(json_agg(json_build_object('id', a.id, 'name', a.name, 'media', b.media, 'bytes', b.bytes, 'front', a.front,
				'by', p.name, 'at', a.at) order by a.front desc, a.at, a.name), '[]')
			from attachment a join blob b on b.sha256 = a.sha256 join person p on p.id = a.person_id
			where a.card_id = c.id and a.removed_at is null) as attachments,
			(select coalesce(json_agg(json_build_object('id', r.id, 'owners', r.owners, 'words', r.words, 'at', r.at, 'before', r.before,
				'days', r.days, 'hour', r.hour, 'moment', reminder_moment(r, c, t.time_zone)) order by r.made_at), '[]')
			from reminder r join team t on t.id = b.team_id
			where r.card_id = c.id and r.person_id = $1 and r.dropped_at is null
				and (r.told is null or r.told < reminder_moment(r, c, t.time_zone))) as reminders,
			(select p.name from person p where p.id = c.asker_id and not c.private) as asker,
			told.ids as told, $1 = any(told.ids) as watching,
			(select coalesce(json_agg(json_build_object('id', t.id, 'card', t.card_id, 'person', t.person_id, 'day', t.day, 'hours', t.hours, 'note', t.note,
				'billable', t.billable, 'version', t.version) order by t.day desc, t.logged_at desc), '[]')
			from time_entry t
			where t.card_id = any(once.ids) and t.withdrawn_at is null) as time,
			(select coalesce(json_agg(json_build_object('seq', e.seq, 'at', e.at, 'kind', e.kind, 'value', e.value, 'who', p.name,
				'before', e.before, 'after', e.after, 'undone', v.seq is not null, 'command', e.command_id, 'by', e.actor_id,
				'old', e.board_id <> c.board_id) order by e.at, e.seq), '[]')
			from event e
			left join person p on p.id = e.actor_id
			left join event_void v on v.board_id = e.board_id and v.seq = e.seq
			where e.card_id = any(once.ids)) as history
		from (
			with recursive way(id, to_id, n) as (
				select id, moved_to, 0 from card
				where board_id = (select board_id from board_key where key = $2) and number = $3
				union all
				select n.id, n.moved_to, w.n + 1 from way w join card n on n.id = w.to_id
			)
			select w.id from way w
			join card c on c.id = w.id
			join board_right r on r.board_id = c.board_id and r.person_id = $1
			where may_see(c, $1)
			order by n desc
			limit 1
		) meant
		join card c on c.id = meant.id
		join board b on b.id = c.board_id
		cross join lateral (${cardViews('select c.id')}) view
		cross join lateral (
			with recursive back(id) as (
				select c.id
				union all
				select p.id from back join card p on p.moved_to = back.id
			)
			select array_agg(id) as ids from back
		) once
		cross join lateral (
			select coalesce(array_agg(w.id), '{}') as ids
			from (
				select person_id as id from card_owner where card_id = c.id
				union
				select c.reviewer_id where c.reviewer_id is not null
				union
				select person_id from watch where card_id = c.id
			) w
			where not exists (select from watch s where s.card_id = c.id and s.person_id = w.id and s.how = 'stopped') and may_see(c, w.id)
		) told`,
		[person.id, parts[1], parts[2]],
		'card-page',
	);
	if (!card) throw notFound('card');
	const whole = JSON.parse(JSON.stringify(card)) as CardPage;
	const history = asSaid(whole.history);
	const said = history.flatMap(({ kind, value }) => (kind.startsWith('comment') ? value : ''));
	return { ...whole, history, named: await namedIn(person.id, [whole.description, ...said].join('\n')) };
}
