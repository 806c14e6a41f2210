import { pipeline, Readable, type Duplex } from 'node:stream';
import { setImmediate as rest } from 'node:timers/promises';
import { promisify } from 'node:util';
import { brotliCompress, constants, createBrotliCompress, createGzip, gzip } from 'node:zlib';

const LEAST_BYTES = 1400;
const TEXT = /^(text\/(?!event-stream)|application\/(json|problem\+json|javascript))/;
/** Levels at which computing costs less than the bytes would: pages are compressed once for each who asks. */
const [BROTLI, GZIP] = [4, 6];

const ways = {
	br: {
		whole: (body: Buffer) =>
			promisify(brotliCompress)(body, {
				params: {
					[constants.BROTLI_PARAM_QUALITY]: BROTLI,
					[constants.BROTLI_PARAM_SIZE_HINT]: body.byteLength,
				},
			}),
		inParts: () =>
			createBrotliCompress({
				flush: constants.BROTLI_OPERATION_FLUSH,
				params: { [constants.BROTLI_PARAM_QUALITY]: BROTLI },
			}),
	},
	gzip: {
		whole: (body: Buffer) => promisify(gzip)(body, { level: GZIP }),
		inParts: () => createGzip({ level: GZIP, flush: constants.Z_SYNC_FLUSH }),
	},
};

/**
 * The same answer in fewer bytes, where it is text of some length and whoever asks can read that; off the event loop. What
 * comes in parts is passed on in parts.
 */
export async function compressed(request: Request, response: Response): Promise<Response> {
	const { headers } = response;
	if (!response.body || request.method === 'HEAD' || headers.has('content-encoding')) return response;
	if (!TEXT.test(headers.get('content-type') ?? '')) return response;
	headers.append('vary', 'accept-encoding');
	const accepted = (request.headers.get('accept-encoding') ?? '').split(',').map((one) => one.split(';'));
	const way = (['br', 'gzip'] as const).find((name) =>
		accepted.some(([known, weight = '']) => known!.trim() === name && !/^\s*q=0(\.0*)?\s*$/.test(weight)),
	);
	if (!way) return response;
	const { status, statusText } = response;
	const body = await taken(response.body);
	if ('whole' in body && body.whole.byteLength < LEAST_BYTES)
		return new Response(body.whole, { status, statusText, headers });
	headers.set('content-encoding', way);
	headers.delete('content-length');
	const packed =
		'whole' in body
			? new Uint8Array(await ways[way].whole(body.whole))
			: packedInParts(body.parts, ways[way].inParts());
	return new Response(packed, { status, statusText, headers });
}

/** Where whoever asked goes before its end, both are let go of, and nobody else hears of it. */
function packedInParts(parts: AsyncIterable<Uint8Array>, way: Duplex): ReadableStream {
	pipeline(Readable.from(parts), way, () => undefined);
	return Readable.toWeb(way) as ReadableStream;
}

/** A body that is there at once; else all of it, part by part. */
async function taken(
	body: ReadableStream<Uint8Array>,
): Promise<{ whole: Buffer<ArrayBuffer> } | { parts: AsyncIterable<Uint8Array> }> {
	const reader = body.getReader();
	const there: Uint8Array[] = [];
	for (;;) {
		const next = reader.read();
		const part = await Promise.race([next, rest(null)]);
		if (!part) {
			// Nobody may come to read it.
			next.catch(() => undefined);
			return { parts: onwards(there, next, reader) };
		}
		if (part.done) return { whole: Buffer.concat(there) };
		there.push(part.value);
	}
}

type Part = Awaited<ReturnType<ReadableStreamDefaultReader<Uint8Array>['read']>>;

async function* onwards(
	there: Uint8Array[],
	next: Promise<Part>,
	reader: ReadableStreamDefaultReader<Uint8Array>,
): AsyncGenerator<Uint8Array> {
	try {
		yield Buffer.concat(there);
		for (let part = await next; !part.done; part = await reader.read()) yield part.value;
	} finally {
		// Whoever asked may have gone.
		await reader.cancel();
	}
}
