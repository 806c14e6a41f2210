/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
import { build, files, version } from '$service-worker';

/*
 * Keeps what somebody has read on this device, so that it can be read without a connection. With one, the server always
 * answers; what is kept is only what it answered last. Commands never come here: they wait in the page's outbox.
 */
const worker = self as unknown as ServiceWorkerGlobalScope;

const PARTS = `harrow-parts-${version}`;
const PAGES = `harrow-pages-${version}`;
/** Pages that somebody will want on the way, kept as soon as there is anything to keep. */
const FIRST = ['/mine', '/notices', '/'];
/** Where people come in: nothing of it is kept. */
const OUTSIDE = /^\/(sign-in|first|join|reset|forgotten|stop)\b/;
/** So many pages and reads are kept; those that were kept first go first. */
const MOST = 150;
/** How often everything kept was thrown away: an answer that was asked for before is not kept any more. */
let forgotten = 0;

worker.addEventListener('install', (event) => {
	event.waitUntil(
		caches
			.open(PARTS)
			.then((cache) => cache.addAll([...build, ...files]))
			.then(() => worker.skipWaiting()),
	);
});

worker.addEventListener('activate', (event) => {
	event.waitUntil(
		(async () => {
			// Pages of an older build would ask for parts that are no more: they go together.
			for (const name of await caches.keys()) if (name !== PARTS && name !== PAGES) await caches.delete(name);
			await worker.clients.claim();
			await Promise.all(FIRST.map(keep));
		})(),
	);
});

worker.addEventListener('message', (event) => {
	const said = event.data as { keep?: string; forget?: true };
	if (said.keep) event.waitUntil(keep(said.keep));
	if (said.forget) event.waitUntil(forget());
});

worker.addEventListener('fetch', (event) => {
	const { request } = event;
	const url = new URL(request.url);
	// What was asked for just before, and is answered while somebody signs out, is thrown away with the rest.
	if (request.method === 'POST' && url.pathname === '/sign-out')
		return event.respondWith(fetch(request).finally(forget));
	if (request.method !== 'GET' || url.origin !== worker.location.origin) return;
	if (build.includes(url.pathname) || files.includes(url.pathname)) event.respondWith(part(request));
	else if (request.mode === 'navigate' || /^\/api\/(cards|mine|notices|boards)(\/[^/]+)?$/.test(url.pathname))
		event.respondWith(read(event));
});

async function part(request: Request): Promise<Response> {
	return (await caches.match(request)) ?? fetch(request);
}

/** What the server answers, else what it answered last. A page is shown while it comes; it is kept once it is whole. */
async function read(event: FetchEvent): Promise<Response> {
	const { request } = event;
	const since = forgotten;
	try {
		const answer = await fetch(request);
		event.waitUntil(remember(request.url, answer.clone(), since).catch(() => undefined));
		if (![502, 503, 504].includes(answer.status)) return answer;
		return (await kept(request)) ?? answer;
	} catch (error) {
		const known = await kept(request);
		if (known) return known;
		throw error;
	}
}

/** Reads a page as it would be opened, to have it without a connection. */
async function keep(path: string): Promise<void> {
	const url = new URL(path, worker.location.origin);
	if (url.origin !== worker.location.origin) return;
	const since = forgotten;
	await fetch(url, { headers: { accept: 'text/html' } })
		.then((answer) => remember(url.href, answer, since))
		.catch(() => undefined);
}

async function forget(): Promise<void> {
	forgotten += 1;
	await caches.delete(PAGES);
}

/** Keeps an answer that was asked for when things had been thrown away `since` times. */
async function remember(url: string, answer: Response, since: number): Promise<void> {
	// Whoever is signed out, or never was in, leaves nothing behind.
	if (answer.status === 401 || (answer.redirected && new URL(answer.url).pathname === '/sign-in'))
		return forget();
	// What somebody may not see any more is not kept either.
	if ([403, 404].includes(answer.status)) {
		const cache = await caches.open(PAGES);
		return void (await cache.delete(url));
	}
	if (!answer.ok || answer.redirected || OUTSIDE.test(new URL(url).pathname)) return;
	const cache = await caches.open(PAGES);
	if (since !== forgotten) return;
	await cache.put(url, answer);
	// Thrown away while it was being kept: this goes after the rest.
	if (since !== forgotten) return void (await caches.delete(PAGES));
	const known = await cache.keys();
	for (const old of known.slice(0, Math.max(0, known.length - MOST))) await cache.delete(old);
}

/** What is kept of an address; a page says of itself since when. */
async function kept(request: Request): Promise<Response | undefined> {
	const cache = await caches.open(PAGES);
	const answer = await cache.match(request.url);
	if (!answer || request.mode !== 'navigate') return answer;
	const html = await answer.text();
	const at = Date.parse(answer.headers.get('date') ?? '') || Date.now();
	return new Response(html.replace('<html ', `<html data-kept="${at}" `), {
		status: answer.status,
		headers: answer.headers,
	});
}
