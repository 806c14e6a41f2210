import { forPage, whoAsks } from '$lib/server/answers';
import { boardHead } from '$lib/server/questions/board-head';
import { flowPage } from '$lib/server/questions/flow';

export const load = async ({ locals, params, url, depends }) => {
	depends('harrow:flow');
	const asked = (name: string) => url.searchParams.get(name);
	const range = { from: asked('from'), to: asked('to'), days: asked('days'), clock: asked('clock') };
	const head = await forPage(boardHead(whoAsks(locals), params.board));
	const clock = head.columns.find(({ id }) => id === range.clock)?.name ?? null;
	return { title: `Flow of ${head.name}`, flow: await forPage(flowPage(head, range)), clock };
};
