import { forPage, whoAsks } from '$lib/server/answers';
import { teamPage } from '$lib/server/questions/team-page';

export const load = async ({ locals, params, depends }) => {
	depends('harrow:team');
	const team = await forPage(teamPage(whoAsks(locals), params.team));
	return { title: team.name, team };
};
