import { forPage, whoAsks } from '$lib/server/answers';
import { boardCards } from '$lib/server/questions/board-cards';
import { boardStood, momentAsked } from '$lib/server/questions/stood';
import { boardDays } from '$lib/server/questions/board-days';

export const load = async ({ locals, params, depends, parent, url }) => {
	depends('harrow:board');
	const month = url.searchParams.get('as') === 'month' ? url.searchParams.get('month') : null;
	const wants = url.searchParams.get('as') === 'month';
	const at = url.searchParams.get('at');
	const [board, days, stood] = await Promise.all([
		forPage(boardCards(whoAsks(locals), params.board)),
		wants ? parent().then(({ head }) => forPage(boardDays(head, month))) : null,
		at
			? parent().then(({ head }) =>
					forPage(Promise.resolve().then(() => boardStood(head, momentAsked(head, at)))),
				)
			: null,
	]);
	return { board, days, stood };
};
