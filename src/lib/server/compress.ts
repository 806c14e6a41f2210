import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

const LEAST_BYTES = 1400;
const TEXT = /^(text\/(?!event-stream)|application\/(json|problem\+json|javascript))/;
/** Levels at which computing costs less than the bytes would: pages are compressed once for each who asks. */
const [BROTLI, GZIP] = [4, 6];

const ways = {
	br: (body: Buffer) =>
		promisify(brotliCompress)(body, {
			params: {
				[constants.BROTLI_PARAM_QUALITY]: BROTLI,
				[constants.BROTLI_PARAM_SIZE_HINT]: body.byteLength,
			},
		}),
	gzip: (body: Buffer) => promisify(gzip)(body, { level: GZIP }),
};

/** The same answer in fewer bytes, where it is text of some length and whoever asks can read that; off the event loop. */
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
	const body = Buffer.from(await response.arrayBuffer());
	const { status, statusText } = response;
	if (body.byteLength < LEAST_BYTES) return new Response(body, { status, statusText, headers });
	headers.set('content-encoding', way);
	headers.delete('content-length');
	return new Response(new Uint8Array(await ways[way](body)), { status, statusText, headers });
}
