import { IsIn } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Optional, Version } from '../../door/fields.ts';
import { checkLanes } from './lanes.ts';
import { letThrough } from './limits.ts';

export class ClassifyCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	@IsIn(['expedite', 'fixed', 'standard', 'background'], {
		message: 'The class of service must be expedite, fixed, standard or background.',
	})
	class!: 'expedite' | 'fixed' | 'standard' | 'background';

	/** Why it is let through over the limit of that class’s lane. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const classifyCard = boardCommand({
	name: 'ClassifyCard',
	summary: 'Gives a card its class of service.',
	input: ClassifyCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		const { through, advice } = await checkLanes(
			context,
			[{ before: card, after: { class: input.class } }],
			input.reason,
		);
		if (through) await letThrough(context, [card], through);
		await context.tx.query('update card set class = $2, version = version + 1 where id = $1', [
			card.id,
			input.class,
		]);
		context.note(card.id, 'class', input.class, { class: card.class });
		return { advice };
	},
});
