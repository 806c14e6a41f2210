import type { SetUpPage } from '../../../core/pages/settings.ts';
import { SETTING_EVENTS } from '../../../core/events/kinds.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';

const SHOWN = 40;

/** What Set-up shows beside the board itself: names that are retired, and what was changed lately, by whom. */
export async function setUpPage(head: BoardHead, person: Person): Promise<SetUpPage> {
	const [found] = await rows<SetUpPage>(
		`select
			(select json_build_object(
				'type', (select coalesce(json_agg(name order by name), '[]') from card_type where board_id = $1 and retired_at is not null),
				'label', (select coalesce(json_agg(name order by name), '[]') from label where board_id = $1 and retired_at is not null),
				'initiative', (select coalesce(json_agg(name order by name), '[]') from initiative where board_id = $1 and retired_at is not null))) as retired,
			(select coalesce(json_agg(c), '[]') from (
				select e.seq, e.at, e.kind, e.value, e.before, e.after, p.name as who,
					k.undone_by is not null as undone,
					case when k.person_id = $2 and k.undone_by is null and (k.answer ->> 'undoable')::boolean and not exists (
						select from event o where o.board_id = $1 and o.command_id = k.id and o.seq < e.seq) then k.id end as "takeBack",
					case when $3 and k.name = 'ChangeRate' then json_build_object(
						'before', k.kept -> 0 -> 'before' -> 0 -> 'rate', 'after', k.kept -> 0 -> 'after' -> 0 -> 'rate') end as rate
				from event e
				join command k on k.id = e.command_id
				left join person p on p.id = e.actor_id
				where e.board_id = $1 and e.card_id is null and e.kind = any($4)
				order by e.seq desc
				limit $5
			) c) as changes`,
		[head.id, person.id, head.role === 'lead', SETTING_EVENTS, SHOWN],
		'set-up',
	);
	return found!;
}
