import { reads } from '$lib/server/answers';
import { teamConditions } from '$lib/server/questions/sift';
import type { RequestEvent } from './$types';

export const GET = reads('/api/teams/{team}/conditions', ({ params }: RequestEvent, person) =>
	teamConditions(person, params.team),
);
