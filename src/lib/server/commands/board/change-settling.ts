import { IsBoolean, IsInt, Max, Min } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';

export class ChangeSettling {
	@Id('board')
	board!: string;

	@IsBoolean({ message: 'Members settle or not: true or false.' })
	membersSettle!: boolean;

	/** Done cards stay on the board for so many days after their sprint was closed. */
	@Max(90, { message: 'Done cards stay for at most 90 days.' })
	@Min(0, { message: 'The days must not be below 0.' })
	@IsInt({ message: 'The days must be a whole number.' })
	doneDays!: number;
}

export const changeSettling = boardCommand({
	name: 'ChangeSettling',
	summary: 'Says whether members settle sprints too, and for how many days done cards stay on the board.',
	role: 'lead',
	input: ChangeSettling,
	async run(context, input) {
		const [before] = await context.keep('board', { id: context.board.id });
		await context.tx.query('update board set members_settle = $2, done_days = $3 where id = $1', [
			context.board.id,
			input.membersSettle,
			input.doneDays,
		]);
		context.note(
			null,
			'settling-changed',
			'',
			{ membersSettle: before!.members_settle, doneDays: before!.done_days },
			{ membersSettle: input.membersSettle, doneDays: input.doneDays },
		);
	},
});
