import { dayWords } from '../../../../core/calendar/day-words.ts';
import { fsum } from 'd3-array';
import { teamCommand } from '../../door/command.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Id, Week } from '../../door/fields.ts';
import { memberOf } from './member-of.ts';

export class ChangeWeek {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;

	/** The day from which it holds; what was before stays as it was. */
	@DayText('The day')
	from!: string;

	/** Hours on each weekday, Monday first. */
	@Week()
	hours!: number[];
}

export const changeWeek = teamCommand({
	name: 'ChangeWeek',
	summary: 'Says how many hours a person works on each weekday, from a day on.',
	input: ChangeWeek,
	role: 'lead',
	async run(context, input) {
		const person = await memberOf(context, input.person);
		dayField(input.from, 'from', 'The day');
		const [before] = await context.keep('working_week', {
			team_id: context.team.id,
			person_id: person.id,
			from_day: input.from,
		});
		await context.tx.query(
			`insert into working_week (team_id, person_id, from_day, hours) values ($1, $2, $3, $4)
			on conflict (team_id, person_id, from_day) do update set hours = excluded.hours`,
			[context.team.id, person.id, input.from, input.hours],
		);
		const sum = fsum(input.hours);
		context.note(
			`${person.name} works ${sum} h a week from ${dayWords(input.from)} on.`,
			before ? { hours: before.hours } : null,
			{ hours: input.hours },
		);
	},
});
