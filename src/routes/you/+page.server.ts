import { forPage, whoAsks } from '$lib/server/answers';
import { tokensOf } from '$lib/server/questions/tokens';

export const load = async ({ locals, depends }) => {
	depends('harrow:tokens');
	return { title: 'You', tokens: await forPage(tokensOf(whoAsks(locals))) };
};
