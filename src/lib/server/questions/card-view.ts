/**
 * Cards as pages see them, in SQL: the columns of a CardView. What belongs to several of them is read once for all.
 * @param which a query of the ids of those that are meant; it may speak of what stands around it
 */
export const cardViews = (which: string) => `
	with shown as materialized (
		select array(${which}) as ids
	), owner as materialized (
		select o.card_id, array_agg(o.person_id::text order by p.name) as owners
		from card_owner o join person p on p.id = o.person_id
		where o.card_id = any((select ids from shown)::uuid[])
		group by 1
	), labelled as materialized (
		select k.card_id, array_agg(l.name order by l.name) as labels
		from card_label k join label l on l.id = k.label_id
		where k.card_id = any((select ids from shown)::uuid[])
		group by 1
	), part as materialized (
		select p.parent_id, json_build_object('cards', count(*), 'done', count(*) filter (where p.clock = 'done'),
			'size', coalesce(sum(p.size), 0), 'left', sum(p."left")) as parts
		from card p
		where p.parent_id = any((select ids from shown)::uuid[]) and p.archived_at is null
		group by 1
	)
	select c.id, c.number, c.title, c.column_id as column, c.lane_id as lane, c.rank, c.type, c.class, c.size, c."left", c.start, c.due, c.ready,
		c.parent_id as parent, i.name as initiative, coalesce(labelled.labels, '{}') as labels, part.parts,
		case when c.checklist <> '[]' then json_build_object('lines', jsonb_array_length(c.checklist),
			'done', jsonb_array_length(jsonb_path_query_array(c.checklist, '$[*] ? (@.done == true)'))) end as checks,
		c.fields,
		coalesce(owner.owners, '{}') as owners, s.number as sprint, c.unplanned, c.clock,
		c.entered_at as entered, c.started_at as started, c.finished_at as finished,
		case when c.blocked_since is not null then json_build_object('since', c.blocked_since, 'reason', c.blocked_reason,
			'waitingFor', c.waiting_for) end as blocked,
		c.let_through as "letThrough", c.archived_at as archived, c.version
	from card c
	left join initiative i on i.id = c.initiative_id
	left join sprint s on s.id = c.sprint_id
	left join owner on owner.card_id = c.id
	left join labelled on labelled.card_id = c.id
	left join part on part.parent_id = c.id
	where c.id = any((select ids from shown)::uuid[])`;
