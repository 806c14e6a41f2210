import { reads } from '$lib/server/answers';
import { NOTICES_OF, type NoticesOf } from '$core/pages/notices';
import { Problem } from '$lib/server/problem';
import { noticesPage } from '$lib/server/questions/notices';
import type { RequestEvent } from './$types';

/** What one is told. */
export const GET = reads('/api/notices', async ({ url }: RequestEvent, person) => {
	const of = (url.searchParams.get('of') ?? 'all') as NoticesOf;
	if (!NOTICES_OF.includes(of))
		throw new Problem(422, 'invalid.of', `Of notices one can ask for: ${NOTICES_OF.join(', ')}.`, 'of');
	return noticesPage(person, {
		text: url.searchParams.get('q') ?? '',
		of,
		before: url.searchParams.get('before') ?? undefined,
	});
});
