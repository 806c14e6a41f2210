import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Version } from '../../door/fields.ts';

export class UnblockCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;
}

export const unblockCard = boardCommand({
	name: 'UnblockCard',
	summary: 'Ends the blocked spell of a card.',
	input: UnblockCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		if (!card.blocked_since)
			throw new Problem(409, 'card.not_blocked', `Card ${card.number} is not blocked.`, 'card');
		await context.tx.query(
			`with spell as (update blockage set until_at = $2 where card_id = $1 and until_at is null)
			update card set blocked_since = null, blocked_reason = null, waiting_for = null, version = version + 1 where id = $1`,
			[card.id, context.at],
		);
		context.note(card.id, 'unblocked', '', { reason: card.blocked_reason });
	},
});
