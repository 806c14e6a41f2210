import { redirect } from '@sveltejs/kit';
import { forPage, whoAsks } from '$lib/server/answers';
import { cardPage } from '$lib/server/questions/card';

/** A card's lasting address: it leads to the card beside its board. */
export const load = async ({ params, locals }) => {
	const card = await forPage(cardPage(whoAsks(locals), params.key));
	redirect(303, `/boards/${card.board}?card=${card.number}`);
};
