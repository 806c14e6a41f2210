import { archive } from '../../../../core/flow/clock.ts';
import type { BoardContext, CardRow } from '../../door/contexts.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Optional, Version } from '../../door/fields.ts';
import { clockOf } from './place.ts';
import { dropFromList } from '../sprint/join-leave.ts';

export class ArchiveCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const archiveCard = boardCommand({
	name: 'ArchiveCard',
	summary: 'Takes a card off the board; it stays findable and can be restored.',
	input: ArchiveCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		await archiveOne(context, card, input.reason ?? '');
	},
});

/** Takes one card off the board, and off the list of a sprint where it is not done. */
export async function archiveOne(context: BoardContext, card: CardRow, reason: string): Promise<void> {
	if (card.archived_at)
		throw new Problem(409, 'card.archived', `Card ${card.number} is archived already.`, 'card');
	const clock = archive(clockOf(context, card));
	await context.tx.query(
		`update card set archived_at = $2, archived_reason = $3, clock = $4, version = version + 1 where id = $1`,
		[card.id, context.at, reason || null, clock.state],
	);
	context.note(card.id, 'archived', reason, { sprint: card.sprint_id, unplanned: card.unplanned });
	if (clock.state === 'dropped') await dropFromList(context, card);
}
