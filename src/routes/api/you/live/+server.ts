import { answers } from '$lib/server/answers';
import { listenAlone } from '$lib/server/live';
import { Problem } from '$lib/server/problem';
import { bearerOf, personOfRequest, SESSION_COOKIE } from '$lib/server/sign-in';
import { stream, STREAM } from '$lib/server/stream';
import type { RequestEvent } from './$types';

/** That one has another notice, as server-sent events: for pages of no board. */
export const GET = answers(async ({ request, cookies }: RequestEvent, person) => {
	if (request.method === 'HEAD') return new Response(null, { headers: STREAM });
	const stillAllowed = async () => {
		try {
			return (await personOfRequest(bearerOf(request), cookies.get(SESSION_COOKIE))) !== null;
		} catch (error) {
			if (error instanceof Problem && error.status < 500) return false;
			throw error;
		}
	};
	return stream(person.id, stillAllowed, listenAlone);
});
