import { reads } from '$lib/server/answers';
import { cardPage } from '$lib/server/questions/card';
import type { RequestEvent } from './$types';

export const GET = reads('/api/cards/{key}', ({ params }: RequestEvent, person) =>
	cardPage(person, params.key),
);
