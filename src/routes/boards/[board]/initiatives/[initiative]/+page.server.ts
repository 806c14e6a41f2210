import { forPage } from '$lib/server/answers';
import { initiativePage } from '$lib/server/questions/own-page';

export const load = async ({ parent, depends, params }) => {
	depends('harrow:board');
	const { head } = await parent();
	const initiative = await forPage(initiativePage(head, params.initiative));
	return { title: `${initiative.name}, ${head.name}`, initiative };
};
