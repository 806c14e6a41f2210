import { reads } from '$lib/server/answers';
import { boardHead } from '$lib/server/questions/board-head';
import { reportPage } from '$lib/server/questions/report';
import type { RequestEvent } from './$types';

/** The report of a sprint: its ledger with every stint, day by day, and why cards were not finished. */
export const GET = reads('/api/boards/{board}/look-back/{sprint}', async ({ params }: RequestEvent, person) =>
	reportPage(await boardHead(person, params.board), Number(params.sprint)),
);
