import { restore } from '../../../core/flow/clock.ts';
import { Problem } from '../problem.ts';
import { boardCommand } from './command.ts';
import { Id, Version } from './fields.ts';
import { clockOf, rankIn } from './place.ts';

export class RestoreCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;
}

export const restoreCard = boardCommand({
	name: 'RestoreCard',
	summary: 'Brings an archived card back to where it stood.',
	input: RestoreCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		if (!card.archived_at)
			throw new Problem(409, 'card.not_archived', `Card ${card.number} is not archived.`, 'card');
		const { rank } = await rankIn(context, card.column_id, undefined, [card.id]);
		const clock = restore(clockOf(context, card));
		await context.tx.query(
			`update card set archived_at = null, archived_reason = null, clock = $2, rank = $3, version = version + 1 where id = $1`,
			[card.id, clock.state, rank],
		);
		context.note(card.id, 'restored');
	},
});
