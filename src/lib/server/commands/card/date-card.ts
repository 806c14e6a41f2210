import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Id, Optional, OrNull, Version } from '../../door/fields.ts';

export class DateCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** The day it is due, `2026-12-04`; null for none, left out to keep it as it is. */
	@Optional()
	@OrNull()
	@DayText('The due date')
	due?: string | null;

	/** The day it starts; null for none, left out to keep it as it is. */
	@Optional()
	@OrNull()
	@DayText('The start')
	start?: string | null;
}

export const dateCard = boardCommand({
	name: 'DateCard',
	summary: 'Says on which day a card starts and by which it is due.',
	input: DateCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		const { due = card.due, start = card.start } = input;
		if (due !== null) dayField(due, 'due', 'The due date');
		if (start !== null) dayField(start, 'start', 'The start');
		if (start !== null && due !== null && start > due)
			throw new Problem(422, 'invalid.due', 'A card cannot be due before it starts.', 'due');
		await context.tx.query('update card set due = $2, start = $3, version = version + 1 where id = $1', [
			card.id,
			due,
			start,
		]);
		if (due !== card.due) context.note(card.id, 'due', due ?? '', { due: card.due });
		if (start !== card.start) context.note(card.id, 'start', start ?? '', { start: card.start });
	},
});
