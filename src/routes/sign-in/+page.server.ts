import { fail, redirect } from '@sveltejs/kit';
import { enter, formOf } from '$lib/server/enter';
import { mailOn } from '$lib/server/mail/settings';
import { Problem } from '$lib/server/problem';
import { demoPeople } from '$lib/server/questions/demo-people';
import { checkPassword, demoMode } from '$lib/server/sign-in';
import type { Actions } from './$types';

export const load = async ({ locals, url }) => {
	if (locals.person) redirect(303, inside(url.searchParams.get('next')));
	return { mail: mailOn(), demo: demoMode() ? await demoPeople() : null };
};

// Without the names that every object has: `?/constructor` is no action.
export const actions: Actions = Object.assign(Object.create(null) as object, {
	password: async (event) => {
		const { request, url, getClientAddress } = event;
		const text = await formOf(request);
		const email = text('email');
		try {
			await enter(event, await checkPassword(email, text('password').slice(0, 1000), getClientAddress()));
		} catch (thrown) {
			if (thrown instanceof Problem) return fail(thrown.status, { email, problem: thrown.message });
			throw thrown;
		}
		redirect(303, inside(url.searchParams.get('next')));
	},
	demo: async (event) => {
		const { request, url } = event;
		const id = (await formOf(request))('person');
		const person = demoMode() ? (await demoPeople()).find((known) => known.id === id) : undefined;
		if (!person)
			return fail(403, {
				email: '',
				problem: 'Demo people can be signed in with one click in demo mode only.',
			});
		await enter(event, person.id);
		redirect(303, inside(url.searchParams.get('next')));
	},
} satisfies Actions);

/** Only addresses of Harrow itself are gone on to: what a browser would read as another site's is not one. */
function inside(next: string | null): string {
	const here = new URL('http://harrow.invalid');
	if (!next?.startsWith('/') || !URL.canParse(next, here)) return '/';
	const { origin, pathname, search, hash } = new URL(next, here);
	return origin === here.origin && !pathname.startsWith('//') ? pathname + search + hash : '/';
}
