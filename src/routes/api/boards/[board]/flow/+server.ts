import { reads } from '$lib/server/answers';
import { boardHead } from '$lib/server/questions/board-head';
import { flowPage } from '$lib/server/questions/flow';
import type { RequestEvent } from './$types';

export const GET = reads('/api/boards/{board}/flow', async ({ params, url }: RequestEvent, person) => {
	const asked = (name: string) => url.searchParams.get(name);
	return flowPage(await boardHead(person, params.board), {
		from: asked('from'),
		to: asked('to'),
		days: asked('days'),
	});
});
