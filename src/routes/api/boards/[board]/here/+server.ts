import { isId } from '$lib/server/asked';
import { answers } from '$lib/server/answers';
import { lookAt } from '$lib/server/presence';
import { Problem } from '$lib/server/problem';
import { boardSeen } from '$lib/server/questions/board-seen';
import type { RequestEvent } from './$types';

const MOST = 60;

/** A page says which card is open on it, and in which field its reader writes: others who look at the board see it. */
export const POST = answers(async ({ params, request }: RequestEvent, person) => {
	await boardSeen(person, params.board);
	const said = (await request.json().catch(() => null)) as Record<string, unknown> | null;
	const { page, card = null, field = null } = said ?? {};
	const ids = [page, ...(card === null ? [] : [card])];
	if (!ids.every((id) => typeof id === 'string' && isId(id)) || (field !== null && typeof field !== 'string'))
		throw new Problem(422, 'invalid.here', 'Say the page, and the card and the field or null.', 'page');
	await lookAt(person, page as string, card as string | null, field?.slice(0, MOST) ?? null);
	return { noted: true };
});
