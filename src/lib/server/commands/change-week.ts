import { ArrayMaxSize, ArrayMinSize, IsArray, IsNumber, Max, Min } from 'class-validator';
import { teamCommand } from './command.ts';
import { dayField } from './days.ts';
import { DayText, Id } from './fields.ts';
import { leadsOnly, memberOf } from './team.ts';

export class ChangeWeek {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;

	/** The day from which it holds; what was before stays as it was. */
	@DayText('The day')
	from!: string;

	/** Hours on each weekday, Monday first. */
	@Max(24, { each: true, message: 'A day has at most 24 hours.' })
	@Min(0, { each: true, message: 'The hours of a weekday must not be below 0.' })
	@IsNumber(
		{ allowNaN: false, allowInfinity: false, maxDecimalPlaces: 2 },
		{ each: true, message: 'The hours of each weekday must be a number with at most two decimals.' },
	)
	@ArrayMinSize(7, { message: 'A week has seven days, Monday first.' })
	@ArrayMaxSize(7, { message: 'A week has seven days, Monday first.' })
	@IsArray({ message: 'The hours must be a list of seven numbers, Monday first.' })
	hours!: number[];
}

export const changeWeek = teamCommand({
	name: 'ChangeWeek',
	summary: 'Says how many hours a person works on each weekday, from a day on.',
	input: ChangeWeek,
	async run(context, input) {
		leadsOnly(context);
		const person = await memberOf(context, input.person);
		dayField(input.from, 'from', 'The day');
		await context.tx.query(
			`insert into working_week (team_id, person_id, from_day, hours) values ($1, $2, $3, $4)
			on conflict (team_id, person_id, from_day) do update set hours = excluded.hours`,
			[context.team.id, person.id, input.from, input.hours],
		);
		const sum = input.hours.reduce((total, hours) => total + hours, 0);
		context.note(`${person.name} works ${sum} h a week from ${input.from} on.`);
	},
});
