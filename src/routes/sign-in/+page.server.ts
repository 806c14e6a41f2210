import { fail, redirect, type Cookies } from '@sveltejs/kit';
import { Problem } from '$lib/server/problem';
import { demoPeople } from '$lib/server/questions/demo-people';
import { checkPassword, demoMode, openSession, SESSION_COOKIE, SESSION_DAYS } from '$lib/server/sign-in';

export const load = async ({ locals, url }) => {
	if (locals.person) redirect(303, inside(url.searchParams.get('next')));
	return { demo: demoMode() ? await demoPeople() : null };
};

export const actions = {
	password: async ({ request, cookies, url }) => {
		const form = await request.formData();
		const text = (name: string) => String(form.get(name) ?? '').replace(/\0|\p{Surrogate}/gu, '');
		const email = text('email');
		try {
			await enter(cookies, await checkPassword(email, text('password').slice(0, 1000)));
		} catch (thrown) {
			if (thrown instanceof Problem) return fail(thrown.status, { email, problem: thrown.message });
			throw thrown;
		}
		redirect(303, inside(url.searchParams.get('next')));
	},
	demo: async ({ request, cookies, url }) => {
		const id = (await request.formData()).get('person');
		const person = demoMode() ? (await demoPeople()).find((known) => known.id === id) : undefined;
		if (!person)
			return fail(403, {
				email: '',
				problem: 'Demo people can be signed in with one click in demo mode only.',
			});
		await enter(cookies, person.id);
		redirect(303, inside(url.searchParams.get('next')));
	},
};

async function enter(cookies: Cookies, personId: string): Promise<void> {
	cookies.set(SESSION_COOKIE, await openSession(personId), {
		path: '/',
		httpOnly: true,
		sameSite: 'lax',
		secure: process.env.ORIGIN?.startsWith('https:') ?? false,
		maxAge: SESSION_DAYS * 86_400,
	});
}

/** Only addresses of Harrow itself are gone on to. */
function inside(next: string | null): string {
	return next && /^\/(?![/\\])/.test(next) ? next : '/';
}
