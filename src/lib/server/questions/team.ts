import { isId } from '../asked.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';

/**
 * The boards of a team that somebody of it may see, and up to which event each is written.
 * @throws Problem 404 when there is no such team, or the person is not in it
 */
export async function teamSeen(person: Person, team: string): Promise<{ id: string; seq: number }[]> {
	if (!isId(team)) throw notFound('team');
	const found = await rows<{ id: string | null; seq: number }>(
		`select b.id, b.last_seq as seq
		from membership me
		left join (board b join board_right r on r.board_id = b.id and r.person_id = $2) on b.team_id = me.team_id and b.away_at is null
		where me.team_id = $1 and me.person_id = $2 and me.left_at is null
		order by b.id`,
		[team, person.id],
		'team-seen',
	);
	if (!found.length) throw notFound('team');
	return found.filter((one): one is { id: string; seq: number } => one.id !== null);
}

export interface TeamOf {
	id: string;
	name: string;
	zone: string;
	currency: string;
	role: 'viewer' | 'member' | 'lead';
	boards: { id: string; name: string; slug: string; key: string; unit: string }[];
	/** Leads and members, those who left since among them. */
	people: { id: string; name: string; title: string; gone: boolean }[];
}

/**
 * A team as its own pages need it.
 * @throws Problem 404 when there is no such team, or the person is not in it
 */
export async function teamOf(person: Person, team: string): Promise<TeamOf> {
	if (!isId(team)) throw notFound('team');
	const [found] = await rows<TeamOf>(
		`select t.id, t.name, t.time_zone as zone, t.currency, me.role,
			(select coalesce(json_agg(json_build_object('id', b.id, 'name', b.name, 'slug', b.slug, 'key', b.key, 'unit', b.unit)
				order by b.position), '[]')
			from board b
			join board_right r on r.board_id = b.id and r.person_id = $2
			where b.team_id = t.id and b.away_at is null) as boards,
			(select coalesce(json_agg(json_build_object('id', p.id, 'name', p.name, 'title', m.title, 'gone', m.left_at is not null) order by p.name), '[]')
			from membership m
			join person p on p.id = m.person_id
			where m.team_id = t.id and m.role <> 'viewer') as people
		from team t
		join membership me on me.team_id = t.id and me.person_id = $2 and me.left_at is null
		where t.id = $1`,
		[team, person.id],
		'team-of',
	);
	if (!found) throw notFound('team');
	return found;
}
