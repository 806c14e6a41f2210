import { stringify } from 'csv-stringify/sync';
import { answers } from '$lib/server/answers';
import { accountPage } from '$lib/server/questions/account';
import type { RequestEvent } from './$types';

/** The lines of an account as CSV. */
export const GET = answers(async ({ params, url }: RequestEvent, person) => {
	const asked = (name: string) => url.searchParams.get(name);
	const page = await accountPage(person, params.team, {
		from: asked('from'),
		to: asked('to'),
		by: asked('by'),
	});
	const cost = page.role === 'lead';
	const rows = [
		[page.by, 'hours', 'billable', 'hours before', ...(cost ? ['cost', 'hours without a rate'] : [])],
		...page.account.lines.map((line) => [
			line.name,
			line.hours,
			line.billable,
			line.before,
			...(cost ? [line.cost ?? '', line.unrated] : []),
		]),
	];
	return new Response(stringify(rows, { escape_formulas: true }), {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="account-${page.by}-${page.from}-${page.to}.csv"`,
		},
	});
});
