import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Version } from '../../door/fields.ts';

export class WaitFor {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** A person, a firm, a part, a day: whoever or whatever unblocks it. */
	@Line('Who or what is waited for', 200)
	waitingFor!: string;
}

export const waitFor = boardCommand({
	name: 'WaitFor',
	summary: 'Says whom or what a blocked card waits for.',
	input: WaitFor,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		if (!card.blocked_since)
			throw new Problem(409, 'card.not_blocked', `Card ${card.number} is not blocked.`, 'card');
		await context.tx.query(
			`with spell as (update blockage set waiting_for = $2 where card_id = $1 and until_at is null)
			update card set waiting_for = $2, version = version + 1 where id = $1`,
			[card.id, input.waitingFor],
		);
		context.note(card.id, 'waits-for', input.waitingFor, { waitingFor: card.waiting_for });
	},
});
