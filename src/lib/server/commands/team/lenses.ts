import { readAsked, writeAsked } from '../../../../core/panorama/asked.ts';
import { teamCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';
import { dropLensOf, keepLensOf, LensSaid } from '../board/keep-lens.ts';

/** Its query is what the address of the panorama says, such as `of=people&late=yes`. */
export class KeepTeamLens extends LensSaid {
	@Id('team')
	team!: string;
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
