import { answers } from '$lib/server/answers';
import { listen } from '$lib/server/live';
import { boardSeen } from '$lib/server/questions/board-seen';
import { Problem } from '$lib/server/problem';
import { bearerOf, personOfRequest, SESSION_COOKIE } from '$lib/server/sign-in';
import type { RequestEvent } from './$types';

const HEARTBEAT_MS = Number(process.env.HARROW_HEARTBEAT_MS ?? 20_000);
/** What may wait for a page that does not read. */
const MOST_WAITING_BYTES = 1_000_000;
const STREAM = {
	'content-type': 'text/event-stream',
	'cache-control': 'no-store',
	'x-accel-buffering': 'no',
};

/** The changes of a board as server-sent events. A page that was away says the last number it saw and gets the rest first. */
export const GET = answers(async ({ params, url, request, cookies }: RequestEvent, person) => {
	const { id, seq } = await boardSeen(person, params.board);
	if (request.method === 'HEAD') return new Response(null, { headers: STREAM });
	const said = Number(request.headers.get('last-event-id') ?? url.searchParams.get('since') ?? seq);
	const since = Number.isSafeInteger(said) && said >= 0 ? Math.min(said, seq) : seq;
	const text = new TextEncoder();
	/** Ends the stream: from here, or (gone) since the page has left and nothing can be closed any more. */
	let end = (_gone = false) => undefined as void;
	const body = new ReadableStream<Uint8Array>(
		{
			async start(controller) {
				let leave = () => undefined as void;
				let ended = false;
				const say = (line: string | Uint8Array): boolean => {
					if (ended || (controller.desiredSize ?? 0) <= 0) return false;
					controller.enqueue(typeof line === 'string' ? text.encode(line) : line);
					return true;
				};
				// A stream lives no longer than the right to it: a session that ended, or a board no longer seen, ends it.
				const check = async () => {
					const allowed = await stillAllowed().catch((error: unknown) => {
						if (error instanceof Problem && error.status < 500) return false;
						throw error;
					});
					if (!allowed || !say(': still here\n\n')) end();
				};
				const stillAllowed = async () => {
					const still = await personOfRequest(bearerOf(request), cookies.get(SESSION_COOKIE));
					return still !== null && (await boardSeen(still, params.board)) !== null;
				};
				const heartbeat = setInterval(() => void check().catch(() => undefined), HEARTBEAT_MS);
				end = (gone = false) => {
					clearInterval(heartbeat);
					leave();
					if (ended) return;
					ended = true;
					if (!gone) controller.close();
				};
				say('retry: 1000\n\n');
				try {
					leave = await listen(id, since, {
						person: person.id,
						tell: say,
						check,
						end: () => end(),
					});
					if (ended) leave();
					// A right that ended before anybody heard for this page was told to nobody.
					else await check().catch(() => undefined);
				} catch {
					// The page tries again by itself.
					end();
				}
			},
			cancel: () => end(true),
		},
		{ highWaterMark: MOST_WAITING_BYTES, size: (chunk) => chunk.byteLength },
	);
	return new Response(body, { headers: STREAM });
});
