import { Problem } from '../problem.ts';
import { boardCommand } from './command.ts';
import { Id, Line, Optional, OrNull, Version } from './fields.ts';
import { checkLimit, clockIn, rankIn, writePlace } from './place.ts';
import { joinRunningSprint, leaveSprint } from './sprint-list.ts';

export class MoveCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** The column it moves to; null for the backlog. */
	@OrNull()
	@Id('column')
	column!: string | null;

	/** The card right above its new place; null for the top, left out for the end. */
	@Optional()
	@Id('card above')
	below?: string | null;

	/** Why it is let through over a limit. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const moveCard = boardCommand({
	name: 'MoveCard',
	summary: 'Moves a card within its column, to another column, or back to the backlog.',
	input: MoveCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		if (card.archived_at)
			throw new Problem(
				409,
				'card.archived',
				`Card ${card.number} is archived. Restore it before moving it.`,
				'card',
			);
		const target = input.column === null ? null : context.column(input.column);
		const { rank, standing } = await rankIn(context, input.column, input.below, card.id);
		if (input.column === card.column_id) {
			await context.tx.query('update card set rank = $2, version = version + 1 where id = $1', [
				card.id,
				rank,
			]);
			context.note(card.id, 'ordered');
			return {};
		}
		const { through, advice } = target ? checkLimit(target, standing, input.reason) : { through: null };
		await writePlace(context, card, input.column, rank, clockIn(context, card, input.column), through);
		context.note(
			card.id,
			'column',
			context.placeName(input.column),
			{ column: context.placeName(card.column_id) },
			through ? { letThrough: through } : null,
		);
		if (input.column === null) await leaveSprint(context, card);
		else if (card.column_id === null) await joinRunningSprint(context, card);
		return { advice };
	},
});
