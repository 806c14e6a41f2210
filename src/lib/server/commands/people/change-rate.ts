import { dayWords } from '../../../../core/calendar/day-words.ts';
import { Max, Min } from 'class-validator';
import { teamCommand } from '../../door/command.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Decimals, Id } from '../../door/fields.ts';
import { memberOf } from './member-of.ts';

export class ChangeRate {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;

	/** The day from which it holds. */
	@DayText('The day')
	from!: string;

	/** What an hour costs, in the team’s currency. */
	@Max(99_999, { message: 'The rate may be at most 99,999.' })
	@Min(0, { message: 'The rate must not be below 0.' })
	@Decimals(2, 'The rate must be a number with at most two decimals.')
	rate!: number;
}

export const changeRate = teamCommand({
	name: 'ChangeRate',
	summary: 'Says what an hour of a person costs, from a day on. Only leads see it.',
	input: ChangeRate,
	role: 'lead',
	async run(context, input) {
		const person = await memberOf(context, input.person);
		dayField(input.from, 'from', 'The day');
		await context.keep('hourly_rate', {
			team_id: context.team.id,
			person_id: person.id,
			from_day: input.from,
		});
		await context.tx.query(
			`insert into hourly_rate (team_id, person_id, from_day, rate) values ($1, $2, $3, $4)
			on conflict (team_id, person_id, from_day) do update set rate = excluded.rate`,
			[context.team.id, person.id, input.from, input.rate],
		);
		// Everyone reads the history: the figure itself is not told there.
		context.note(`What an hour of ${person.name} costs was changed from ${dayWords(input.from)} on.`);
	},
});
