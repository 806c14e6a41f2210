import { forPage, whoAsks } from '$lib/server/answers';
import { noticesPage } from '$lib/server/questions/notices';

export const load = async ({ locals, url, depends }) => {
	depends('harrow:notices');
	const text = url.searchParams.get('q') ?? '';
	const away = url.searchParams.has('away');
	const before = url.searchParams.get('before') ?? undefined;
	return {
		title: 'Notices',
		text,
		away,
		page: await forPage(noticesPage(whoAsks(locals), { text, away, before })),
	};
};
