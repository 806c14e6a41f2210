import type { TeamPage } from '../../../core/pages/people.ts';
import { isId } from '../asked.ts';
import { TITLE_TO } from './titles.ts';
import { rows } from '../database.ts';
import { mailOn } from '../mail/settings.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { invitationsOf } from './invitations.ts';

/**
 * A team's own page: who is in it and what they may do, who is invited, its boards.
 * @throws Problem 404 when there is no such team, or the person is not in it
 */
export async function teamPage(person: Person, team: string): Promise<TeamPage> {
	if (!isId(team)) throw notFound('team');
	const [[found], invitations] = await Promise.all([
		rows<Omit<TeamPage, 'invitations' | 'me' | 'mail'>>(
			`with open as (
				select o.person_id, json_agg(json_build_object('key', b.key || '-' || c.number, 'title', ${TITLE_TO('$2')}, 'slug', b.slug,
					'number', c.number) order by b.position, c.number) as cards
				from board b
				join board_right r on r.board_id = b.id and r.person_id = $2
				join card c on c.board_id = b.id and c.archived_at is null and c.clock <> 'done'
					and (c.column_id is not null or c.sprint_id is not null)
				join card_owner o on o.card_id = c.id
				where b.team_id = $1
				group by 1
			)
			select t.id, t.name, t.time_zone as "timeZone", t.week, t.stages, t.away_at is not null as away, me.role,
				(select json_agg(json_build_object('id', p.id, 'name', p.name, 'initials', p.initials,
					'email', case when me.role = 'lead' or p.id = $2 then p.email else '' end,
					'role', m.role, 'title', m.title, 'gone', m.left_at is not null, 'cards', coalesce(open.cards, '[]')) order by p.name)
				from membership m
				join person p on p.id = m.person_id
				left join open on open.person_id = p.id
				where m.team_id = t.id) as people,
				(select coalesce(json_agg(json_build_object('id', b.id, 'name', b.name, 'slug', b.slug, 'key', b.key,
					'away', b.away_at is not null) order by b.away_at nulls first, b.position, b.name), '[]')
				from board b
				join board_right r on r.board_id = b.id and r.person_id = $2
				where b.team_id = t.id) as boards
			from team t
			join membership me on me.team_id = t.id and me.person_id = $2 and me.left_at is null
			where t.id = $1`,
			[team, person.id],
			'team-page',
		),
		invitationsOf(person, team),
	]);
	if (!found) throw notFound('team');
	return { ...found, me: person.id, invitations, mail: mailOn() };
}
