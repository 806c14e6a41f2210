import { dayText, parseDay } from '../../../core/calendar/days.ts';
import { weekHours } from '../../../core/capacity/hours.ts';
import { nextSprints, type Cadence } from '../../../core/sprint/cadence.ts';
import { rotaOf } from '../questions/rota.ts';
import type { BoardContext, SprintRow } from './context.ts';

/** So many sprints that have not started are always there. */
const AHEAD = 3;

/** Makes the next sprints by a cadence, until there are enough that have not started. */
export async function keepAhead(
	context: BoardContext,
	cadence: Cadence,
	sprints: readonly SprintRow[],
	today: number,
): Promise<void> {
	const coming = sprints.filter((sprint) => !sprint.started_at).length;
	if (coming >= AHEAD) return;
	const last = [...sprints].sort((a, b) => a.number - b.number).at(-1);
	const rota = await rotaOf(context.board.team);
	const people = [...new Set(rota.weeks.map((week) => week.person))];
	const works = (day: number) => people.some((person) => weekHours(rota, person, day) > 0);
	const made = nextSprints(
		cadence,
		last ? { number: last.number, starts: parseDay(last.starts)!, ends: parseDay(last.ends)! } : null,
		today,
		AHEAD - coming,
		people.length ? works : () => true,
	);
	for (const sprint of made) {
		await context.tx.query('insert into sprint (board_id, number, starts, ends) values ($1, $2, $3, $4)', [
			context.board.id,
			sprint.number,
			dayText(sprint.starts),
			dayText(sprint.ends),
		]);
		context.note(null, 'sprint-added', String(sprint.number));
	}
}
