import { error } from '@sveltejs/kit';
import { NOTICES_OF, type NoticesOf } from '$core/pages/notices';
import { forPage, whoAsks } from '$lib/server/answers';
import { noticesPage } from '$lib/server/questions/notices';

export const load = async ({ locals, url, depends }) => {
	depends('harrow:notices');
	const text = url.searchParams.get('q') ?? '';
	const of = (url.searchParams.get('of') ?? 'all') as NoticesOf;
	if (!NOTICES_OF.includes(of))
		error(404, { message: 'There is no such list of notices.', code: 'not_found' });
	const before = url.searchParams.get('before') ?? undefined;
	return {
		title: 'Notices',
		text,
		of,
		page: await forPage(noticesPage(whoAsks(locals), { text, of, before })),
	};
};
