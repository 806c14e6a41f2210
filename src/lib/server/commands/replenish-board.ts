import { generateNKeysBetween } from 'fractional-indexing';
import { Problem } from '../problem.ts';
import { replenishment } from '../../../core/backlog/replenish.ts';
import { boardCommand } from './command.ts';
import { Id, SeenCard, SeenCards } from './fields.ts';
import { moveTo, placeBounds } from './place.ts';

export class ReplenishBoard {
	@Id('board')
	board!: string;

	/** The cards to pull, in their order. */
	@SeenCards()
	cards!: SeenCard[];
}

export const replenishBoard = boardCommand({
	name: 'ReplenishBoard',
	summary: 'Pulls cards of the backlog into the first column of the board, up to its limit.',
	input: ReplenishBoard,
	async run(context, input) {
		const first = context.board.columns[0]!;
		const cards = await context.cards(input.cards);
		const { above, under, standing } = await placeBounds(context, first.id, undefined);
		const free = replenishment(first.limit, standing);
		if (cards.length > free)
			throw new Problem(
				409,
				'limit.held',
				`${first.name} has ${free} free of ${first.limit}; ${cards.length} cards were picked.`,
				'cards',
			);
		const ranks = generateNKeysBetween(above, under, cards.length);
		for (const [i, card] of cards.entries()) {
			context.unarchived(card);
			if (card.column_id !== null)
				throw new Problem(409, 'card.pulled', `Card ${card.number} is on the board already.`, 'cards');
			await moveTo(context, card, first.id, ranks[i]!, null);
		}
	},
});
