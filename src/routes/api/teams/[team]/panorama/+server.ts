import { readAskedFor } from '$core/panorama/asked';
import { reads } from '$lib/server/answers';
import { panoramaPage } from '$lib/server/questions/panorama';
import type { RequestEvent } from './$types';

export const GET = reads('/api/teams/{team}/panorama', ({ params, url }: RequestEvent, person) =>
	panoramaPage(person, params.team, readAskedFor(url.searchParams)),
);
