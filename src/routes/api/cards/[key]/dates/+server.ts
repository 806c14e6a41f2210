import { reads } from '$lib/server/answers';
import { datesPage } from '$lib/server/questions/dates';
import type { RequestEvent } from './$types';

export const GET = reads('/api/cards/{key}/dates', ({ params, url }: RequestEvent, person) =>
	datesPage(person, params.key, (name) => url.searchParams.get(name)),
);
