import { forPage, whoAsks } from '$lib/server/answers';
import { timesheetPage } from '$lib/server/questions/timesheet';

export const load = async ({ locals, params, url, depends }) => {
	depends('harrow:timesheet');
	const asked = { week: url.searchParams.get('week'), person: url.searchParams.get('person') };
	const sheet = await forPage(timesheetPage(whoAsks(locals), params.team, asked));
	return { title: `Timesheet, ${sheet.team.name}`, sheet };
};
