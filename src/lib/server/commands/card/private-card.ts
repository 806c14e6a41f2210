import { IsBoolean } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id, Version } from '../../door/fields.ts';

export class PrivateCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** Whether only its owners, its reviewer and those who watch it may see it from now on. */
	@IsBoolean({ message: 'A card is private or not: true or false.' })
	private!: boolean;
}

export const privateCard = boardCommand({
	name: 'PrivateCard',
	summary:
		'Lets only those who have to do with a card see it, or everyone on its board again. Whoever does so watches it.',
	input: PrivateCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		await context.keep('watch', { card_id: card.id, person_id: context.person.id });
		// Nobody shuts themselves out.
		if (input.private)
			await context.tx.query(
				`insert into watch (card_id, person_id) values ($1, $2) on conflict (card_id, person_id) do update set how = 'chosen'`,
				[card.id, context.person.id],
			);
		await context.tx.query('update card set private = $2, version = version + 1 where id = $1', [
			card.id,
			input.private,
		]);
		context.note(card.id, 'private', input.private ? 'yes' : 'no');
	},
});
