import { forPage, whoAsks } from '$lib/server/answers';
import { activityPage } from '$lib/server/questions/activity';
import { dayText } from '$core/calendar/days';
import { zoneOf } from '$core/calendar/zone';
import { now } from '$lib/server/time';

export const load = async ({ locals, url }) => ({
	title: 'Activity',
	page: await forPage(activityPage(whoAsks(locals), (name) => url.searchParams.get(name))),
	today: dayText(zoneOf('UTC').day(now().getTime())),
});
