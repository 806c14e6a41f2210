import { forPage } from '$lib/server/answers';
import { outboxFolder } from '$lib/server/mail/outbox-folder';
import { noticeCount } from '$lib/server/questions/notices';
import { timerOf } from '$lib/server/questions/timer';
import { demoMode } from '$lib/server/sign-in';

export const load = async ({ locals, depends }) => {
	depends('harrow:timer', 'harrow:notices');
	const [timer, notices] = locals.person
		? await Promise.all([forPage(timerOf(locals.person)), forPage(noticeCount(locals.person))])
		: [null, null];
	return {
		demo: demoMode(),
		outbox: demoMode() && outboxFolder() !== null,
		person: locals.person && {
			id: locals.person.id,
			name: locals.person.name,
			initials: locals.person.initials,
		},
		timer,
		notices,
	};
};
