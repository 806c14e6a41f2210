import { answers } from '$lib/server/answers';
import { isId } from '$lib/server/asked';
import { isStopping, listen } from '$lib/server/live';
import { arrive, leave, stay } from '$lib/server/presence';
import { boardSeen } from '$lib/server/questions/board-seen';
import { Problem } from '$lib/server/problem';
import { bearerOf, personOfRequest, SESSION_COOKIE } from '$lib/server/sign-in';
import { stream, STREAM } from '$lib/server/stream';
import type { RequestEvent } from './$types';

/** The changes of a board as server-sent events. A page that was away says the last number it saw and gets the rest first. */
export const GET = answers(async ({ params, url, request, cookies }: RequestEvent, person) => {
	const { id, seq } = await boardSeen(person, params.board);
	if (request.method === 'HEAD') return new Response(null, { headers: STREAM });
	const said = Number(request.headers.get('last-event-id') ?? url.searchParams.get('since') ?? seq);
	const since = Number.isSafeInteger(said) && said >= 0 ? Math.min(said, seq) : seq;
	const page = url.searchParams.get('page');
	const here = page && isId(page) ? page : null;
	const stillAllowed = async () => {
		try {
			const still = await personOfRequest(bearerOf(request), cookies.get(SESSION_COOKIE));
			const may = still !== null && (await boardSeen(still, params.board)) !== null;
			if (may && here) await stay(here);
			return may;
		} catch (error) {
			if (error instanceof Problem && error.status < 500) return false;
			throw error;
		}
	};
	return stream(person.id, stillAllowed, async (listener) => {
		const stop = await listen(id, since, listener);
		if (!here) return stop;
		// That somebody looks is told to the others as long as the page listens.
		void arrive(here, person, id).catch(() => undefined);
		return () => {
			stop();
			// A process that is stopped asks nothing more: the page comes to another one, or is let go.
			if (!isStopping()) void leave(here).catch(() => undefined);
		};
	});
});
