import { FIGURES } from '$core/pages/look-back';
import { reads } from '$lib/server/answers';
import { Problem } from '$lib/server/problem';
import { boardHead } from '$lib/server/questions/board-head';
import { lookBackCards } from '$lib/server/questions/look-back';
import type { RequestEvent } from './$types';

/** The cards behind one figure of looking back: `?of=delivered&which=12`. */
export const GET = reads(
	'/api/boards/{board}/look-back/cards',
	async ({ params, url }: RequestEvent, person) => {
		const of = FIGURES.find((known) => known === url.searchParams.get('of'));
		if (!of) throw new Problem(422, 'invalid.of', `The figure must be one of: ${FIGURES.join(', ')}.`, 'of');
		const head = await boardHead(person, params.board);
		return lookBackCards(head, of, url.searchParams.get('which') ?? '');
	},
);
