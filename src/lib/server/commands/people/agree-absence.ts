import { dayWords } from '../../../../core/calendar/day-words.ts';
import { IsBoolean } from 'class-validator';
import { notFound } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';

export class AgreeAbsence {
	@Id('team')
	team!: string;

	@Id('absence')
	absence!: string;

	/** Whether it is agreed to; otherwise it does not come to be. */
	@IsBoolean({ message: 'An absence is agreed to or not: true or false.' })
	agreed!: boolean;
}

export const agreeAbsence = teamCommand({
	name: 'AgreeAbsence',
	summary: 'Agrees to an absence that waits for a lead, or does not.',
	input: AgreeAbsence,
	role: 'lead',
	async run(context, { absence, agreed }) {
		const { rows } = await context.tx.query<{ name: string; from: string; to: string }>(
			`select p.name, a.from_day as "from", a.to_day as "to"
			from absence a
			join membership m on m.person_id = a.person_id and m.team_id = $2 and m.left_at is null
			join person p on p.id = a.person_id
			where a.id = $1 and a.withdrawn_at is null and a.waits`,
			[absence, context.team.id],
		);
		const found = rows[0];
		if (!found) throw notFound('absence');
		await context.keep('absence', { id: absence });
		await context.tx.query(
			'update absence set waits = false, withdrawn_at = case when $2 then null else $3::timestamptz end where id = $1',
			[absence, agreed, context.at],
		);
		context.note(
			`${found.name} is ${agreed ? 'away' : 'not away'} from ${dayWords(found.from)} to ${dayWords(found.to)}, as a lead has ${agreed ? 'agreed' : 'decided'}.`,
		);
	},
});
