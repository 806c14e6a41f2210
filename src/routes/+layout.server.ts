import { forPage } from '$lib/server/answers';
import { timerOf } from '$lib/server/questions/timer';
import { demoMode } from '$lib/server/sign-in';

export const load = async ({ locals, depends }) => {
	depends('harrow:timer');
	return {
		demo: demoMode(),
		person: locals.person && {
			id: locals.person.id,
			name: locals.person.name,
			initials: locals.person.initials,
		},
		timer: locals.person && (await forPage(timerOf(locals.person))),
	};
};
