import type { BoardHead } from '../../../core/pages/board.ts';
import type { ReportPage } from '../../../core/pages/look-back.ts';
import { rows } from '../database.ts';

/** An action `a` of a retrospective `r` as a page shows it to person $2. */
export const ACTION = `json_build_object('id', a.id, 'version', a.version, 'words', a.words, 'due', a.due, 'of', r.number,
	'owner', (select json_build_object('id', p.id, 'name', p.name, 'initials', p.initials) from person p where p.id = a.owner_id),
	'carded', a.card_id is not null,
	'card', (select json_build_object('key', b.key || '-' || c.number, 'title', c.title, 'stands',
			case when c.archived_at is not null then 'archived' else coalesce(k.name, 'in the backlog') end)
		from card c join board b on b.id = c.board_id left join board_column k on k.id = c.column_id
		join board_right br on br.board_id = b.id and br.person_id = $2
		where c.id = a.card_id and may_see(c, $2)),
	'done', case when a.card_id is null then a.done_at is not null
		else (select c.clock = 'done' from card c where c.id = a.card_id) end)`;

/** What was agreed in the retrospective of a sprint; null where none was held. */
export async function agreedOf(head: BoardHead, sprint: number): Promise<ReportPage['retrospective']> {
	const [found] = await rows<NonNullable<ReportPage['retrospective']>>(
		`select r.number, (
				select coalesce(json_agg(${ACTION} order by a.position), '[]')
				from retro_action a where a.retrospective_id = r.id and a.withdrawn_at is null
			) as actions
		from retrospective r join sprint s on s.id = r.sprint_id
		where r.board_id = $1 and s.number = $3 and $2::uuid is not null`,
		[head.id, head.me, sprint],
		'agreed',
	);
	return found ?? null;
}
