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
	), waiting as materialized (
		select l.to_id, array_agg(b.key || '-' || o.number order by b.key, o.number) as waits
		from card_link l
		join card o on o.id = l.from_id
		join board b on b.id = o.board_id
		where l.to_id = any((select ids from shown)::uuid[]) and l.kind = 'blocks' and o.clock <> 'done' and o.archived_at is null
		group by 1
	), hung as materialized (
		select a.card_id, count(*) as files, (array_agg(a.id::text) filter (where a.front))[1] as picture
		from attachment a
		where a.card_id = any((select ids from shown)::uuid[]) and a.removed_at is null
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
		coalesce(waiting.waits, '{}') as waits,
		case when c.reviewer_id is not null then json_build_object('by', c.reviewer_id, 'due', c.review_by) end as review,
		c.percent, coalesce(hung.files, 0) as files, hung.picture, c.private,
		case when c.private then array(select w.person_id::text from watch w where w.card_id = c.id and w.how = 'chosen' order by 1) end as watchers,
		c.let_through as "letThrough", c.archived_at as archived, c.version
	from card c
	left join initiative i on i.id = c.initiative_id
	left join sprint s on s.id = c.sprint_id
	left join owner on owner.card_id = c.id
	left join labelled on labelled.card_id = c.id
	left join part on part.parent_id = c.id
	left join waiting on waiting.to_id = c.id
	left join hung on hung.card_id = c.id
	where c.id = any((select ids from shown)::uuid[])`;
