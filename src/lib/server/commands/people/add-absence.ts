import { dayWords } from '../../../../core/calendar/day-words.ts';
import { randomUUID } from 'node:crypto';
import { IsString, Max, MaxLength, Min } from 'class-validator';
import { Problem } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Decimals, Id, Optional, OrNull } from '../../door/fields.ts';
import { memberOf, mustWait, selfOrLead } from './member-of.ts';

export class AddAbsence {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;

	@DayText('The first day')
	from!: string;

	@DayText('The last day')
	to!: string;

	/** Hours of each day; left out or null for whole days. */
	@Optional()
	@OrNull()
	@Max(24, { message: 'A day has at most 24 hours.' })
	@Min(0.25, { message: 'An absence of less than a quarter of an hour is not kept.' })
	@Decimals(2, 'The hours must be a number with at most two decimals.')
	hours?: number | null;

	@Optional()
	@MaxLength(200, { message: 'The note may have at most 200 characters.' })
	@IsString({ message: 'The note must be text.' })
	note?: string;
}

export const addAbsence = teamCommand({
	name: 'AddAbsence',
	summary: 'Says that a person is away: on whole days, or for some hours of each.',
	input: AddAbsence,
	async run(context, input) {
		selfOrLead(context, input.person);
		const person = await memberOf(context, input.person);
		const [from, to] = [
			dayField(input.from, 'from', 'The first day'),
			dayField(input.to, 'to', 'The last day'),
		];
		if (to < from) throw new Problem(422, 'absence.backwards', 'The absence ends before it begins.', 'to');
		if (to - from > 730)
			throw new Problem(422, 'absence.too_long', 'An absence may be at most two years long.', 'to');
		const waits = await mustWait(context);
		const id = randomUUID();
		await context.keep('absence', { id });
		await context.tx.query(
			`insert into absence (id, person_id, from_day, to_day, hours, note, waits) values ($1, $2, $3, $4, $5, $6, $7)`,
			[id, person.id, input.from, input.to, input.hours ?? null, input.note?.trim() ?? '', waits],
		);
		const days =
			input.from === input.to
				? `on ${dayWords(input.from)}`
				: `from ${dayWords(input.from)} to ${dayWords(input.to)}`;
		context.note(
			`${person.name} ${waits ? 'asks to be' : 'is'} away ${input.hours ? `${input.hours} h a day ` : ''}${days}.`,
		);
		return {
			result: { absence: id },
			...(waits ? { advice: 'It counts once a lead has agreed.' } : {}),
		};
	},
});
