import { reads } from '$lib/server/answers';
import { noticesPage } from '$lib/server/questions/notices';
import type { RequestEvent } from './$types';

/** What one is told. */
export const GET = reads('/api/notices', async ({ url }: RequestEvent, person) =>
	noticesPage(person, {
		text: url.searchParams.get('q') ?? '',
		away: url.searchParams.has('away'),
		before: url.searchParams.get('before') ?? undefined,
	}),
);
