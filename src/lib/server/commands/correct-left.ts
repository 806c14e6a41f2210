import { Problem } from '../problem.ts';
import { boardCommand } from './command.ts';
import { withoutChildren } from './family.ts';
import { Amount, Id, Version } from './fields.ts';

export class CorrectLeft {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** In the board's unit: hours or points. */
	@Amount('What is left')
	left!: number;
}

export const correctLeft = boardCommand({
	name: 'CorrectLeft',
	summary: 'Corrects what is left of a card.',
	input: CorrectLeft,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		withoutChildren(card);
		if (card.clock === 'done')
			throw new Problem(409, 'card.done', `Card ${card.number} is done: nothing is left of it.`, 'left');
		await context.tx.query('update card set "left" = $2, version = version + 1 where id = $1', [
			card.id,
			input.left,
		]);
		context.note(card.id, 'left', String(input.left), { left: card.left });
	},
});
