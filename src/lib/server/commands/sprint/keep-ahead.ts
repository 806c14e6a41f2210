import { dayText, parseDay } from '../../../../core/calendar/days.ts';
import { teamWorks } from '../../../../core/calendar/team-days.ts';
import { nextSprints, type Cadence } from '../../../../core/sprint/cadence.ts';
import { rotaOf } from '../../questions/rota.ts';
import type { BoardContext, SprintRow } from '../../door/contexts.ts';

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
	const made = nextSprints(
		cadence,
		last ? { number: last.number, starts: parseDay(last.starts)!, ends: parseDay(last.ends)! } : null,
		today,
		AHEAD - coming,
		rota.weeks.length ? (day) => teamWorks(rota, day) : () => true,
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
