import { Problem } from '$lib/server/problem';
import { calendarOf } from '$lib/server/questions/calendar';
import { countGuess, mayGuess } from '$lib/server/sign-in';
import type { RequestEvent } from './$types';

/** A calendar under its private address (iCalendar): whoever has the address needs nothing else. */
export const GET = async ({ params, url, getClientAddress }: RequestEvent) => {
	try {
		await mayGuess(getClientAddress());
		const text = await calendarOf(params.secret.replace(/\.ics$/, ''), url.origin);
		if (text === null) {
			await countGuess(getClientAddress());
			throw new Problem(
				404,
				'calendar.not_found',
				'There is no calendar at this address: it was never made, or it has been ended.',
			);
		}
		return new Response(text, {
			headers: {
				'content-type': 'text/calendar; charset=utf-8',
				'content-disposition': 'inline; filename="harrow.ics"',
				'cache-control': 'private, no-cache',
			},
		});
	} catch (thrown) {
		if (thrown instanceof Problem) return thrown.response();
		throw thrown;
	}
};
