import { forPage } from '$lib/server/answers';
import { retrospectivesPage } from '$lib/server/questions/retrospective';

export const load = async ({ parent, depends }) => {
	depends('harrow:retrospective');
	const { head } = await parent();
	return { title: `Retrospectives of ${head.name}`, back: await forPage(retrospectivesPage(head)) };
};
