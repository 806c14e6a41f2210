import { getRequestEvent } from '$app/server';
import { error, type RequestEvent } from '@sveltejs/kit';
import type { Read, Reads } from '../api.ts';
import { log } from './log.ts';
import { Problem, signedOut } from './problem.ts';
import type { Person } from './sign-in.ts';

/** Who asks; the hooks let nobody else through. */
export function whoAsks(locals: { person: Person | null }): Person {
	if (!locals.person) throw signedOut();
	return locals.person;
}

/** An API route: what it gives is answered as JSON, what it refuses as problem details. */
export function answers<E extends RequestEvent>(
	work: (event: E, person: Person) => Promise<unknown>,
): (event: E) => Promise<Response> {
	return async (event) => {
		try {
			const answer = await work(event, whoAsks(event.locals));
			return answer instanceof Response
				? answer
				: Response.json(answer, { headers: { 'cache-control': 'no-store' } });
		} catch (thrown) {
			if (thrown instanceof Problem) return thrown.response();
			log.error({
				path: event.url.pathname,
				error: thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown),
			});
			return new Problem(
				500,
				'server.failed',
				'Something went wrong on the server. Nothing was changed; try again.',
			).response();
		}
	};
}

/**
 * A read of the API: it answers what is declared for its path.
 * @param path as `lib/api.ts` declares it
 */
export function reads<P extends Read, E extends RequestEvent>(
	path: P,
	work: (event: E, person: Person) => Promise<Reads[P]>,
): ((event: E) => Promise<Response>) & { path: P } {
	return Object.assign(answers<E>(work), { path });
}

/** A page's question: what is refused becomes an error page in plain words. */
export async function forPage<T>(question: Promise<T>): Promise<T> {
	try {
		return await question;
	} catch (thrown) {
		if (!(thrown instanceof Problem)) throw thrown;
		getRequestEvent().locals.refused = thrown.status;
		error(thrown.status, { message: thrown.message, code: thrown.code });
	}
}
