import { generateNKeysBetween } from 'fractional-indexing';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Optional, SeenCard, SeenCards } from '../../door/fields.ts';
import { checkLanes } from './lanes.ts';
import { checkLimit, together } from './limits.ts';
import { moveTo, placeBounds } from './place.ts';

export class ReplenishBoard {
	@Id('board')
	board!: string;

	/** The cards to pull, in their order. */
	@SeenCards()
	cards!: SeenCard[];

	/** Why they are let through over a limit. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const replenishBoard = boardCommand({
	name: 'ReplenishBoard',
	summary: 'Pulls cards of the backlog into the first column of the board, as far as its limit goes.',
	input: ReplenishBoard,
	async run(context, input) {
		const first = context.board.columns[0]!;
		const cards = await context.cards(input.cards);
		const { above, under, standing } = await placeBounds(context, first.id, undefined);
		const { through, advice } = together(
			checkLimit(first, standing, cards.length, input.reason),
			await checkLanes(
				context,
				cards.map((before) => ({ before, after: { column_id: first.id } })),
				input.reason,
			),
		);
		const ranks = generateNKeysBetween(above, under, cards.length);
		for (const [i, card] of cards.entries()) {
			context.unarchived(card);
			if (card.column_id !== null)
				throw new Problem(409, 'card.pulled', `Card ${card.number} is on the board already.`, 'cards');
			await moveTo(context, card, first.id, ranks[i]!, through);
		}
		return { advice };
	},
});
