import { dayText } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import type { HomePage } from '../../../core/pages/home.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';

/** One's teams and boards, each with what it asks for today; what is put away is left out. */
export async function homePage(person: Person): Promise<HomePage> {
	const at = now();
	const [found] = await rows<Omit<HomePage, 'today'> & { zone: string }>(
		`with seen as materialized (
			select b.*, r.role, t.name as team_name, m.team_id is not null as mine, (($2::timestamptz) at time zone t.time_zone)::date as today
			from board b
			join team t on t.id = b.team_id and t.away_at is null
			join board_right r on r.board_id = b.id and r.person_id = $1
			left join membership m on m.team_id = b.team_id and m.person_id = $1 and m.left_at is null
			where b.away_at is null
		), asked as (
			select c.board_id, count(*) as open,
				count(*) filter (where c.blocked_since is not null) as blocked,
				count(*) filter (where c.due < s.today) as late
			from card c join seen s on s.id = c.board_id
			where c.archived_at is null and c.clock <> 'done'
			group by 1
		), own as (
			select c.board_id, count(*) as mine
			from card_owner o
			join card c on c.id = o.card_id and c.archived_at is null and c.clock = 'running'
			where o.person_id = $1
			group by 1
		)
		select (select time_zone from person where id = $1) as zone,
			(select coalesce(json_agg(json_build_object('id', t.id, 'name', t.name, 'role', m.role) order by t.name), '[]')
			from membership m join team t on t.id = m.team_id and t.away_at is null
			where m.person_id = $1 and m.left_at is null) as teams,
			(select coalesce(json_agg(json_build_object('name', s.name, 'slug', s.slug, 'key', s.key, 'purpose', s.purpose,
				'role', s.role, 'team', case when s.mine then s.team_id end, 'teamName', s.team_name,
				'sprint', case when p.id is not null then json_build_object('name', s.sprint_name, 'number', p.number, 'ends', p.ends,
					'over', p.ends < s.today) end,
				'blocked', coalesce(a.blocked, 0), 'late', coalesce(a.late, 0), 'mine', coalesce(o.mine, 0), 'open', coalesce(a.open, 0))
				order by s.team_name, s.position, s.name), '[]')
			from seen s
			left join asked a on a.board_id = s.id
			left join own o on o.board_id = s.id
			left join sprint p on p.board_id = s.id and p.started_at is not null and p.closed_at is null) as boards`,
		[person.id, at],
		'home',
	);
	const { zone, ...page } = found!;
	return { today: dayText(zoneOf(zone).day(at.getTime())), ...page };
}
