import { json } from '@sveltejs/kit';
import { BEHIND_FLOW } from '$core/pages/flow';
import { answers } from '$lib/server/answers';
import { Problem } from '$lib/server/problem';
import { boardHead } from '$lib/server/questions/board-head';
import { flowCards } from '$lib/server/questions/flow';
import type { RequestEvent } from './$types';

/** The cards behind one figure of the flow page. */
export const GET = answers(async ({ params, url }: RequestEvent, person) => {
	const asked = (name: string) => url.searchParams.get(name);
	const of = BEHIND_FLOW.find((known) => known === asked('of'));
	if (!of) throw new Problem(422, 'invalid.of', `There are cards behind ${BEHIND_FLOW.join(', ')}.`, 'of');
	const head = await boardHead(person, params.board);
	const range = { from: asked('from'), to: asked('to'), days: asked('days') };
	return json(await flowCards(head, range, of, asked('which') ?? ''));
});
