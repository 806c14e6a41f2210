import { forPage, whoAsks } from '$lib/server/answers';
import { ownPage } from '$lib/server/questions/own-page';
import { aboutPage } from '$lib/server/questions/about';
import { boardCards } from '$lib/server/questions/board-cards';

export const load = async ({ parent, depends, locals, params }) => {
	depends('harrow:board');
	const { head } = await parent();
	const [about, board, own] = await Promise.all([
		forPage(aboutPage(head)),
		forPage(boardCards(whoAsks(locals), params.board)),
		forPage(ownPage(head, null)),
	]);
	return { title: `About ${head.name}`, about, board, own };
};
