import { forPage } from '$lib/server/answers';
import { backlogPage } from '$lib/server/questions/backlog';

export const load = async ({ parent, depends }) => {
	depends('harrow:board');
	const { head } = await parent();
	return { title: `Backlog of ${head.name}`, backlog: await forPage(backlogPage(head)) };
};
