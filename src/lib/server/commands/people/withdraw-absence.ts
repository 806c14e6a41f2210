import { dayWords } from '../../../../core/calendar/day-words.ts';
import { notFound } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';
import { selfOrLead } from './member-of.ts';

export class WithdrawAbsence {
	@Id('team')
	team!: string;

	@Id('absence')
	absence!: string;
}

export const withdrawAbsence = teamCommand({
	name: 'WithdrawAbsence',
	summary: 'Takes an absence back: the person is there after all.',
	input: WithdrawAbsence,
	async run(context, input) {
		const { rows } = await context.tx.query<{ person: string; name: string; from: string; to: string }>(
			`select a.person_id as person, p.name, a.from_day as "from", a.to_day as "to"
			from absence a
			join membership m on m.person_id = a.person_id and m.team_id = $2
			join person p on p.id = a.person_id
			where a.id = $1 and a.withdrawn_at is null`,
			[input.absence, context.team.id],
		);
		const found = rows[0];
		if (!found) throw notFound('absence');
		selfOrLead(context, found.person);
		await context.keep('absence', { id: input.absence });
		await context.tx.query('update absence set withdrawn_at = $2 where id = $1', [input.absence, context.at]);
		context.note(
			`${found.name} is not away from ${dayWords(found.from)} to ${dayWords(found.to)} after all.`,
		);
	},
});
