import { forPage } from '$lib/server/answers';
import { reportPage, shown } from '$lib/server/questions/report';

export const load = async ({ parent, params, depends }) => {
	depends('harrow:board', 'harrow:report');
	const { head } = await parent();
	const report = shown(await forPage(reportPage(head, Number(params.sprint))));
	return { title: `${head.sprintName} ${report.sprint.number} of ${head.name}`, report };
};
