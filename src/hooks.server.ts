import { building } from '$app/environment';
import type { Handle, HandleServerError } from '@sveltejs/kit';
import { limited } from '$lib/server/body-limit';
import { compressed } from '$lib/server/compress';
import { closeDatabase, openAhead } from '$lib/server/database';
import { printSetUpCode, unclaimed } from '$lib/server/first-run';
import { startJobs, stopJobs } from '$lib/server/jobs';
import { stopLive } from '$lib/server/live';
import { log } from '$lib/server/log';
import { Problem, signedOut } from '$lib/server/problem';
import { refusalOf } from '$lib/server/refusals';
import { bearerOf, personOfRequest, SESSION_COOKIE } from '$lib/server/sign-in';
import { type Respond, warmUp } from '$lib/server/warm';

// What failed and nobody waited for, as in a package, is no reason to end what others do.
function unheard(error: unknown): void {
	const { stack, message } = error instanceof Error ? error : new Error(String(error));
	if (refusalOf(error)) log.warn({ error: message }, 'the database was away');
	else log.error({ error: stack }, 'nobody waited for what failed');
}
if (!building) process.on('unhandledRejection', unheard);

// Streams would hold the process up: they end first, then the server closes. Before it listens there is nothing to close.
let begun = false;
for (const signal of ['SIGTERM', 'SIGINT'] as const)
	process.once(signal, () => {
		const stopped = Promise.all([stopLive(), stopJobs()]);
		if (!begun) void stopped.then(() => process.exit(0));
	});
// Jobs that are being done end first: what they ask would open connections again. What holds the process up after that, such
// as a worker that was told to stop while it began, is let go.
const LET_GO_MS = 2000;
process.once('sveltekit:shutdown', () => {
	void stopJobs().then(() => closeDatabase(true));
	setTimeout(() => process.exit(0), LET_GO_MS).unref();
});

const OPEN = ['/sign-in', '/forgotten', '/health', '/api/openapi.json', '/api/mail'];
/** Links that let people in carry their right with them. */
const LINKS = /^\/(join|reset|stop|calendar)\/[^/]+$/;
/** What comes from programs that are no browser: it carries its right with it, and no cookie counts. */
const FROM_ELSEWHERE = /^\/(api\/mail|stop\/[^/]+|calendar\/[^/]+)$/;

/** What pages are made of is read while nobody waits yet, not with the first look at each. */
const PAGES = import.meta.glob('./routes/**/+{page,layout}.{svelte,server.ts}');
async function readPages(): Promise<void> {
	for (const page of Object.values(PAGES)) await page();
}

/** @param respond answers requests as the server will (scripts/sveltekit.ts) */
export const init = async (respond: Respond) => {
	if (building) return;
	const opened = openAhead();
	await readPages();
	// Where the database is away for a moment the server starts all the same, and says the code when it is asked for.
	void startJobs();
	const said = printSetUpCode().catch((error: Error) =>
		log.warn({ error: error.message }, 'no set-up code was printed'),
	);
	await Promise.all([opened, said]);
	const later = process.env.HARROW_WARM === 'off' ? null : await warmUp(respond);
	begun = true;
	void later?.();
};

export const handle: Handle = async ({ event, resolve }) => {
	const began = performance.now();
	const { request, url, cookies, locals } = event;
	const bearer = bearerOf(request);
	// Files may be large; nothing else is.
	if (!['/api/uploads', '/api/mail'].includes(url.pathname)) event.request = limited(request);
	if (!bearer && !FROM_ELSEWHERE.test(url.pathname) && !sameOrigin(request))
		return new Problem(
			403,
			'origin.foreign',
			'This request came from another site and was not carried out.',
		).response();
	try {
		locals.person = event.platform?.visitor ?? (await personOfRequest(bearer, cookies.get(SESSION_COOKIE)));
	} catch (thrown) {
		if (!(thrown instanceof Problem)) throw thrown;
		return url.pathname.startsWith('/api/') || bearer ? thrown.response() : away(thrown);
	}
	locals.theme = known(cookies.get('harrow_theme'), ['light', 'dark']);
	locals.density = known(cookies.get('harrow_density'), ['compact', 'comfortable']);
	const path = url.pathname;
	const open = OPEN.includes(path) || LINKS.test(path) || path.startsWith('/_app/');
	if (!locals.person && !bearer && !path.startsWith('/_app/') && !['/health', '/first'].includes(path)) {
		// A database without people: there is one page, and nothing else.
		const fresh = await unclaimed().catch(() => false);
		if (fresh && path.startsWith('/api/')) return signedOut().response();
		if (fresh) return new Response(null, { status: 303, headers: { location: '/first' } });
	}
	if (!locals.person && !open && path !== '/first') {
		if (url.pathname.startsWith('/api/') || bearer) return signedOut().response();
		const next = url.pathname === '/' ? '' : `?next=${encodeURIComponent(url.pathname + url.search)}`;
		return new Response(null, { status: 303, headers: { location: `/sign-in${next}` } });
	}
	let response = await resolve(event, {
		transformPageChunk: ({ html }) =>
			html.replace('%harrow.theme%', locals.theme).replace('%harrow.density%', locals.density),
		preload: ({ type, path }) =>
			type === 'js' || type === 'css' || (type === 'font' && path.includes('latin-wght')),
	});
	response.headers.set('x-content-type-options', 'nosniff');
	response.headers.set('referrer-policy', 'same-origin');
	if (response.headers.get('content-type')?.startsWith('text/html')) {
		// One of which a part comes later is answered as if nothing had been refused.
		if (response.status === 200 && locals.refused)
			response = new Response(response.body, { status: locals.refused, headers: response.headers });
	}
	const took = Math.round((performance.now() - began) * 10) / 10;
	if (!event.platform?.visitor)
		log.info({
			method: request.method,
			// What carries its right with it is written nowhere.
			path: LINKS.test(path) ? path.replace(/[^/]+$/, '…') : path,
			status: response.status,
			took,
			person: locals.person?.id,
		});
	return compressed(request, response);
};

/** What a page says while the database cannot be reached; it tries again by itself. */
function away({ message, status }: Problem): Response {
	const page = `<!doctype html><html lang="en-GB"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<meta http-equiv="refresh" content="3"><title>Harrow</title><body style="font: 1rem/1.5 sans-serif; margin: 3rem auto; max-width: 34rem; padding: 0 1rem">
<h1>Harrow is not to be had for a moment</h1><p>${message}</p><p>This page tries again by itself.</p>`;
	return new Response(page, {
		status,
		headers: { 'content-type': 'text/html; charset=utf-8', 'retry-after': '2', 'cache-control': 'no-store' },
	});
}

/** State may be changed from Harrow's own pages only; scripts bring a token instead of a cookie. */
function sameOrigin(request: Request): boolean {
	if (['GET', 'HEAD', 'OPTIONS'].includes(request.method)) return true;
	const origin = request.headers.get('origin');
	try {
		return origin !== null && new URL(origin).host === request.headers.get('host');
	} catch {
		return false;
	}
}

function known(value: string | undefined, values: string[]): string {
	return value && values.includes(value) ? value : '';
}

export const handleError: HandleServerError = ({ error, event, status, message }) => {
	event.locals.refused = status;
	if (status === 404) return { message: 'There is no such page.' };
	log.error({
		path: event.url.pathname,
		error: error instanceof Error ? (error.stack ?? error.message) : String(error),
	});
	return {
		message:
			status >= 500 ? 'Something went wrong on the server. Nothing you wrote is lost; try again.' : message,
	};
};
