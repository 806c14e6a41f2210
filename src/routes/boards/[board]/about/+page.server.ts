import { forPage, whoAsks } from '$lib/server/answers';
import { aboutPage } from '$lib/server/questions/about';
import { boardCards } from '$lib/server/questions/board-cards';

export const load = async ({ parent, depends, locals, params }) => {
	depends('harrow:board');
	const { head } = await parent();
	const [about, board] = await Promise.all([
		forPage(aboutPage(head)),
		forPage(boardCards(whoAsks(locals), params.board)),
	]);
	return { title: `About ${head.name}`, about, board };
};
