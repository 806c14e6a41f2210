import { IsNumber, Max, Min } from 'class-validator';
import { teamCommand } from './command.ts';
import { dayField } from './days.ts';
import { DayText, Id } from './fields.ts';
import { leadsOnly, memberOf } from './team.ts';

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
	@IsNumber(
		{ allowNaN: false, allowInfinity: false, maxDecimalPlaces: 2 },
		{ message: 'The rate must be a number with at most two decimals.' },
	)
	rate!: number;
}

export const changeRate = teamCommand({
	name: 'ChangeRate',
	summary: 'Says what an hour of a person costs, from a day on. Only leads see it.',
	input: ChangeRate,
	async run(context, input) {
		leadsOnly(context);
		const person = await memberOf(context, input.person);
		dayField(input.from, 'from', 'The day');
		await context.tx.query(
			`insert into hourly_rate (team_id, person_id, from_day, rate) values ($1, $2, $3, $4)
			on conflict (team_id, person_id, from_day) do update set rate = excluded.rate`,
			[context.team.id, person.id, input.from, input.rate],
		);
		// Everyone reads the history: the figure itself is not told there.
		context.note(`What an hour of ${person.name} costs was changed from ${input.from} on.`);
	},
});
