import { redirect } from '@sveltejs/kit';
import { forPage, whoAsks } from '$lib/server/answers';
import { askedOne } from '$lib/server/questions/ask';
import { cardPage } from '$lib/server/questions/card';

/** A card's lasting address: it leads to the card beside its board. */
export const load = async ({ params, locals }) => {
	const person = whoAsks(locals);
	const card = await cardPage(person, params.key).catch(async (thrown: unknown) => {
		// Whoever asked for it sees its way, though not the board.
		const asked = await askedOne(person, params.key).catch(() => null);
		if (asked) redirect(303, `/asked/${asked.key}`);
		return forPage(Promise.reject(thrown) as Promise<never>);
	});
	redirect(303, `/boards/${card.board}?card=${card.number}`);
};
