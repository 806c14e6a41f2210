import contentDisposition from 'content-disposition';
import { answers } from '$lib/server/answers';
import { fileNamed, isPicture } from '$lib/server/files';
import type { RequestEvent } from './$types';

/** A file of a card. Pictures are shown; whatever else it is is downloaded, and nothing in it ever runs. */
export const GET = answers(async ({ params, request }: RequestEvent, person) => {
	const { name, media, sha256, data } = await fileNamed(person, params.file);
	const shown = isPicture(media);
	const headers = {
		'content-type': shown ? media! : 'application/octet-stream',
		'content-disposition': contentDisposition(name, { type: shown ? 'inline' : 'attachment' }),
		'content-security-policy': "default-src 'none'; sandbox",
		'x-content-type-options': 'nosniff',
		'cross-origin-resource-policy': 'same-origin',
		// Whether somebody may still have it is asked each time.
		'cache-control': 'private, no-cache',
		etag: `"${sha256}"`,
	};
	if (request.headers.get('if-none-match') === headers.etag)
		return new Response(null, { status: 304, headers });
	return new Response(new Uint8Array(data), { headers });
});
