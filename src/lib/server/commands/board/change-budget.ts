import { keepInitiative } from './names.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Amount, Id, Line, Money, Optional, OrNull } from '../../door/fields.ts';

export class ChangeBudget {
	@Id('board')
	board!: string;

	@Line('The initiative', 80)
	initiative!: string;

	/** In hours; null for none. */
	@Optional()
	@OrNull()
	@Amount('The budget in hours')
	hours?: number | null;

	/** In the money that hours cost; null for none. */
	@Optional()
	@OrNull()
	@Money('The budget in money')
	money?: number | null;
}

export const changeBudget = boardCommand({
	name: 'ChangeBudget',
	summary: 'Gives an initiative a budget of hours or of money, or takes it away.',
	role: 'lead',
	input: ChangeBudget,
	async run(context, input) {
		for (const field of ['hours', 'money'] as const)
			if (input[field] === 0)
				throw new Problem(422, `invalid.${field}`, 'A budget is above 0; say null for none.', field);
		const before = await keepInitiative(context, input.initiative);
		const was = { hours: before.budget_hours, money: before.budget_money };
		const after = {
			hours: input.hours === undefined ? was.hours : input.hours,
			money: input.money === undefined ? was.money : input.money,
		};
		await context.tx.query('update initiative set budget_hours = $2, budget_money = $3 where id = $1', [
			before.id,
			after.hours,
			after.money,
		]);
		context.note(null, 'budget-changed', input.initiative, was, after);
	},
});
