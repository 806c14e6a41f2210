import { forPage } from '$lib/server/answers';
import { archivePage } from '$lib/server/questions/archive';

export const load = async ({ parent, depends, url }) => {
	depends('harrow:board');
	const { head } = await parent();
	const text = url.searchParams.get('text') ?? '';
	return {
		title: `Archive of ${head.name}`,
		text,
		archive: await forPage(archivePage(head, text, url.searchParams.get('before'))),
	};
};
