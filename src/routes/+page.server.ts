import { forPage, whoAsks } from '$lib/server/answers';
import { homePage } from '$lib/server/questions/home';

export const load = async ({ locals }) => ({
	title: 'Boards',
	home: await forPage(homePage(whoAsks(locals))),
});
