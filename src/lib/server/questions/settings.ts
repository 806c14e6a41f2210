import type { SetUpPage } from '../../../core/pages/settings.ts';
import { SETTING_EVENTS } from '../../../core/events/kinds.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';

const SHOWN = 40;

/** What is set of the initiatives of board $1, by their names, in SQL. */
export const INITIATIVES = `(select coalesce(json_object_agg(name, json_build_object('hours', budget_hours, 'money', budget_money,
	'target', target, 'lead', lead_id)), '{}')
	from initiative where board_id = $1 and retired_at is null)`;

/** What Set-up shows beside the board itself: names that are retired, and what was changed lately, by whom. */
export async function setUpPage(head: BoardHead, person: Person): Promise<SetUpPage> {
	const [found] = await rows<SetUpPage>(
		`select b.ask_page as "askPage", b.visible_to as "visibleTo", b.changed_by as "changedBy",
			(select coalesce(json_agg(json_build_object('person', person_id, 'changes', changes)), '[]') from board_person where board_id = $1) as named,
			(select coalesce(json_agg(json_build_object('id', id, 'name', name) order by name), '[]')
			from field where board_id = $1 and retired_at is not null) as "retiredFields",
			(select coalesce(json_agg(json_build_object('id', id, 'name', name) order by name), '[]')
			from lane where board_id = $1 and retired_at is not null) as "retiredLanes",
			${INITIATIVES} as initiatives,
			(select coalesce(json_object_agg(k.id, (select count(*) from stay s where s.column_id = k.id)), '{}')
			from board_column k where k.board_id = $1) as stays,
			(select coalesce(json_object_agg(k.id, (select count(*) from card c where c.column_id = k.id and c.archived_at is null)), '{}')
			from board_column k where k.board_id = $1 and k.kind <> 'done' or k.board_id = $1 and k.retired_at is null) as standing,
			(select coalesce(json_object_agg(l.id, (select count(*) from card c join board_column k on k.id = c.column_id and k.kind <> 'done'
				where c.board_id = $1 and c.archived_at is null and (c.class = l.class or l.class is null and c.lane_id = l.id
					and c.class not in (select o.class from lane o where o.board_id = $1 and o.class is not null and o.retired_at is null)))), '{}')
			from lane l where l.board_id = $1) as "inLanes",
			json_build_object(
				'type', (select coalesce(json_object_agg(type, n), '{}') from (
					select type, count(*) as n from card where board_id = $1 and type <> '' group by 1) t),
				'label', (select coalesce(json_object_agg(l.name, n), '{}') from (
					select label_id, count(*) as n from card_label where label_id in (select id from label where board_id = $1) group by 1) c
					join label l on l.id = c.label_id),
				'initiative', (select coalesce(json_object_agg(i.name, n), '{}') from (
					select initiative_id, count(*) as n from card where board_id = $1 and initiative_id is not null group by 1) c
					join initiative i on i.id = c.initiative_id)) as carried,
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
			) c) as changes
		from board b
		where b.id = $1`,
		[head.id, person.id, head.role === 'lead', SETTING_EVENTS, SHOWN],
		'set-up',
	);
	return found!;
}
