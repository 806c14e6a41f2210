import { forPage } from '$lib/server/answers';
import { aboutPage } from '$lib/server/questions/about';

export const load = async ({ parent, depends }) => {
	depends('harrow:board');
	const { head } = await parent();
	return { title: `About ${head.name}`, about: await forPage(aboutPage(head)) };
};
