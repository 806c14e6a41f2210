import { randomUUID } from 'node:crypto';
import { fail } from '@sveltejs/kit';
import bowser from 'bowser';
import { forPage, whoAsks } from '$lib/server/answers';
import { obey } from '$lib/server/door/door';
import { formOf } from '$lib/server/enter';
import { Problem } from '$lib/server/problem';
import { calendarAddresses } from '$lib/server/questions/calendar';
import { sessionsOf, youOf } from '$lib/server/questions/sessions';
import { tokensOf } from '$lib/server/questions/tokens';
import type { Actions } from './$types';

/** `Firefox on Linux`. */
function deviceWords(userAgent: string): string {
	if (!userAgent) return 'A browser';
	const { browser, os } = bowser.parse(userAgent);
	return `${browser.name ?? 'A browser'}${os.name ? ` on ${os.name}` : ''}`;
}

export const load = async ({ locals, depends }) => {
	depends('harrow:tokens');
	const person = whoAsks(locals);
	const [tokens, sessions, you, calendars] = await Promise.all([
		forPage(tokensOf(person)),
		forPage(sessionsOf(person)),
		forPage(youOf(person)),
		forPage(calendarAddresses(person.id)),
	]);
	return {
		title: 'You',
		tokens,
		calendars,
		you,
		sessions: sessions.map((session) => ({ ...session, device: deviceWords(session.device) })),
	};
};

export const actions: Actions = Object.assign(Object.create(null) as object, {
	// A form of its own: what is sent as a command waits in the browser while there is no connection, and a password may not.
	password: async ({ locals, request }) => {
		const text = await formOf(request);
		try {
			const input = { now: text('now'), next: text('next') };
			await obey(whoAsks(locals), { id: randomUUID(), command: 'ChangePassword', input });
		} catch (thrown) {
			if (thrown instanceof Problem) return fail(thrown.status, { problem: thrown.message, done: '' });
			throw thrown;
		}
		return { problem: '', done: 'The new password holds; you are signed out everywhere else.' };
	},
} satisfies Actions);
