import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Version } from '../../door/fields.ts';

export class BlockCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	@Line('The reason', 500)
	reason!: string;
}

export const blockCard = boardCommand({
	name: 'BlockCard',
	summary: 'Marks a card as blocked, with the reason.',
	input: BlockCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		if (card.blocked_since)
			throw new Problem(
				409,
				'card.blocked',
				`Card ${card.number} is blocked already: ${card.blocked_reason}`,
				'card',
			);
		await context.tx.query(
			`with spell as (insert into blockage (card_id, from_at, reason) values ($1, $3, $2))
			update card set blocked_since = $3, blocked_reason = $2, version = version + 1 where id = $1`,
			[card.id, input.reason, context.at],
		);
		context.note(card.id, 'blocked', input.reason);
	},
});
