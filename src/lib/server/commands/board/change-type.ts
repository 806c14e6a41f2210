import { IsIn } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Amount, Id, Line, Lines, Optional, OrNull } from '../../door/fields.ts';

export class ChangeType {
	@Id('board')
	board!: string;

	@Line('The name of the type', 40)
	name!: string;

	/** What a new card of this type has to tick off. */
	@Lines('checklist line', 50, 300)
	checklist!: string[];

	/** How large a card of it is to begin with, in the board’s unit; null for not sized. */
	@Optional()
	@OrNull()
	@Amount('The first size')
	size?: number | null;

	/** The class of service that it begins with; null for standard. */
	@Optional()
	@OrNull()
	@IsIn(['expedite', 'fixed', 'standard', 'background'], {
		message: 'The class is expedite, fixed, standard or background.',
	})
	class?: 'expedite' | 'fixed' | 'standard' | 'background' | null;
}

export const changeType = boardCommand({
	name: 'ChangeType',
	summary:
		'Adds a type of card to a board, or changes the checklist, size and class that cards of it begin with.',
	role: 'lead',
	input: ChangeType,
	async run(context, input) {
		const [before] = await context.keep('card_type', { board_id: context.board.id, name: input.name });
		const after = {
			checklist: input.checklist,
			size: input.size === undefined ? (before?.first_size ?? null) : input.size,
			class: input.class === undefined ? (before?.first_class ?? null) : input.class,
		};
		await context.tx.query(
			`insert into card_type (board_id, name, checklist, first_size, first_class, position)
			values ($1, $2, $3, $4, $5, (select coalesce(max(position), 0) + 1 from card_type where board_id = $1))
			on conflict (board_id, name) do update set checklist = excluded.checklist, first_size = excluded.first_size,
				first_class = excluded.first_class, retired_at = null`,
			[context.board.id, input.name, after.checklist, after.size, after.class],
		);
		context.note(
			null,
			'type-changed',
			input.name,
			before ? { checklist: before.checklist, size: before.first_size, class: before.first_class } : null,
			after,
		);
	},
});
