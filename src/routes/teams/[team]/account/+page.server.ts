import { forPage, whoAsks } from '$lib/server/answers';
import { accountPage } from '$lib/server/questions/account';

export const load = async ({ locals, params, url }) => {
	const asked = (name: string) => url.searchParams.get(name);
	const page = await forPage(
		accountPage(whoAsks(locals), params.team, { from: asked('from'), to: asked('to'), by: asked('by') }),
	);
	return { title: `Account of ${page.team.name}`, page };
};
