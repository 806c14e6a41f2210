import { BEHIND_REPORT } from '$core/pages/look-back';
import { answers } from '$lib/server/answers';
import { Problem } from '$lib/server/problem';
import { boardHead } from '$lib/server/questions/board-head';
import { reportCards } from '$lib/server/questions/report';
import type { RequestEvent } from './$types';

/** The cards behind one figure of a report: `?of=day&which=2026-11-20`. */
export const GET = answers(async ({ params, url }: RequestEvent, person) => {
	const of = BEHIND_REPORT.find((known) => known === url.searchParams.get('of'));
	if (!of) throw new Problem(422, 'invalid.of', `There are cards behind ${BEHIND_REPORT.join(', ')}.`, 'of');
	const head = await boardHead(person, params.board);
	return reportCards(head, Number(params.sprint), of, url.searchParams.get('which') ?? '');
});
