import { IsBoolean, IsString, MaxLength } from 'class-validator';
import { readAsked, writeAsked } from '../../../../core/panorama/asked.ts';
import { teamCommand } from '../../door/command.ts';
import { Id, Line } from '../../door/fields.ts';
import { dropLensOf, keepLensOf } from '../board/keep-lens.ts';

export class KeepTeamLens {
	@Id('team')
	team!: string;

	@Line('The name of the lens', 60)
	name!: string;

	/** What the address of the panorama says, such as `of=people&late=yes`. */
	@MaxLength(4000, { message: 'A lens may have at most 4,000 characters.' })
	@IsString({ message: 'What a lens looks at must be text.' })
	query!: string;

	/** Whether all of the team have it; else it is one’s own. */
	@IsBoolean({ message: 'A lens is shared or not: true or false.' })
	shared!: boolean;
}

export const keepTeamLens = teamCommand({
	name: 'KeepTeamLens',
	summary:
		'Keeps a way of looking at the panorama of a team under a name; one’s own of the same name is replaced.',
	input: KeepTeamLens,
	async run(context, { name, query: said, shared }) {
		const query = String(writeAsked(new URLSearchParams(), readAsked(new URLSearchParams(said))));
		const lens = await keepLensOf(context, { team_id: context.team.id }, { name, query, shared });
		return { result: { lens } };
	},
});

export class DropTeamLens {
	@Id('team')
	team!: string;

	@Id('lens')
	lens!: string;
}

export const dropTeamLens = teamCommand({
	name: 'DropTeamLens',
	summary: 'Lets a lens of the panorama go: one’s own, or as a lead any that is shared.',
	input: DropTeamLens,
	async run(context, { lens }) {
		await dropLensOf(context, { team_id: context.team.id }, lens);
	},
});
