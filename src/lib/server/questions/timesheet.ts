import type { TimesheetPage, TimesheetRow } from '../../../core/pages/account.ts';
import { dayText, mondayOf } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { hoursOn } from '../../../core/capacity/hours.ts';
import { dayWithin } from '../asked.ts';
import { TITLE_TO } from './titles.ts';
import { rows } from '../database.ts';
import { Problem } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { rotaOf } from './rota.ts';
import { teamOf } from './team.ts';

/**
 * A person's week: what they logged, by card and day, and the cards in their hands to log on.
 * @param asked a day of the week, and whose it is; this week and one's own unless given
 * @throws Problem 403 when a member asks for somebody else's
 */
export async function timesheetPage(
	person: Person,
	team: string,
	asked: { week: string | null; person: string | null },
): Promise<TimesheetPage> {
	const about = await teamOf(person, team);
	const today = zoneOf(about.zone).day(now().getTime());
	const monday = mondayOf((asked.week && dayWithin(asked.week)) || today);
	const whose = about.people.find((one) => one.id === asked.person)?.id ?? person.id;
	if (whose !== person.id && about.role !== 'lead')
		throw new Problem(403, 'right.missing', 'Only a lead looks at somebody else’s timesheet.', 'person');
	const [found, rota] = await Promise.all([
		rows<TimesheetRow>(
			`with seen as (
				select c.id, b.key || '-' || c.number as key, b.slug, ${TITLE_TO('$2')} as title, c.clock = 'done' as done, b.position, c.number,
					c.clock = 'running' or (s.started_at is not null and s.closed_at is null and c.clock <> 'done') as open
				from card c
				join board b on b.id = c.board_id and b.team_id = $1
				join board_right r on r.board_id = b.id and r.person_id = $2
				left join sprint s on s.id = c.sprint_id
				where c.id in (
					select card_id from time_entry where person_id = $3 and day between $4 and $5 and withdrawn_at is null
					union
					select o.card_id from card_owner o
					join card own on own.id = o.card_id and own.archived_at is null and own.clock <> 'done'
					where o.person_id = $3
				)
			), logged as (
				select t.card_id, json_agg(json_build_object('id', t.id, 'day', t.day, 'hours', t.hours, 'note', t.note,
					'billable', t.billable, 'version', t.version) order by t.day, t.logged_at) as entries
				from time_entry t
				where t.person_id = $3 and t.day between $4 and $5 and t.withdrawn_at is null
				group by 1
			)
			select s.id as card, s.key, s.slug, s.title, s.done, coalesce(l.entries, '[]') as entries
			from seen s
			left join logged l on l.card_id = s.id
			where s.open or l.card_id is not null
			order by s.position, s.number`,
			[team, person.id, whose, dayText(monday), dayText(monday + 6)],
			'timesheet',
		),
		rotaOf(team),
	]);
	return {
		team: about,
		role: about.role,
		me: person.id,
		today: dayText(today),
		monday: dayText(monday),
		person: whose,
		people: about.people.filter((one) => !one.gone).map(({ id, name }) => ({ id, name })),
		hours: Array.from({ length: 7 }, (_, i) => hoursOn(rota, whose, monday + i)),
		rows: found,
	};
}
