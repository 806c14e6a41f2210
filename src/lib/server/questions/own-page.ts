import type { BoardHead } from '../../../core/pages/board.ts';
import type { CardEvent } from '../../../core/pages/card.ts';
import type { InitiativePage, OwnPage } from '../../../core/pages/own-page.ts';
import { changedLines } from '../../../core/talk/notes.ts';
import { asSaid } from '../../../core/talk/talk.ts';
import { isId } from '../asked.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import { namedIn } from './named-cards.ts';

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
 * @throws Problem 404 where the board has none of that name
 */
export async function initiativePage(head: BoardHead, named: string): Promise<InitiativePage> {
	const [found] = await rows<Omit<InitiativePage, 'page'>>(
		`select i.id, i.name, i.retired_at is not null as retired, i.budget_hours as hours, i.budget_money as money, i.target::text,
			i.lead_id as lead,
			(select json_build_object('all', count(*), 'done', count(*) filter (where c.clock = 'done')) from card c
			where c.initiative_id = i.id and ${COUNTS}) as cards,
			coalesce((select sum(c."left") from card c where c.initiative_id = i.id and c.clock <> 'done' and ${COUNTS}), 0) as left,
			coalesce((select sum(t.hours) from card c join time_entry t on t.card_id = c.id and t.withdrawn_at is null
				where c.initiative_id = i.id), 0) as worked
		from initiative i
		where i.board_id = $1 and (i.id = $2::uuid or $2 is null and i.name = $3)`,
		[head.id, isId(named) ? named : null, named],
		'initiative-page',
	);
	if (!found) throw notFound('initiative');
	return { ...found, page: await ownPage(head, found.id) };
}

/** Cards that count: parents are the sums of their parts. */
const COUNTS = `c.archived_at is null and not exists (select from card k where k.parent_id = c.id and k.archived_at is null)`;
