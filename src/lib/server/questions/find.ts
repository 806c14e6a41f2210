import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';

export interface Found {
	key: string;
	board: string;
	title: string;
	place: string;
}

/** Cards whose key or title holds the text, those of open work first; at most 12. */
export async function find(person: Person, text: string): Promise<Found[]> {
	const query = text
		.replace(/\0|\p{Surrogate}/gu, '')
		.trim()
		.slice(0, 100);
	if (!query) return [];
	const pattern = `%${query.replace(/[\\%_]/g, '\\$&')}%`;
	return rows<Found>(
		`select b.key || '-' || c.number as key, b.slug as board, c.title,
			case when c.archived_at is not null then 'archived' else coalesce(k.name, 'backlog') end as place
		from card c
		join board b on b.id = c.board_id
		join board_right r on r.board_id = b.id and r.person_id = $1
		left join board_column k on k.id = c.column_id
		where c.title ilike $2 or b.key || '-' || c.number ilike $2
		order by (c.archived_at is not null), (c.clock = 'done'), (c.column_id is null), c.number desc
		limit 12`,
		[person.id, pattern],
		'find',
	);
}
