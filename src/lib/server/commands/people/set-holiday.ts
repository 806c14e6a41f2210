import { dayWords } from '../../../../core/calendar/day-words.ts';
import { IsBoolean, IsString, MaxLength } from 'class-validator';
import { Problem } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Id, Optional } from '../../door/fields.ts';

export class SetHoliday {
	@Id('team')
	team!: string;

	@DayText('The day')
	day!: string;

	@Optional()
	@MaxLength(80, { message: 'The name may have at most 80 characters.' })
	@IsString({ message: 'The name must be text.' })
	name?: string;

	/** Whether it is a holiday. */
	@IsBoolean({ message: 'A day is a holiday or not: true or false.' })
	holiday!: boolean;
}

export const setHoliday = teamCommand({
	name: 'SetHoliday',
	summary: 'Makes a day a holiday of the team, or a usual day again.',
	input: SetHoliday,
	role: 'lead',
	async run(context, input) {
		dayField(input.day, 'day', 'The day');
		const [before] = await context.keep('holiday', { team_id: context.team.id, day: input.day });
		const was = before && !before.withdrawn_at ? { holiday: before.name } : { holiday: null };
		if (input.holiday) {
			await context.tx.query(
				`insert into holiday (team_id, day, name) values ($1, $2, $3)
				on conflict (team_id, day) do update set name = excluded.name, withdrawn_at = null`,
				[context.team.id, input.day, input.name?.trim() || 'Holiday'],
			);
			const name = input.name?.trim() || 'Holiday';
			context.note(`${dayWords(input.day)} is a holiday: ${name}.`, was, { holiday: name });
			return;
		}
		const { rowCount } = await context.tx.query(
			'update holiday set withdrawn_at = $3 where team_id = $1 and day = $2 and withdrawn_at is null',
			[context.team.id, input.day, context.at],
		);
		if (!rowCount) throw new Problem(409, 'holiday.none', `${dayWords(input.day)} is no holiday.`, 'day');
		context.note(`${dayWords(input.day)} is a usual day again.`, was, { holiday: null });
	},
});
