import { boardCommand } from '../../door/command.ts';
import { Id, Line, Lines } from '../../door/fields.ts';

export class ChangeType {
	@Id('board')
	board!: string;

	@Line('The name of the type', 40)
	name!: string;

	/** What a new card of this type has to tick off. */
	@Lines('checklist line', 50, 300)
	checklist!: string[];
}

export const changeType = boardCommand({
	name: 'ChangeType',
	summary: 'Adds a type of card to a board, or changes the checklist that cards of it begin with.',
	role: 'lead',
	input: ChangeType,
	async run(context, input) {
		const [before] = await context.keep('card_type', { board_id: context.board.id, name: input.name });
		await context.tx.query(
			`insert into card_type (board_id, name, checklist, position)
			values ($1, $2, $3, (select coalesce(max(position), 0) + 1 from card_type where board_id = $1))
			on conflict (board_id, name) do update set checklist = excluded.checklist, retired_at = null`,
			[context.board.id, input.name, input.checklist],
		);
		context.note(null, 'type-changed', input.name, before ? { checklist: before.checklist } : null, {
			checklist: input.checklist,
		});
	},
});
