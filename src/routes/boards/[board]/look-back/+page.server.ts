import { forPage } from '$lib/server/answers';
import { lookBack } from '$lib/server/questions/look-back';

export const load = async ({ parent, depends }) => {
	depends('harrow:board');
	const { head } = await parent();
	return { title: `${head.name}, looking back`, back: await forPage(lookBack(head)) };
};
