import { dayText, parseDay } from '../../../core/calendar/days.ts';
import type { Day } from '../../../core/calendar/zone.ts';
import type { BookingView, DaysPage } from '../../../core/pages/days.ts';
import { partOf } from '../../../core/people/bookings.ts';
import { useOfPeople, weeksBefore, type Stretch } from '../../../core/people/use.ts';
import { dayAsked } from '../asked.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';
import { peoplePage } from './people.ts';
import { rotaOf } from './rota.ts';
import { TITLE_TO } from './titles.ts';

const SHOWN_DAYS = 30;
const WEEKS = 8;
const MONTHS = 3;

/**
 * Who is where: the people of a team and thirty days.
 * @param from the first day, `2026-11-23`; the Monday of this week where it is left out
 * @throws Problem 404 when there is no such team, or the person is not in it; 422 for what is no day
 */
export async function daysPage(person: Person, team: string, from: string | null): Promise<DaysPage> {
	const people = await peoplePage(person, team);
	const today = parseDay(people.today)!;
	const first = dayAsked(from, 'day') ?? weeksBefore(today, 1)[0]!.to + 1;
	const last = first + SHOWN_DAYS - 1;
	const [weeks, months] = [weeksBefore(today, WEEKS), monthsBefore(today, MONTHS)];
	const [[found], rota] = await Promise.all([
		rows<
			Pick<DaysPage, 'notes' | 'cards' | 'initiatives' | 'sites' | 'agree'> & {
				bookings: (Omit<BookingView, 'part'> & { halves: string })[];
				worked: { person: string; day: string; hours: number }[];
			}
		>(
			`with seen as materialized (
				select b.id, b.slug, b.key from board b join board_right r on r.board_id = b.id and r.person_id = $2
				where b.team_id = $1 and b.away_at is null
			)
			select t.agree_absences as agree,
				(select coalesce(json_agg(json_build_object('id', k.id, 'person', k.person_id, 'day', k.day, 'halves', k.halves::text, 'note', k.note,
					'what', case when k.board_id is not null then 'board' when k.initiative_id is not null then 'initiative' else 'site' end,
					'called', coalesce(
						case when k.board_id in (select id from seen) then b.name when k.board_id is not null then 'another board' end,
						case when i.board_id in (select id from seen) then i.name when i.id is not null then 'an initiative' end, k.site))
					order by k.day, k.halves), '[]')
				from booking k
				left join board b on b.id = k.board_id
				left join initiative i on i.id = k.initiative_id
				where k.team_id = t.id and k.withdrawn_at is null and k.day between $3 and $4) as bookings,
				(select coalesce(json_agg(json_build_object('person', n.person_id, 'monday', n.monday, 'note', n.note)), '[]')
				from week_note n where n.team_id = t.id and n.monday between $3::date - 6 and $4) as notes,
				(select coalesce(json_agg(json_build_object('key', s.key || '-' || c.number, 'title', ${TITLE_TO('$2')}, 'slug', s.slug,
					'number', c.number, 'start', coalesce(c.start, c.due), 'end', coalesce(c.due, c.start),
					'owners', array(select o.person_id::text from card_owner o where o.card_id = c.id)) order by coalesce(c.start, c.due), s.key, c.number), '[]')
				from seen s join card c on c.board_id = s.id
				where coalesce(c.due, c.start) >= $3 and coalesce(c.start, c.due) <= $4 and c.archived_at is null and c.clock <> 'done'
					and exists (select from card_owner o where o.card_id = c.id)) as cards,
				(select coalesce(json_agg(json_build_object('id', i.id, 'name', i.name) order by i.name), '[]')
				from seen s join initiative i on i.board_id = s.id and i.retired_at is null) as initiatives,
				array(select site from (select site, max(day) as day from booking where team_id = t.id and site <> '' group by 1
					order by 2 desc limit 20) x) as sites,
				(select coalesce(json_agg(json_build_object('person', w.person_id, 'day', w.day, 'hours', w.hours)), '[]') from (
					select e.person_id, e.day, sum(e.hours) as hours
					from seen s join card c on c.board_id = s.id join time_entry e on e.card_id = c.id and e.withdrawn_at is null
					where e.day between $5 and $6 group by 1, 2) w) as worked
			from team t where t.id = $1`,
			[
				...[team, person.id, dayText(first), dayText(last)],
				...[dayText(Math.min(weeks[0]!.from, months[0]!.from)), dayText(today)],
			],
			'days-page',
		),
		rotaOf(team),
	]);
	const { bookings, worked, ...rest } = found!;
	const ids = people.people.map(({ id }) => id);
	const by = worked.map((one) => ({ ...one, day: parseDay(one.day)! }));
	const firsts = (stretches: readonly Stretch[]) => stretches.map((one) => dayText(one.from));
	return {
		...people,
		...rest,
		from: dayText(first),
		count: SHOWN_DAYS,
		bookings: bookings.map(({ halves, ...one }) => ({ ...one, part: partOf(halves) })),
		use: {
			weeks: firsts(weeks),
			months: firsts(months),
			byWeek: useOfPeople(rota, ids, by, weeks),
			byMonth: useOfPeople(rota, ids, by, months),
		},
	};
}

/** The last whole months before that of a day, the earliest first. */
function monthsBefore(day: Day, count: number): Stretch[] {
	const [year, month] = dayText(day).split('-').map(Number) as [number, number];
	const first = (back: number) =>
		parseDay(new Date(Date.UTC(year, month - 1 - back, 1)).toISOString().slice(0, 10))!;
	return Array.from({ length: count }, (_, i) => ({ from: first(count - i), to: first(count - i - 1) - 1 }));
}
