import { reads } from '$lib/server/answers';
import { boardHead } from '$lib/server/questions/board-head';
import { shiftPage } from '$lib/server/questions/dates';
import type { RequestEvent } from './$types';

export const GET = reads('/api/boards/{board}/shift', async ({ params, url }: RequestEvent, person) =>
	shiftPage(await boardHead(person, params.board), person, (name) => url.searchParams.get(name)),
);
