import { answers } from '$lib/server/answers';
import { describedWith } from '$lib/server/questions/words';
import type { RequestEvent } from './$types';

/** The ids of open cards whose description has all of these words. */
export const GET = answers(async ({ params, url }: RequestEvent, person) =>
	Response.json(await describedWith(person, [params.board], url.searchParams.get('q') ?? '')),
);
