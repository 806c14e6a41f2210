import { Problem } from './problem.ts';

/** So many bytes the body of a request may have, where it is no file. */
const MOST = 1_500_000;

/** So many times as much as there may be is read before the line is cut: whoever sends more hears why only then. */
const PATIENCE = 40;

const tooLarge = () => Object.assign(new Error('too large'), { status: 413 });

/** A request of whose body only so much is taken in: the server lets more come, for files. */
export function limited(request: Request): Request {
	if (!request.body) return request;
	let read = 0;
	const body = request.body.pipeThrough(
		new TransformStream<Uint8Array, Uint8Array>({
			transform(chunk, out) {
				read += chunk.byteLength;
				if (read <= MOST) out.enqueue(chunk);
				else if (read > MOST * PATIENCE) out.error(tooLarge());
			},
			flush(out) {
				if (read > MOST) out.error(tooLarge());
			},
		}),
	);
	return new Request(request, { body, duplex: 'half' } as RequestInit);
}

const MB = 1_000_000;
const setting = (name: string, usual: number) => {
	const set = Number(process.env[name]);
	return (set > 0 ? set : usual) * MB;
};

/** How large one file may be, and all files of a card together, in bytes: HARROW_FILE_MB and HARROW_CARD_FILES_MB set it. */
export const fileLimits = () => ({
	file: setting('HARROW_FILE_MB', 20),
	card: setting('HARROW_CARD_FILES_MB', 200),
});

/**
 * A file that is sent as the body of a request.
 * @throws Problem 413 where it is too large, 400 where it was cut off
 */
export async function fileOf(request: Request): Promise<Buffer> {
	const most = fileLimits().file;
	const tooMuch = () =>
		new Problem(
			413,
			'file.too_large',
			`A file may have at most ${most / MB} MB; this one is larger.`,
			'file',
		);
	const said = request.headers.get('content-length');
	// Whoever sends more hears why only once all of it was taken: it is read on for a while, and not kept.
	if (Number(said) > most * PATIENCE) throw tooMuch();
	if (!request.body && Number(said) > 0)
		throw new Problem(
			415,
			'file.no_type',
			'Send the file with the header content-type: application/octet-stream.',
			'file',
		);
	const parts: Uint8Array[] = [];
	let read = 0;
	try {
		for await (const part of (request.body ?? []) as AsyncIterable<Uint8Array>) {
			read += part.byteLength;
			if (read > most * PATIENCE) throw tooMuch();
			if (read <= most) parts.push(part);
			else parts.length = 0;
		}
	} catch (thrown) {
		if (thrown instanceof Problem) throw thrown;
		if ((thrown as { status?: number }).status === 413) throw tooMuch();
		throw new Problem(
			400,
			'file.cut_off',
			'The file did not come through whole. Nothing was kept; send it again.',
			'file',
		);
	}
	if (read > most) throw tooMuch();
	if (!read) throw new Problem(422, 'file.empty', 'The file is empty.', 'file');
	if (said !== null && Number(said) !== read)
		throw new Problem(
			400,
			'file.cut_off',
			'The file did not come through whole. Nothing was kept; send it again.',
			'file',
		);
	return Buffer.concat(parts);
}
