import { forPage, whoAsks } from '$lib/server/answers';
import { askedOne } from '$lib/server/questions/ask';

export const load = async ({ locals, params, depends }) => {
	depends('harrow:notices');
	const asked = await forPage(askedOne(whoAsks(locals), params.key));
	return { title: `${asked.key} ${asked.title}`, asked };
};
