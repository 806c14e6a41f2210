import { forPage, whoAsks } from '$lib/server/answers';
import { peoplePage } from '$lib/server/questions/people';

export const load = async ({ locals, params, depends }) => {
	depends('harrow:people');
	const people = await forPage(peoplePage(whoAsks(locals), params.team));
	return { title: `People of ${people.team.name}`, people };
};
