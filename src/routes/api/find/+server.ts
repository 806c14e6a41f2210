import { reads } from '$lib/server/answers';
import { find } from '$lib/server/questions/find';

export const GET = reads('/api/find', ({ url }, person) =>
	find(person, url.searchParams.get('q') ?? '', url.searchParams.get('board')),
);
