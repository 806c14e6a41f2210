import { answers } from '$lib/server/answers';
import { changesAfter, listen, type Change } from '$lib/server/live';
import { boardHead } from '$lib/server/questions/board-head';
import { Problem } from '$lib/server/problem';
import { bearerOf, personOfRequest, SESSION_COOKIE } from '$lib/server/sign-in';
import type { RequestEvent } from './$types';

const HEARTBEAT_MS = Number(process.env.HARROW_HEARTBEAT_MS ?? 20_000);
const STREAM = {
	'content-type': 'text/event-stream',
	'cache-control': 'no-store',
	'x-accel-buffering': 'no',
};

/** The changes of a board as server-sent events. A page that was away says the last number it saw and gets the rest first. */
export const GET = answers(async ({ params, url, request, cookies }: RequestEvent, person) => {
	const { id, seq } = await boardHead(person, params.board);
	if (request.method === 'HEAD') return new Response(null, { headers: STREAM });
	const said = Number(request.headers.get('last-event-id') ?? url.searchParams.get('since') ?? seq);
	const since = Number.isSafeInteger(said) && said >= 0 ? Math.min(said, seq) : seq;
	const text = new TextEncoder();
	let stop = () => undefined as void;
	const body = new ReadableStream<Uint8Array>({
		async start(controller) {
			const say = (line: string) => {
				try {
					controller.enqueue(text.encode(line));
				} catch {
					stop();
				}
			};
			const tell = (change: Change) => say(`id: ${change.seq}\ndata: ${JSON.stringify(change)}\n\n`);
			let ended = false;
			const end = () => {
				stop();
				// The page may have gone meanwhile, and with it the stream.
				if (!ended && controller.desiredSize !== null) controller.close();
				ended = true;
			};
			// A stream lives no longer than the right to it: a session that ended, or a board no longer seen, ends it.
			const stillAllowed = async () => {
				const still = await personOfRequest(bearerOf(request), cookies.get(SESSION_COOKIE));
				if (still) await boardHead(still, params.board);
				return still !== null;
			};
			const heartbeat = setInterval(() => {
				stillAllowed().then(
					(allowed) => (allowed ? say(': still here\n\n') : end()),
					(error) => error instanceof Problem && end(),
				);
			}, HEARTBEAT_MS);
			const leave = await listen(id, since, (change) => {
				if (change !== 'end') return tell(change);
				end();
			});
			stop = () => {
				clearInterval(heartbeat);
				leave();
			};
			say('retry: 1000\n\n');
			tell(await changesAfter(id, since));
		},
		cancel: () => stop(),
	});
	return new Response(body, { headers: STREAM });
});
