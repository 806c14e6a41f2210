import { reads } from '$lib/server/answers';
import { Problem } from '$lib/server/problem';
import { teamDates } from '$lib/server/questions/dates';
import type { RequestEvent } from './$types';

/** What would follow from other dates of many cards; it reads, though what it asks is too long for an address. */
export const POST = reads('/api/teams/{team}/dates', async ({ params, request }: RequestEvent, person) => {
	const given = await request.json().catch(() => {
		throw new Problem(400, 'body.malformed', 'Send a JSON object with cards.');
	});
	return teamDates(person, params.team, given?.cards);
});
