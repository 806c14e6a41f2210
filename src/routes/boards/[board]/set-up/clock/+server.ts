import type { ClockMoved } from '$core/pages/settings';
import { answers } from '$lib/server/answers';
import { Problem } from '$lib/server/problem';
import { boardHead } from '$lib/server/questions/board-head';
import { flowPage } from '$lib/server/questions/flow';
import type { RequestEvent } from './$types';

/** What flow says now, and what it would say if the clock of cards started in another column: `?column=`. */
export const GET = answers(async ({ params, url }: RequestEvent, person): Promise<ClockMoved> => {
	const head = await boardHead(person, params.board);
	const column = head.columns.find(({ id }) => id === url.searchParams.get('column'));
	if (!column) throw new Problem(422, 'column.unknown', 'This board has no such column.', 'column');
	const range = { from: null, to: null, days: null };
	const now = await flowPage(head, range);
	const then = await flowPage(head, { ...range, clock: column.id });
	const middle = ({ report }: typeof now) => report.cycle?.p50 ?? null;
	return { finished: now.report.cycle?.n ?? 0, now: middle(now), then: middle(then) };
});
