import { teamCommand } from '../../door/command.ts';
import { Id, Lines } from '../../door/fields.ts';
import { memberOf, selfOrLead } from './member-of.ts';

export class ChangeSkills {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;

	/** Names of labels: a card with such a label asks for the skill. */
	@Lines('skill', 30, 40)
	skills!: string[];
}

export const changeSkills = teamCommand({
	name: 'ChangeSkills',
	summary: 'Says what a person can do, as labels that cards carry.',
	input: ChangeSkills,
	async run(context, input) {
		selfOrLead(context, input.person);
		const person = await memberOf(context, input.person);
		const skills = [...new Set(input.skills)];
		const before = await context.keep('skill', { team_id: context.team.id, person_id: person.id });
		await context.tx.query(
			`with gone as (
				delete from skill where team_id = $1 and person_id = $2 and name <> all($3::text[])
			)
			insert into skill (team_id, person_id, name) select $1, $2, unnest($3::text[]) on conflict do nothing`,
			[context.team.id, person.id, skills],
		);
		context.note(
			`${person.name} can do: ${skills.join(', ') || 'nothing in particular'}.`,
			{ skills: before.map((skill) => skill.name) },
			{ skills },
		);
	},
});
