import { redirect } from '@sveltejs/kit';
import { forPage, whoAsks } from '$lib/server/answers';
import { initiativePage } from '$lib/server/questions/own-page';

export const load = async ({ parent, depends, params, locals }) => {
	depends('harrow:board');
	const { head } = await parent();
	const found = await forPage(initiativePage(head, whoAsks(locals), params.initiative));
	// What all boards share stands where it is at home.
	if ('home' in found)
		redirect(303, `/boards/${found.home}/initiatives/${encodeURIComponent(params.initiative)}`);
	return { title: `${found.figures.name}, ${head.name}`, initiative: found };
};
