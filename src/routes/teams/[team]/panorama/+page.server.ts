import { readAskedFor } from '$core/panorama/asked';
import { forPage, whoAsks } from '$lib/server/answers';
import { panoramaColumns } from '$lib/server/questions/panorama';

export const load = async ({ locals, params, url, depends }) => {
	depends('harrow:panorama');
	const { columns, ...panorama } = await forPage(
		panoramaColumns(whoAsks(locals), params.team, readAskedFor(url.searchParams)),
	);
	// Of thousands of cards one text is sent the quickest.
	return { title: `Panorama of ${panorama.team.name}`, panorama, columns };
};
