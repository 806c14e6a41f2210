import { rows } from '../database.ts';

export interface DemoPerson {
	id: string;
	name: string;
	initials: string;
	title: string;
	role: string;
}

/** Everyone who can be signed in with one click in demo mode, each once, leads first. */
export function demoPeople(): Promise<DemoPerson[]> {
	return rows<DemoPerson>(
		`select id, name, initials, title, role
		from (
			select distinct on (p.id) p.id, p.name, p.initials, m.title, m.role,
				array_position(array['lead', 'member', 'viewer'], m.role) as place
			from person p
			join membership m on m.person_id = p.id and m.left_at is null
			order by p.id, place, m.title desc
		) one
		order by place, name`,
	);
}
