import { forPage, whoAsks } from '$lib/server/answers';
import { boardCards } from '$lib/server/questions/board-cards';

export const load = async ({ locals, params, depends }) => {
	depends('harrow:board');
	return { board: await forPage(boardCards(whoAsks(locals), params.board)) };
};
