import { MINE, type MineOf } from '$core/pages/mine';
import { reads } from '$lib/server/answers';
import { Problem } from '$lib/server/problem';
import { minePage } from '$lib/server/questions/mine';
import type { RequestEvent } from './$types';

/** One's own cards over all boards. */
export const GET = reads('/api/mine', async ({ url }: RequestEvent, person) => {
	const of = url.searchParams.get('of') ?? 'mine';
	if (!MINE.includes(of as MineOf))
		throw new Problem(422, 'invalid.of', `Of one’s cards one can ask for: ${MINE.join(', ')}.`, 'of');
	return minePage(person, of as MineOf);
});
