import { forPage, whoAsks } from '$lib/server/answers';
import { boardHead } from '$lib/server/questions/board-head';
import { flowPage } from '$lib/server/questions/flow';

export const load = async ({ locals, params, url, depends }) => {
	depends('harrow:flow');
	const asked = (name: string) => url.searchParams.get(name);
	const range = { from: asked('from'), to: asked('to'), days: asked('days') };
	const head = await forPage(boardHead(whoAsks(locals), params.board));
	return { title: `Flow of ${head.name}`, flow: await forPage(flowPage(head, range)) };
};
