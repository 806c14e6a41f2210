import { error } from '@sveltejs/kit';
import { MINE, type MineOf } from '$core/pages/mine';
import { forPage, whoAsks } from '$lib/server/answers';
import { minePage } from '$lib/server/questions/mine';

export const load = async ({ locals, url, depends }) => {
	depends('harrow:notices', 'harrow:mine');
	const of = url.searchParams.get('of') ?? 'mine';
	if (!MINE.includes(of as MineOf))
		error(404, { message: 'There is no such list of cards.', code: 'not_found' });
	return { title: 'My cards', page: await forPage(minePage(whoAsks(locals), of as MineOf)) };
};
