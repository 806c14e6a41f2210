import { forPage, whoAsks } from '$lib/server/answers';
import { settlePage } from '$lib/server/questions/settle';

export const load = async ({ parent, locals, depends }) => {
	depends('harrow:board', 'harrow:settle');
	const { head } = await parent();
	return { title: `Settle ${head.name}`, settle: await forPage(settlePage(head, whoAsks(locals))) };
};
