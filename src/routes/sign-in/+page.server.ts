import { fail, redirect, type Cookies } from '@sveltejs/kit';
import { Problem } from '$lib/server/problem';
import { demoPeople } from '$lib/server/questions/demo-people';
import { checkPassword, demoMode, openSession, SESSION_COOKIE, SESSION_DAYS } from '$lib/server/sign-in';
import type { Actions } from './$types';

export const load = async ({ locals, url }) => {
	if (locals.person) redirect(303, inside(url.searchParams.get('next')));
	return { demo: demoMode() ? await demoPeople() : null };
};

// Without the names that every object has: `?/constructor` is no action.
export const actions: Actions = Object.assign(Object.create(null) as object, {
	password: async ({ request, cookies, url, getClientAddress }) => {
		const form = await readForm(request);
		const text = (name: string) => String(form.get(name) ?? '').replace(/\0|\p{Surrogate}/gu, '');
		const email = text('email');
		try {
			await enter(cookies, await checkPassword(email, text('password').slice(0, 1000), getClientAddress()));
		} catch (thrown) {
			if (thrown instanceof Problem) return fail(thrown.status, { email, problem: thrown.message });
			throw thrown;
		}
		redirect(303, inside(url.searchParams.get('next')));
	},
	demo: async ({ request, cookies, url }) => {
		const id = (await readForm(request)).get('person');
		const person = demoMode() ? (await demoPeople()).find((known) => known.id === id) : undefined;
		if (!person)
			return fail(403, {
				email: '',
				problem: 'Demo people can be signed in with one click in demo mode only.',
			});
		await enter(cookies, person.id);
		redirect(303, inside(url.searchParams.get('next')));
	},
} satisfies Actions);

async function enter(cookies: Cookies, personId: string): Promise<void> {
	cookies.set(SESSION_COOKIE, await openSession(personId), {
		path: '/',
		httpOnly: true,
		sameSite: 'lax',
		secure: process.env.ORIGIN?.startsWith('https:') ?? false,
		maxAge: SESSION_DAYS * 86_400,
	});
}

/** A form that cannot be read is an empty one. */
const readForm = (request: Request) => request.formData().catch(() => new FormData());

/** Only addresses of Harrow itself are gone on to: what a browser would read as another site's is not one. */
function inside(next: string | null): string {
	const here = new URL('http://harrow.invalid');
	if (!next?.startsWith('/') || !URL.canParse(next, here)) return '/';
	const { origin, pathname, search, hash } = new URL(next, here);
	return origin === here.origin && !pathname.startsWith('//') ? pathname + search + hash : '/';
}
