import { LRUCache } from 'lru-cache';
import { parseDay } from '../../../core/calendar/days.ts';
import type { Rota } from '../../../core/capacity/hours.ts';
import { rows } from '../database.ts';

/** Of each team what was read last, and what it was made into: the same as long as nothing of it changes. */
const known = new LRUCache<string, { text: string; rota: Rota }>({ max: 200 });

/**
 * How long the people of a team work: their weeks, absences, shares and holidays, with all of the team's boards.
 * @returns the same thing, not one like it, as long as nothing of it has changed: what is computed of it can be remembered
 */
export async function rotaOf(team: string): Promise<Rota> {
	const [found] = await rows<{
		boards: string[];
		weeks: { person: string; from: string; hours: number[] }[];
		absences: { person: string; from: string; to: string; hours: number | null }[];
		shares: { person: string; from: string; boards: Record<string, number> }[];
		members: { person: string; from: string; until: string | null }[];
		holidays: string[];
	}>(
		`select
			array(select id::text from board where team_id = $1 order by position) as boards,
			(select coalesce(json_agg(json_build_object('person', person_id, 'from', from_day, 'hours', hours)), '[]')
			from working_week where team_id = $1) as weeks,
			(select coalesce(json_agg(json_build_object('person', a.person_id, 'from', a.from_day, 'to', a.to_day, 'hours', a.hours)), '[]')
			from absence a
			join membership m on m.person_id = a.person_id and m.team_id = $1
			where a.withdrawn_at is null and not a.waits) as absences,
			(select coalesce(json_agg(json_build_object('person', person_id, 'from', from_day, 'boards', shares)), '[]')
			from board_share where team_id = $1) as shares,
			(select coalesce(json_agg(json_build_object('person', m.person_id, 'from', coalesce(s.from_day, date '1900-01-01'),
				'until', coalesce(s.until_day, (m.left_at at time zone t.time_zone)::date))), '[]')
			from membership m
			join team t on t.id = m.team_id
			left join membership_spell s on s.team_id = m.team_id and s.person_id = m.person_id
			where m.team_id = $1) as members,
			array(select day::text from holiday where team_id = $1 and withdrawn_at is null) as holidays`,
		[team],
		'rota',
	);
	const text = JSON.stringify(found);
	const before = known.get(team);
	if (before?.text === text) return before.rota;
	const { boards, weeks, absences, shares, members, holidays } = found!;
	const day = (text: string) => parseDay(text)!;
	const rota: Rota = {
		boards,
		weeks: weeks.map((week) => ({ ...week, from: day(week.from) })),
		absences: absences.map((absence) => ({ ...absence, from: day(absence.from), to: day(absence.to) })),
		shares: shares.map((share) => ({ ...share, from: day(share.from) })),
		members: members.map((spell) => ({
			...spell,
			from: day(spell.from),
			until: spell.until === null ? null : day(spell.until),
		})),
		holidays: new Set(holidays.map(day)),
	};
	known.set(team, { text, rota });
	return rota;
}
