import { parseDay } from '../../../core/calendar/days.ts';
import { Problem } from '../problem.ts';
import { boardCommand } from './command.ts';
import { Id, Line, OrNull, Version } from './fields.ts';

export class DateCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** The day it is due, `2026-12-04`; null for none. */
	@OrNull()
	@Line('The due date', 10)
	due!: string | null;
}

export const dateCard = boardCommand({
	name: 'DateCard',
	summary: 'Says by which day a card is due.',
	input: DateCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		if (input.due !== null && parseDay(input.due) === null)
			throw new Problem(422, 'invalid.due', 'The due date must be a day such as 2026-12-04.', 'due');
		await context.tx.query('update card set due = $2, version = version + 1 where id = $1', [
			card.id,
			input.due,
		]);
		context.note(card.id, 'due', input.due ?? '', { due: card.due });
	},
});
