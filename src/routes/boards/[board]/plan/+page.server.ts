import { forPage } from '$lib/server/answers';
import { planPage } from '$lib/server/questions/plan';

export const load = async ({ parent, depends, url }) => {
	depends('harrow:board');
	const asked = Number(url.searchParams.get('sprint'));
	const { head } = await parent();
	return {
		title: `Plan of ${head.name}`,
		plan: await forPage(planPage(head, Number.isInteger(asked) && asked > 0 ? asked : null)),
	};
};
