import type { BoardSetUp, Template } from '../../../core/flow/set-up.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';

/** How a board is set up, in SQL over `b`: what a template keeps of it. */
const SET_UP = `json_build_object('unit', b.unit, 'sprintDays', b.sprint_days, 'sprintWeekday', b.sprint_weekday,
	'sprintName', b.sprint_name,
	'columns', (select json_agg(json_build_object('name', k.name, 'kind', k.kind, 'limit', k.wip_limit, 'mode', k.limit_mode,
		'policy', k.policy) order by k.position) from board_column k where k.board_id = b.id and k.retired_at is null),
	'commitment', (select k.name from board_column k where k.board_id = b.id and k.commitment),
	'types', (select coalesce(json_agg(json_build_object('name', t.name, 'checklist', t.checklist, 'size', t.first_size, 'class', t.first_class) order by t.position, t.name), '[]')
		from card_type t where t.board_id = b.id and t.retired_at is null),
	'labels', (select coalesce(json_agg(l.name order by l.name), '[]') from label l where l.board_id = b.id and l.retired_at is null),
	'lanes', (select coalesce(json_agg(json_build_object('name', l.name, 'class', l.class, 'limit', l.wip_limit, 'mode', l.limit_mode)
		order by l.position), '[]') from lane l where l.board_id = b.id and l.retired_at is null),
	'fields', (select coalesce(json_agg(json_build_object('name', f.name, 'kind', f.kind,
		'choices', (select coalesce(json_agg(c ->> 'name' order by n), '[]') from jsonb_array_elements(f.choices) with ordinality e(c, n)))
		order by f.position), '[]') from field f where f.board_id = b.id and f.retired_at is null),
	'lineStates', b.line_states, 'personLimit', b.person_limit, 'personMode', b.person_mode,
	'off', b.off)`;

/** How a board is set up; null when there is none, or the person may not see it. */
export async function setUpOf(person: Person, board: string): Promise<BoardSetUp | null> {
	const [found] = await rows<{ set_up: BoardSetUp }>(
		`select ${SET_UP} as set_up
		from board b join board_right r on r.board_id = b.id and r.person_id = $2
		where b.id = $1`,
		[board, person.id],
	);
	return found?.set_up ?? null;
}

/** The templates that a team has kept of its own boards, by name; none for people outside of it. */
export function templatesOf(person: Person, team: string): Promise<Template[]> {
	return rows<Template>(
		`select t.id, t.name, t.sentence, t.document as "setUp"
		from template t
		join membership m on m.team_id = t.team_id and m.person_id = $2 and m.left_at is null
		where t.team_id = $1 and t.retired_at is null
		order by t.name`,
		[team, person.id],
	);
}
