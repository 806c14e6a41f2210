import { stringify } from 'csv-stringify/sync';
import { ACTIVITY_GROUPS } from '$core/activity/groups';
import { answers } from '$lib/server/answers';
import { activityRows } from '$lib/server/questions/activity';
import type { RequestEvent } from './$types';

/** What was done, as CSV. */
export const GET = answers(async ({ url }: RequestEvent, person) => {
	const { asked, rows } = await activityRows(person, (name) => url.searchParams.get(name));
	const lines = [
		['at', 'board', 'card', 'title', 'who', 'kind', 'what'],
		...rows.map(({ at, board, team, card, who, group, text }) => [
			at.toISOString(),
			team?.name ?? board.name,
			card?.key ?? '',
			card?.title ?? '',
			who?.name ?? '',
			ACTIVITY_GROUPS[group],
			text,
		]),
	];
	return new Response(stringify(lines, { escape_formulas: true }), {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="activity-${asked.from}-${asked.to}.csv"`,
		},
	});
});
