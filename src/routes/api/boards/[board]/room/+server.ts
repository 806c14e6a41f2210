import { reads } from '$lib/server/answers';
import { boardHead } from '$lib/server/questions/board-head';
import { roomIn } from '$lib/server/questions/room';
import type { RequestEvent } from './$types';

export const GET = reads('/api/boards/{board}/room', async ({ params, url }: RequestEvent, person) => {
	const asked = Number(url.searchParams.get('sprint'));
	return roomIn(await boardHead(person, params.board), asked > 0 && Number.isInteger(asked) ? asked : null);
});
