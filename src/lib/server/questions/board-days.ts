import type { BoardDays } from '../../../core/pages/board.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { dayText, mondayOf, parseDay } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { daysAway } from '../../../core/capacity/hours.ts';
import { now } from '../time.ts';
import { workersOf } from './promise.ts';
import { milestonesOf } from './milestones.ts';
import { rotaOf } from './rota.ts';

const WEEKS = 6;

/** Six weeks around a month (`2026-11`; this one where that is none): holidays of the team, and who is away. */
export async function boardDays(head: BoardHead, month: string | null): Promise<BoardDays> {
	const today = zoneOf(head.timeZone).day(now().getTime());
	const wanted = month && /^\d{4}-\d{2}$/.test(month) ? parseDay(`${month}-01`) : null;
	const first = wanted ?? parseDay(`${dayText(today).slice(0, 7)}-01`)!;
	const from = mondayOf(first);
	const to = from + WEEKS * 7 - 1;
	const [rota, milestones] = await Promise.all([
		rotaOf(head.teamId),
		milestonesOf(head.me, head.teamId, from, head.id),
	]);
	return {
		month: dayText(first).slice(0, 7),
		from: dayText(from),
		weeks: WEEKS,
		milestones: milestones.flatMap(({ id, day, name }) => (parseDay(day)! <= to ? [{ id, day, name }] : [])),
		holidays: [...rota.holidays].filter((day) => day >= from && day <= to).map(dayText),
		away: workersOf(head).flatMap(({ id }) =>
			daysAway(rota, id, from, to).map((day) => ({ person: id, day: dayText(day) })),
		),
	};
}
