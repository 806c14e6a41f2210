import { withoutChildren } from '../card/family.ts';
import { boardCommand } from '../../door/command.ts';
import { DayText, Id, Optional } from '../../door/fields.ts';
import { Billable, fitsInDay, Hours, TimeNote, whoseTime, workedDay, writeTime } from './entry.ts';

export class LogTime {
	@Id('card')
	card!: string;

	/** Who worked; oneself unless a lead logs it for somebody. */
	@Optional()
	@Id('person')
	person?: string;

	/** The day it was worked on, in the team's time zone. */
	@DayText('The day')
	day!: string;

	@Hours()
	hours!: number;

	@Optional()
	@TimeNote()
	note?: string;

	@Optional()
	@Billable()
	billable?: boolean;
}

export const logTime = boardCommand({
	name: 'LogTime',
	summary: 'Logs hours that were worked on a card; on a board in hours what is left falls by as much.',
	input: LogTime,
	async run(context, input) {
		const person = await whoseTime(context, input.person);
		// Time is added beside what others log: it needs no version.
		const card = await context.card(input.card);
		withoutChildren(card, 'Time is logged on them.');
		const day = workedDay(context, input.day);
		await fitsInDay(context, person, day, input.hours);
		const { hours, note = '', billable = false } = input;
		const entry = await writeTime(context, card, { person, day, hours, note, billable });
		return { result: { entry } };
	},
});
