import { needsReason } from '../../../../core/sprint/left.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { withoutChildren } from './family.ts';
import { Amount, Id, Line, Optional, Version } from '../../door/fields.ts';

export class CorrectLeft {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** In the board's unit: hours or points. */
	@Amount('What is left')
	left!: number;

	/** Why; asked for when it is over half the size, or over 8 hours. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
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
		if (!input.reason && needsReason(card.size, card.left, input.left, context.board.unit))
			throw new Problem(
				422,
				'left.reason',
				`From ${card.left} to ${input.left} is a large correction of card ${card.number}. Say why: it is kept with the card.`,
				'reason',
			);
		await context.tx.query('update card set "left" = $2, version = version + 1 where id = $1', [
			card.id,
			input.left,
		]);
		context.note(
			card.id,
			'left',
			String(input.left),
			{ left: card.left },
			input.reason ? { reason: input.reason } : null,
		);
	},
});
