import { columnwise } from '$lib/columnwise';
import { forPage, whoAsks } from '$lib/server/answers';
import { boardHead } from '$lib/server/questions/board-head';
import { boardTime } from '$lib/server/questions/ribbon';
import { now } from '$lib/server/time';
import { dayText } from '$core/calendar/days';
import { zoneOf } from '$core/calendar/zone';

export const load = async ({ locals, params, depends }) => {
	depends('harrow:board', 'harrow:ribbon');
	const at = now();
	const head = await forPage(boardHead(whoAsks(locals), params.board));
	return {
		title: head.name,
		head: { ...head, sprints: columnwise(head.sprints) },
		now: at.toISOString(),
		today: dayText(zoneOf(head.timeZone).day(at.getTime())),
		...(await forPage(boardTime(head))),
	};
};
