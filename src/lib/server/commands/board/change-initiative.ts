import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { dayText } from '../../../../core/calendar/days.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Id, Line, Optional, OrNull } from '../../door/fields.ts';
import { ableToOwn, keepInitiative } from './names.ts';

export class ChangeInitiative {
	@Id('board')
	board!: string;

	@Line('The initiative', 80)
	initiative!: string;

	/** The day by which it is to be done; null for none. */
	@Optional()
	@OrNull()
	@DayText('The target')
	target?: string | null;

	/** The lead or member of the team who leads it; null for nobody. */
	@Optional()
	@OrNull()
	@Id('person')
	lead?: string | null;
}

export const changeInitiative = boardCommand({
	name: 'ChangeInitiative',
	summary: 'Changes by when an initiative is to be done and who leads it.',
	role: 'lead',
	input: ChangeInitiative,
	async run(context, input) {
		const before = await keepInitiative(context, input.initiative);
		const able = await ableToOwn(context);
		if (input.lead && !able.has(input.lead))
			throw new Problem(
				422,
				'lead.unknown',
				'An initiative is led by a lead or member of the board’s team.',
				'lead',
			);
		const target = input.target
			? dayText(dayField(input.target, 'target', 'The target'))
			: input.target === undefined
				? before.target
				: null;
		const lead = input.lead === undefined ? before.lead_id : input.lead;
		await context.tx.query('update initiative set target = $2, lead_id = $3 where id = $1', [
			before.id,
			target,
			lead,
		]);
		const name = (id: string | null) => (id === null ? null : (able.get(id) ?? 'somebody who has left'));
		context.note(
			null,
			'initiative-changed',
			input.initiative,
			{ target: before.target, lead: name(before.lead_id) },
			{ target, lead: name(lead) },
		);
	},
});
