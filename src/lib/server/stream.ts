import type { Listener } from './live.ts';

const HEARTBEAT_MS = Number(process.env.HARROW_HEARTBEAT_MS ?? 20_000);
/** What may wait for a page that does not read. */
const MOST_WAITING_BYTES = 1_000_000;
export const STREAM = {
	'content-type': 'text/event-stream',
	'cache-control': 'no-store',
	'x-accel-buffering': 'no',
};

/**
 * Server-sent events to a page of a person, for as long as they may have them.
 * @param stillAllowed whether they may; fails where that cannot be known now
 * @param listen begins to tell a listener, and answers what ends that
 */
export function stream(
	person: string,
	stillAllowed: () => Promise<boolean>,
	listen: (listener: Listener) => Promise<() => void>,
): Response {
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
					if (!(await stillAllowed()) || !say(': still here\n\n')) end();
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
					leave = await listen({ person, tell: say, check, end: () => end() });
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
}
