import { generateNKeysBetween } from 'fractional-indexing';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import type { CardRow } from '../../door/contexts.ts';
import { childrenOf } from './family.ts';
import { Id, Optional, OrNull, SeenCard, SeenCards } from '../../door/fields.ts';
import { moveTo, placeBounds, reorder } from './place.ts';

export class PlaceCards {
	@Id('board')
	board!: string;

	/** In the order they are to stand in. */
	@SeenCards()
	cards!: SeenCard[];

	/** The card of the backlog right above them; null for the top, left out for the end. */
	@Optional()
	@OrNull()
	@Id('card above')
	below?: string | null;
}

export const placeCards = boardCommand({
	name: 'PlaceCards',
	summary:
		'Orders cards of the backlog: puts them below another card, on top or at the end; cards of the board come back to it.',
	input: PlaceCards,
	async run(context, input) {
		const picked = await context.cards(input.cards);
		const cards: CardRow[] = [];
		for (const card of picked) {
			context.unarchived(card);
			if (cards.some((known) => known.id === card.id)) continue;
			const beside = (await childrenOf(context, card)).filter((child) => child.column_id === card.column_id);
			cards.push(card, ...beside.filter((child) => !cards.some((known) => known.id === child.id)));
		}
		const ids = cards.map((card) => card.id);
		if (input.below && ids.includes(input.below))
			throw new Problem(422, 'invalid.below', 'The card above must not be one of those that move.', 'below');
		const { above, under } = await placeBounds(context, null, input.below, ids);
		const ranks = generateNKeysBetween(above, under, cards.length);
		const rankOf = new Map(cards.map((card, i) => [card.id, ranks[i]!]));
		const here = cards.filter((card) => card.column_id === null);
		if (here.length)
			await reorder(
				context,
				here,
				here.map((card) => rankOf.get(card.id)!),
			);
		for (const card of cards)
			if (card.column_id !== null) await moveTo(context, card, null, rankOf.get(card.id)!, null);
	},
});
