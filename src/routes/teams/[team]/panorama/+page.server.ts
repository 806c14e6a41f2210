import { forPage, whoAsks } from '$lib/server/answers';
import { panoramaPage } from '$lib/server/questions/panorama';

export const load = async ({ locals, params, url, depends }) => {
	depends('harrow:panorama');
	const kinds = url.searchParams.get('as') === 'kinds';
	const panorama = await forPage(panoramaPage(whoAsks(locals), params.team, kinds));
	return { title: `Panorama of ${panorama.team.name}`, panorama };
};
