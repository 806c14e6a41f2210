import { IsIn } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id, Version } from '../../door/fields.ts';

export class ClassifyCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	@IsIn(['expedite', 'fixed', 'standard', 'background'], {
		message: 'The class of service must be expedite, fixed, standard or background.',
	})
	class!: 'expedite' | 'fixed' | 'standard' | 'background';
}

export const classifyCard = boardCommand({
	name: 'ClassifyCard',
	summary: 'Gives a card its class of service.',
	input: ClassifyCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		await context.tx.query('update card set class = $2, version = version + 1 where id = $1', [
			card.id,
			input.class,
		]);
		context.note(card.id, 'class', input.class, { class: card.class });
	},
});
