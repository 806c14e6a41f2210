import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Amount, Id, Line, OrNull } from '../../door/fields.ts';

export class ChangeBudget {
	@Id('board')
	board!: string;

	@Line('The initiative', 80)
	initiative!: string;

	/** In hours; null for none. */
	@OrNull()
	@Amount('The budget')
	hours!: number | null;
}

export const changeBudget = boardCommand({
	name: 'ChangeBudget',
	summary: 'Gives an initiative a budget of hours, or takes it away.',
	role: 'lead',
	input: ChangeBudget,
	async run(context, input) {
		if (input.hours === 0)
			throw new Problem(422, 'invalid.hours', 'A budget is above 0; leave it out for none.', 'hours');
		const [before] = await context.keep('initiative', { board_id: context.board.id, name: input.initiative });
		const { rowCount } = await context.tx.query(
			'update initiative set budget_hours = $3 where board_id = $1 and name = $2',
			[context.board.id, input.initiative, input.hours],
		);
		if (!rowCount)
			throw new Problem(
				422,
				'initiative.unknown',
				`This board has no initiative “${input.initiative}”.`,
				'initiative',
			);
		context.note(
			null,
			'budget-changed',
			input.initiative,
			{ hours: before?.budget_hours ?? null },
			{ hours: input.hours },
		);
	},
});
