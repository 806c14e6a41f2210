import { forPage, whoAsks } from '$lib/server/answers';
import { boardCards } from '$lib/server/questions/board-cards';
import { boardDays } from '$lib/server/questions/board-days';

export const load = async ({ locals, params, depends, parent, url }) => {
	depends('harrow:board');
	const month = url.searchParams.get('as') === 'month' ? url.searchParams.get('month') : null;
	const wants = url.searchParams.get('as') === 'month';
	const [board, days] = await Promise.all([
		forPage(boardCards(whoAsks(locals), params.board)),
		wants ? parent().then(({ head }) => forPage(boardDays(head, month))) : null,
	]);
	return { board, days };
};
