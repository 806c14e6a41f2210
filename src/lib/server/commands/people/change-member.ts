import { IsIn, IsString, MaxLength } from 'class-validator';
import { teamCommand } from '../../door/command.ts';
import { Id, Optional } from '../../door/fields.ts';
import { keepALead } from '../team/members.ts';
import { memberOf } from './member-of.ts';

export class ChangeMember {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;

	@Optional()
	@IsIn(['lead', 'member', 'viewer'], { message: 'The role is lead, member or viewer.' })
	role?: 'lead' | 'member' | 'viewer';

	/** What they do in the team, such as electrician. */
	@Optional()
	@MaxLength(80, { message: 'The title may have at most 80 characters.' })
	@IsString({ message: 'The title must be text.' })
	title?: string;
}

export const changeMember = teamCommand({
	name: 'ChangeMember',
	summary: 'Changes what somebody may do in a team, and what they are called there.',
	input: ChangeMember,
	role: 'lead',
	async run(context, input) {
		const person = await memberOf(context, input.person);
		const [before] = await context.keep('membership', { team_id: context.team.id, person_id: person.id });
		const role = input.role ?? person.role;
		if (person.role === 'lead' && role !== 'lead') await keepALead(context, person);
		const title = input.title?.trim() ?? (before as { title: string }).title;
		await context.tx.query(
			'update membership set role = $3, title = $4 where team_id = $1 and person_id = $2',
			[context.team.id, person.id, role, title],
		);
		if (person.role === 'viewer' && role !== 'viewer')
			await context.tx.query(
				`insert into working_week (team_id, person_id, from_day, hours)
				select id, $2, ($3::timestamptz at time zone time_zone)::date, week from team
				where id = $1 and not exists (select from working_week where team_id = $1 and person_id = $2)`,
				[context.team.id, person.id, context.at],
			);
		await context.tx.query(`select pg_notify('harrow', 'person ' || $1)`, [person.id]);
		context.note(
			`${person.name} is ${role} of the team${title ? `, ${title}` : ''}.`,
			{ role: person.role, title: (before as { title: string }).title },
			{ role, title },
		);
	},
});
