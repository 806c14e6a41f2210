import { forPage, whoAsks } from '$lib/server/answers';
import { placesOf } from '$lib/server/questions/board-head';

/** Whoever comes from a board keeps its places in sight: `?from=tidewatch`. */
export const load = async ({ locals, params, url }) => {
	const from = url.searchParams.get('from');
	return { from: from ? await forPage(placesOf(whoAsks(locals), params.team, from)) : null };
};
