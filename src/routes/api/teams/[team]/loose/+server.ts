import { reads } from '$lib/server/answers';
import { looseCards } from '$lib/server/questions/panorama';
import type { RequestEvent } from './$types';

export const GET = reads('/api/teams/{team}/loose', ({ params }: RequestEvent, person) =>
	looseCards(person, params.team),
);
