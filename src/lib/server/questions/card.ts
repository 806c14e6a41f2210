import type { CardPage } from '../../../core/pages/card.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { cardViews } from './card-view.ts';

/**
 * A card with all that happened to it.
 * @param key such as TIDE-214
 * @throws Problem 404 when there is none, or the person may not see its board
 */
export async function cardPage(person: Person, key: string): Promise<CardPage> {
	const parts = /^([A-Z][A-Z0-9]{1,9})-(\d{1,9})$/.exec(key.toUpperCase());
	if (!parts) throw notFound('card');
	const [card] = await rows<CardPage>(
		`select view.*, b.key || '-' || c.number as key, b.slug as board, c.description, c.created_at as created,
			c.archived_reason as "archivedReason", c.checklist,
			(select coalesce(json_agg(json_build_object('kind', l.kind, 'number', o.number, 'title', o.title,
				'done', o.clock = 'done', 'comes', l.to_id = c.id) order by l.kind, o.number), '[]')
			from card_link l
			join card o on o.id = case when l.to_id = c.id then l.from_id else l.to_id end
			where c.id in (l.from_id, l.to_id)) as links,
			(select json_build_object('id', id, 'number', number, 'title', title) from card where id = c.parent_id) as "parentCard",
			(select coalesce(json_agg(json_build_object('id', id, 'number', number, 'title', title, 'size', size, 'left', "left",
				'done', clock = 'done') order by rank, number), '[]')
			from card where parent_id = c.id and archived_at is null) as children,
			(select coalesce(json_agg(json_build_object('id', t.id, 'person', t.person_id, 'day', t.day, 'hours', t.hours, 'note', t.note,
				'billable', t.billable, 'version', t.version) order by t.day desc, t.logged_at desc), '[]')
			from time_entry t
			where t.card_id = c.id and t.withdrawn_at is null) as time,
			(select coalesce(json_agg(json_build_object('seq', e.seq, 'at', e.at, 'kind', e.kind, 'value', e.value, 'who', p.name,
				'before', e.before, 'after', e.after, 'undone', v.seq is not null, 'command', e.command_id) order by e.at, e.seq), '[]')
			from event e
			left join person p on p.id = e.actor_id
			left join event_void v on v.board_id = e.board_id and v.seq = e.seq
			where e.card_id = c.id) as history
		from board b
		join board_right r on r.board_id = b.id and r.person_id = $1
		join card c on c.board_id = b.id and c.number = $3
		cross join lateral (${cardViews('select c.id')}) view
		where b.id = (select board_id from board_key where key = $2)`,
		[person.id, parts[1], parts[2]],
		'card-page',
	);
	if (!card) throw notFound('card');
	return JSON.parse(JSON.stringify(card)) as CardPage;
}
