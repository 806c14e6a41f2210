import { reads } from '$lib/server/answers';
import { boardCards } from '$lib/server/questions/board-cards';
import { boardHead } from '$lib/server/questions/board-head';
import type { RequestEvent } from './$types';

export const GET = reads('/api/boards/{board}', async ({ params }: RequestEvent, person) => {
	const [head, cards] = await Promise.all([
		boardHead(person, params.board),
		boardCards(person, params.board),
	]);
	return { ...head, ...cards };
});
