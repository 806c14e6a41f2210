import { forPage, whoAsks } from '$lib/server/answers';
import { setUpPage } from '$lib/server/questions/settings';

export const load = async ({ parent, locals, depends }) => {
	depends('harrow:board');
	const { head } = await parent();
	return { title: `Set-up of ${head.name}`, setUp: await forPage(setUpPage(head, whoAsks(locals))) };
};
