import { forPage, whoAsks } from '$lib/server/answers';
import { daysPage } from '$lib/server/questions/days';

export const load = async ({ locals, params, url, depends }) => {
	depends('harrow:days');
	const days = await forPage(daysPage(whoAsks(locals), params.team, url.searchParams.get('day')));
	return { title: `Days of ${days.team.name}`, days };
};
