import type { FaceMore } from '../../../core/pages/board.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';

/** So much of a description stands on a card. */
const FIRST = 240;

/**
 * What the faces of a board's open cards can show beside what its page holds, by the ids of the cards: the first lines of
 * the description, the open lines of the checklist, and who changed it last. Private cards that are not for the person are
 * not among them.
 */
export async function facesOf(person: Person, slug: string): Promise<Record<string, FaceMore>> {
	const [found] = await rows<{ faces: Record<string, FaceMore> }>(
		`select (select coalesce(json_object_agg(c.id, json_build_object(
				'description', left(c.description, ${FIRST}),
				'lines', (select coalesce(json_agg(json_build_object('id', l ->> 'id', 'text', l ->> 'text')), '[]')
					from jsonb_array_elements(c.checklist) l where not (l ->> 'done')::boolean),
				'by', e.who, 'at', e.at)), '{}')
			from card c
			left join lateral (
				select p.name as who, o.at from event o left join person p on p.id = o.actor_id
				where o.card_id = c.id order by o.seq desc limit 1
			) e on true
			where c.board_id = b.id and c.archived_at is null and c.clock <> 'done' and c.column_id is not null
				and may_see(c, $1)) as faces
		from board b
		join board_right r on r.board_id = b.id and r.person_id = $1
		where b.slug = $2`,
		[person.id, slug],
		'faces',
	);
	if (!found) throw notFound('board');
	return found.faces;
}
