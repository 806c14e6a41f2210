import { forPage, whoAsks } from '$lib/server/answers';
import { askedPage } from '$lib/server/questions/ask';

export const load = async ({ locals, depends }) => {
	depends('harrow:notices');
	return { title: 'What you asked for', asked: await forPage(askedPage(whoAsks(locals))) };
};
