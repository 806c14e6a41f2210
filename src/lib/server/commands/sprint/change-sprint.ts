import { IsBoolean, IsString, MaxLength } from 'class-validator';
import { dayText, parseDay } from '../../../../core/calendar/days.ts';
import { moveSprint } from '../../../../core/sprint/cadence.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Id, Optional, OrNull, Share, SprintNumber, Version } from '../../door/fields.ts';

export class ChangeSprint {
	@Id('board')
	board!: string;

	@SprintNumber()
	sprint!: number;

	@Version()
	version!: number;

	@Optional()
	@MaxLength(500, { message: 'The goal may have at most 500 characters.' })
	@IsString({ message: 'The goal must be text.' })
	goal?: string;

	@Optional()
	@DayText('The start')
	starts?: string;

	@Optional()
	@DayText('The end')
	ends?: string;

	/** Whether later sprints follow by as many days. */
	@Optional()
	@IsBoolean({ message: 'Later sprints follow or not: true or false.' })
	follow?: boolean;

	/** The focus for this sprint; null to use what was learned. */
	@Optional()
	@OrNull()
	@Share('The focus')
	focus?: number | null;

	/** The keep-back for this sprint; null to use what was learned. */
	@Optional()
	@OrNull()
	@Share('The keep-back')
	keepBack?: number | null;
}

export const changeSprint = boardCommand({
	name: 'ChangeSprint',
	summary: 'Changes the goal, the dates, the focus or the keep-back of a sprint that is not closed.',
	role: 'lead',
	input: ChangeSprint,
	async run(context, input) {
		const sprint = await context.sprint(input.sprint, input.version);
		if (sprint.closed_at)
			throw new Problem(
				409,
				'sprint.closed',
				`Sprint ${sprint.number} is closed and stays as it was.`,
				'sprint',
			);
		const { focus = sprint.focus, keepBack = sprint.keep_back, goal = sprint.goal } = input;
		if (sprint.started_at && (focus !== sprint.focus || keepBack !== sprint.keep_back))
			throw new Problem(
				409,
				'sprint.frozen',
				`Sprint ${sprint.number} has started: its focus and keep-back are frozen.`,
				focus !== sprint.focus ? 'focus' : 'keepBack',
			);
		if (focus !== null && focus <= 0)
			throw new Problem(422, 'invalid.focus', 'The focus must be above 0.', 'focus');
		if (keepBack !== null && keepBack >= 1)
			throw new Problem(422, 'invalid.keepBack', 'The keep-back must be below 1.', 'keepBack');
		if (goal.trim() !== sprint.goal)
			context.note(null, 'sprint-goal', String(sprint.number), { goal: sprint.goal }, { goal: goal.trim() });
		if (focus !== sprint.focus || keepBack !== sprint.keep_back)
			context.note(
				null,
				'sprint-hours',
				String(sprint.number),
				{ focus: sprint.focus, keepBack: sprint.keep_back },
				{ focus, keepBack },
			);
		await context.tx.query(
			'update sprint set goal = $2, focus = $3, keep_back = $4, version = version + 1 where id = $1',
			[sprint.id, goal.trim(), focus, keepBack],
		);
		const starts = input.starts ?? sprint.starts;
		const ends = input.ends ?? sprint.ends;
		if (starts === sprint.starts && ends === sprint.ends) return;
		const all = await context.sprintRows();
		const result = moveSprint(
			all.map((one) => ({
				number: one.number,
				starts: parseDay(one.starts)!,
				ends: parseDay(one.ends)!,
				started: one.started_at !== null,
			})),
			sprint.number,
			dayField(starts, 'starts', 'The start'),
			dayField(ends, 'ends', 'The end'),
			input.follow ?? false,
		);
		if (!result.ok) {
			const { code, sentence, field } = result.problem;
			throw new Problem(422, code, sentence, field);
		}
		for (const moved of result.moved) {
			const old = all.find((one) => one.number === moved.number)!;
			if (old.id !== sprint.id) await context.keep('sprint', { id: old.id });
			context.note(
				null,
				'sprint-moved',
				String(moved.number),
				{ starts: old.starts, ends: old.ends },
				{ starts: dayText(moved.starts), ends: dayText(moved.ends) },
			);
		}
		await context.tx.query(
			`update sprint s
			set starts = m.starts, ends = m.ends, version = s.version + (s.id <> $3)::int
			from jsonb_to_recordset($2) as m(number integer, starts date, ends date)
			where s.board_id = $1 and s.number = m.number`,
			[
				context.board.id,
				JSON.stringify(
					result.moved.map((one) => ({
						number: one.number,
						starts: dayText(one.starts),
						ends: dayText(one.ends),
					})),
				),
				sprint.id,
			],
		);
	},
});
