import { boardCommand } from '../../door/command.ts';
import { Id, Line, Version } from '../../door/fields.ts';

export class RenameCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	@Line('The title', 300)
	title!: string;
}

export const renameCard = boardCommand({
	name: 'RenameCard',
	summary: 'Gives a card another title.',
	input: RenameCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		await context.tx.query('update card set title = $2, version = version + 1 where id = $1', [
			card.id,
			input.title,
		]);
		context.note(card.id, 'renamed', input.title, { title: card.title });
	},
});
