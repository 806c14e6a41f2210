/** The columns of a CardView, over a card `c` and its sprint `s`. */
export const CARD_VIEW = `
	c.id, c.number, c.title, c.column_id as column, c.rank, c.type, c.class, c.size, c."left", c.start, c.due, c.ready, c.parent_id as parent,
	(select name from initiative where id = c.initiative_id) as initiative,
	array(select l.name from card_label k join label l on l.id = k.label_id where k.card_id = c.id order by l.name) as labels,
	(select json_build_object('cards', count(*), 'done', count(*) filter (where p.clock = 'done'),
		'size', coalesce(sum(p.size), 0), 'left', sum(p."left"))
	from card p where p.parent_id = c.id and p.archived_at is null having count(*) > 0) as parts,
	case when c.checklist <> '[]' then json_build_object('lines', jsonb_array_length(c.checklist),
		'done', jsonb_array_length(jsonb_path_query_array(c.checklist, '$[*] ? (@.done == true)'))) end as checks,
	array(select o.person_id::text from card_owner o join person p on p.id = o.person_id where o.card_id = c.id order by p.name) as owners,
	s.number as sprint, c.unplanned, c.clock, c.entered_at as entered, c.started_at as started, c.finished_at as finished,
	case when c.blocked_since is not null then json_build_object('since', c.blocked_since, 'reason', c.blocked_reason, 'waitingFor', c.waiting_for) end as blocked,
	c.let_through as "letThrough", c.archived_at as archived, c.version`;
