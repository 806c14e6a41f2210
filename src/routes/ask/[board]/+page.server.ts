import { dayText } from '$core/calendar/days';
import { zoneOf } from '$core/calendar/zone';
import { forPage } from '$lib/server/answers';
import { askForm } from '$lib/server/questions/ask';
import { now } from '$lib/server/time';

export const load = async ({ params }) => {
	const form = await forPage(askForm(params.board));
	return { title: `Ask ${form.board.name}`, form, today: dayText(zoneOf('UTC').day(now().getTime())) };
};
