import { BEHIND_ACCOUNT } from '$core/pages/account';
import { answers } from '$lib/server/answers';
import { Problem } from '$lib/server/problem';
import { accountCards } from '$lib/server/questions/account';
import type { RequestEvent } from './$types';

/** The cards behind one figure of an account: `?by=label&of=worked&which=mast`; of all that was worked without `which`. */
export const GET = answers(async ({ params, url }: RequestEvent, person) => {
	const asked = (name: string) => url.searchParams.get(name);
	const of = BEHIND_ACCOUNT.find((known) => known === asked('of'));
	if (!of) throw new Problem(422, 'invalid.of', `There are cards behind ${BEHIND_ACCOUNT.join(', ')}.`, 'of');
	const range = { from: asked('from'), to: asked('to'), by: asked('by') };
	return accountCards(person, params.team, range, of, asked('which'));
});
