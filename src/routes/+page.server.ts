import { forPage, whoAsks } from '$lib/server/answers';
import { boardsOf } from '$lib/server/questions/board-head';

export const load = async ({ locals }) => ({
	title: 'Boards',
	boards: await forPage(boardsOf(whoAsks(locals))),
});
