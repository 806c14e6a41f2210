import { IsInt, Max, Min } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Problem } from '../../problem.ts';
import { withoutChildren } from './family.ts';
import { Id, OrNull, Version } from '../../door/fields.ts';

export class PercentCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** From 0 to 100; null to let it follow from what is left, or from the checklist, again. */
	@OrNull()
	@Max(100, { message: 'How much is done is at most 100 percent.' })
	@Min(0, { message: 'How much is done is at least 0 percent.' })
	@IsInt({ message: 'How much is done is a whole number of percent.' })
	percent!: number | null;
}

export const percentCard = boardCommand({
	name: 'PercentCard',
	summary: 'Says how much of a card is done, in percent.',
	input: PercentCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		withoutChildren(card, 'Say it of those.');
		if (card.clock === 'done')
			throw new Problem(409, 'card.done', `Card ${card.number} is finished: all of it is done.`, 'percent');
		await context.tx.query('update card set percent = $2, version = version + 1 where id = $1', [
			card.id,
			input.percent,
		]);
		context.note(card.id, 'percent', input.percent === null ? '' : String(input.percent), {
			percent: card.percent,
		});
	},
});
