import { IsString, MaxLength } from 'class-validator';
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

	/** The day on which it begins; null for none. */
	@Optional()
	@OrNull()
	@DayText('The start')
	start?: string | null;

	/** What it is for. */
	@Optional()
	@MaxLength(2000, { message: 'What it is for may take at most 2,000 characters.' })
	@IsString({ message: 'What it is for must be text.' })
	purpose?: string;

	/** The lead or member of the team who leads it; null for nobody. */
	@Optional()
	@OrNull()
	@Id('person')
	lead?: string | null;
}

export const changeInitiative = boardCommand({
	name: 'ChangeInitiative',
	summary: 'Changes what an initiative is for, when it begins and is to be done, and who leads it.',
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
		const dayOf = (field: 'start' | 'target', what: string) => {
			const said = input[field];
			return said ? dayText(dayField(said, field, what)) : said === undefined ? before[field] : null;
		};
		const [start, target] = [dayOf('start', 'The start'), dayOf('target', 'The target')];
		if (start && target && start > target)
			throw new Problem(422, 'invalid.target', 'An initiative cannot be done before it begins.', 'target');
		const purpose = input.purpose?.trim() ?? before.purpose;
		const lead = input.lead === undefined ? before.lead_id : input.lead;
		await context.tx.query(
			'update initiative set target = $2, lead_id = $3, start = $4, purpose = $5 where id = $1',
			[...[before.id, target, lead, start, purpose]],
		);
		const name = (id: string | null) => (id === null ? null : (able.get(id) ?? 'somebody who has left'));
		context.note(
			null,
			'initiative-changed',
			input.initiative,
			{ start: before.start, target: before.target, lead: name(before.lead_id), purpose: before.purpose },
			{ start, target, lead: name(lead), purpose },
		);
	},
});
