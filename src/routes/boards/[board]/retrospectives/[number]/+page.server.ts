import { forPage } from '$lib/server/answers';
import { retrospectivePage } from '$lib/server/questions/retrospective';

export const load = async ({ parent, params, depends }) => {
	depends('harrow:retrospective');
	const { head } = await parent();
	const retro = await forPage(retrospectivePage(head, Number(params.number)));
	return { title: `Retrospective ${retro.number} of ${head.name}`, retro };
};
