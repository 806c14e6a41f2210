import { reads } from '$lib/server/answers';
import { boardHead } from '$lib/server/questions/board-head';
import { lookBack } from '$lib/server/questions/look-back';
import type { RequestEvent } from './$types';

/** Velocity, reliability and carry-over of a board's closed sprints. */
export const GET = reads('/api/boards/{board}/look-back', async ({ params }: RequestEvent, person) =>
	lookBack(await boardHead(person, params.board)),
);
