import { forPage, whoAsks } from '$lib/server/answers';
import { roundsPage } from '$lib/server/questions/rounds';

export const load = async ({ parent, locals, depends }) => {
	depends('harrow:board', 'harrow:rounds');
	const { head } = await parent();
	return { title: `Rounds of ${head.name}`, rounds: await forPage(roundsPage(head, whoAsks(locals))) };
};
