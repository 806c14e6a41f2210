import { dayText, parseDay } from '../../../core/calendar/days.ts';
import type { Day } from '../../../core/calendar/zone.ts';
import { lateFor, type Before } from '../../../core/dates/milestones.ts';
import type { InitiativeFigures, MilestoneView } from '../../../core/pages/panorama.ts';
import { rows } from '../database.ts';
import { TITLE_TO } from './titles.ts';

/**
 * Milestones of a team that whoever looks may see, the earliest first, with what must be done before each.
 * @param from earlier ones are left out
 */
export function milestonesOf(
	person: string,
	team: string,
	from: Day,
	board: string | null = null,
): Promise<Omit<MilestoneView, 'late'>[]> {
	return rows(
		`select m.id, m.name, m.day::text, m.board_id as board,
			(select coalesce(json_agg(json_build_object('key', b.key || '-' || c.number, 'title', ${TITLE_TO('$1')}, 'due', coalesce(c.due, c.start),
				'done', c.clock = 'done' or c.archived_at is not null) order by b.key, c.number), '[]')
			from milestone_before f
			join card c on c.id = f.card_id
			join board b on b.id = c.board_id
			join board_right r on r.board_id = b.id and r.person_id = $1
			where f.milestone_id = m.id and may_see(c, $1)) as cards,
			array(select f.initiative_id::text from milestone_before f
				join initiative i on i.id = f.initiative_id
				join board_right r on r.board_id = i.board_id and r.person_id = $1
				where f.milestone_id = m.id) as initiatives
		from milestone m
		where m.team_id = $2 and m.withdrawn_at is null and m.day >= $3
			and ($4::uuid is null or m.board_id is null or m.board_id = $4)
			and (m.board_id is null or exists (select from board_right r where r.board_id = m.board_id and r.person_id = $1))
		order by m.day, m.name`,
		[person, team, dayText(from), board],
		'milestones',
	);
}

/** Milestones with what will not be done before them. */
export function withLate(
	milestones: readonly Omit<MilestoneView, 'late'>[],
	initiatives: readonly InitiativeFigures[],
	today: Day,
): MilestoneView[] {
	return milestones.map((one) => {
		const before: Before[] = [
			...one.cards.map(({ key, due, done }) => ({
				what: key,
				done,
				end: due === null ? null : parseDay(due),
			})),
			...one.initiatives.flatMap((id) => {
				const of = initiatives.find((known) => known.id === id);
				const end = of?.doneBy ?? of?.target ?? null;
				const done = of !== undefined && of.cards.all > 0 && of.cards.all === of.cards.done;
				return of ? [{ what: of.name, done, end: end === null ? null : parseDay(end) }] : [];
			}),
		];
		return { ...one, late: lateFor(parseDay(one.day)!, today, before) };
	});
}
