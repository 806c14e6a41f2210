import { IsBoolean } from 'class-validator';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line } from '../../door/fields.ts';

export class TickLine {
	@Id('card')
	card!: string;

	/** The line's id. */
	@Line('The line', 60)
	line!: string;

	@IsBoolean({ message: 'A checklist line is done or not: true or false.' })
	done!: boolean;
}

export const tickLine = boardCommand({
	name: 'TickLine',
	summary: 'Ticks off one line of a card’s checklist, or takes that back; two people can do so at once.',
	input: TickLine,
	async run(context, input) {
		// Other lines stay as they are, whoever changed them meanwhile: it needs no version.
		const card = await context.card(input.card);
		const line = card.checklist.find(({ id }) => id === input.line);
		if (!line)
			throw new Problem(422, 'line.unknown', `Card ${card.number} has no such line any more.`, 'line');
		if (line.done === input.done) return;
		const lines = card.checklist.map((one) => (one === line ? { ...one, done: input.done } : one));
		await context.tx.query('update card set checklist = $2, version = version + 1 where id = $1', [
			card.id,
			JSON.stringify(lines),
		]);
		context.note(card.id, input.done ? 'line-done' : 'line-undone', line.text);
	},
});
