import { IsIn } from 'class-validator';
import { dayText } from '../../../../core/calendar/days.ts';
import { zoneOf } from '../../../../core/calendar/zone.ts';
import { Problem } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';
import { joinTeam } from '../team/members.ts';

export class BringBackMember {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;

	@IsIn(['lead', 'member', 'viewer'], { message: 'The role is lead, member or viewer.' })
	role!: 'lead' | 'member' | 'viewer';
}

export const bringBackMember = teamCommand({
	name: 'BringBackMember',
	summary: 'Lets somebody who left the team come back, with their title and all that they did.',
	input: BringBackMember,
	role: 'lead',
	undoable: false,
	async run(context, input) {
		const { rows } = await context.tx.query<{ name: string; title: string }>(
			`select p.name, m.title from membership m join person p on p.id = m.person_id
			where m.team_id = $1 and m.person_id = $2`,
			[context.team.id, input.person],
		);
		if (!rows[0])
			throw new Problem(422, 'person.unknown', 'This person was never in the team: invite them.', 'person');
		const { name, title } = rows[0];
		const today = dayText(zoneOf(context.team.timeZone).day(context.at.getTime()));
		await joinTeam(context.tx, context.team.id, input.person, { role: input.role, title }, today);
		await context.tx.query(`select pg_notify('harrow', 'person ' || $1)`, [input.person]);
		context.note(`${name} came back to the team.`);
	},
});
