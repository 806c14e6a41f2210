import { forPage, whoAsks } from '$lib/server/answers';
import { lettersPage } from '$lib/server/questions/letters';

export const load = async ({ locals, params, depends }) => {
	depends('harrow:letters');
	const page = await forPage(lettersPage(whoAsks(locals), params.team));
	return { title: `Letters of ${page.team.name}`, page };
};
