import { answers } from '$lib/server/answers';
import { listenToAll } from '$lib/server/live';
import { Problem } from '$lib/server/problem';
import { teamSeen } from '$lib/server/questions/team';
import { bearerOf, personOfRequest, SESSION_COOKIE } from '$lib/server/sign-in';
import { stream, STREAM } from '$lib/server/stream';
import type { RequestEvent } from './$types';

/** That something happened on a board of a team, as server-sent events: for pages of several boards. */
export const GET = answers(async ({ params, request, cookies }: RequestEvent, person) => {
	const boards = await teamSeen(person, params.team);
	if (request.method === 'HEAD') return new Response(null, { headers: STREAM });
	const known = JSON.stringify(boards.map(({ id }) => id));
	const stillAllowed = async () => {
		try {
			const still = await personOfRequest(bearerOf(request), cookies.get(SESSION_COOKIE));
			if (still === null) return false;
			// Other boards than before: the page comes again, and listens to those.
			return JSON.stringify((await teamSeen(still, params.team)).map(({ id }) => id)) === known;
		} catch (error) {
			if (error instanceof Problem && error.status < 500) return false;
			throw error;
		}
	};
	return stream(person.id, stillAllowed, (listener) => listenToAll(boards, listener));
});
