import { readAskedFor } from '$core/panorama/asked';
import { forPage, whoAsks } from '$lib/server/answers';
import { panoramaPage } from '$lib/server/questions/panorama';

export const load = async ({ locals, params, url, depends }) => {
	depends('harrow:panorama');
	const panorama = await forPage(panoramaPage(whoAsks(locals), params.team, readAskedFor(url.searchParams)));
	return { title: `Panorama of ${panorama.team.name}`, panorama };
};
