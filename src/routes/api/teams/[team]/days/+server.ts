import { reads } from '$lib/server/answers';
import { daysPage } from '$lib/server/questions/days';
import type { RequestEvent } from './$types';

export const GET = reads('/api/teams/{team}/days', ({ params, url }: RequestEvent, person) =>
	daysPage(person, params.team, url.searchParams.get('day')),
);
