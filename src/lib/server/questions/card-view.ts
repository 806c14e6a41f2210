/** The columns of a CardView, over a card `c` and its sprint `s`. */
export const CARD_VIEW = `
	c.id, c.number, c.title, c.column_id as column, c.rank, c.type, c.class, c.size, c."left", c.due,
	array(select o.person_id::text from card_owner o join person p on p.id = o.person_id where o.card_id = c.id order by p.name) as owners,
	s.number as sprint, c.unplanned, c.clock, c.entered_at as entered, c.started_at as started, c.finished_at as finished,
	case when c.blocked_since is not null then json_build_object('since', c.blocked_since, 'reason', c.blocked_reason) end as blocked,
	c.let_through as "letThrough", c.archived_at as archived, c.version`;
