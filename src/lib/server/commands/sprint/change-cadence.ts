import { IsInt, Max, Min } from 'class-validator';
import { zoneOf } from '../../../../core/calendar/zone.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Optional, OrNull } from '../../door/fields.ts';
import { keepAhead } from './keep-ahead.ts';

export class ChangeCadence {
	@Id('board')
	board!: string;

	/** Every how many days a sprint starts; null for a board without sprints. */
	@OrNull()
	@Max(90, { message: 'A sprint may be at most 90 days long.' })
	@Min(1, { message: 'A sprint is at least a day long.' })
	@IsInt({ message: 'The length of a sprint must be a whole number of days.' })
	days!: number | null;

	/** The weekday on which sprints start, 0 for Monday to 6 for Sunday. */
	@Optional()
	@Max(6, { message: 'The weekday is 0 for Monday to 6 for Sunday.' })
	@Min(0, { message: 'The weekday is 0 for Monday to 6 for Sunday.' })
	@IsInt({ message: 'The weekday is 0 for Monday to 6 for Sunday.' })
	weekday?: number;

	/** What a sprint is called on this board. */
	@Optional()
	@Line('The name of a sprint', 40)
	name?: string;
}

export const changeCadence = boardCommand({
	name: 'ChangeCadence',
	summary: 'Says how sprints of a board follow each other; the next ones then exist by themselves.',
	role: 'lead',
	input: ChangeCadence,
	async run(context, input) {
		const { tx, board } = context;
		const [row] = await context.keep('board', { id: board.id });
		await context.keep('sprint', { board_id: board.id });
		const before = row as { sprint_days: number | null; sprint_weekday: number; sprint_name: string };
		const weekday = input.weekday ?? before.sprint_weekday;
		const name = input.name ?? before.sprint_name;
		if (input.days === null && board.runningSprint)
			throw new Problem(
				409,
				'sprint.running',
				`Sprint ${board.runningSprint.number} is running: a board can do without sprints once it is settled.`,
				'days',
			);
		await tx.query('update board set sprint_days = $2, sprint_weekday = $3, sprint_name = $4 where id = $1', [
			board.id,
			input.days,
			weekday,
			name,
		]);
		context.note(
			null,
			'cadence-changed',
			name,
			{ days: before.sprint_days, weekday: before.sprint_weekday, name: before.sprint_name },
			{ days: input.days, weekday, name },
		);
		if (input.days === null) return;
		const today = zoneOf(board.timeZone).day(context.at.getTime());
		const cadence = { days: input.days, weekday };
		// Coming sprints that nobody has touched are laid anew; one with a goal, cards, or anything set by hand stays.
		if (before.sprint_days !== input.days || before.sprint_weekday !== weekday)
			await tx.query(
				`delete from sprint s
				where s.board_id = $1
					and s.number > coalesce((select max(o.number) from sprint o where o.board_id = $1
						and (o.started_at is not null or o.version > 1 or o.goal <> '' or o.focus is not null or o.keep_back is not null
							or exists (select from card c where c.sprint_id = o.id))), 0)`,
				[board.id],
			);
		await keepAhead(context, cadence, await context.sprintRows(), today);
	},
});
