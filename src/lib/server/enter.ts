import type { RequestEvent } from '@sveltejs/kit';
import { openSession, SESSION_COOKIE, SESSION_DAYS } from './sign-in.ts';

/** Signs somebody in on this browser. */
export async function enter({ cookies, request }: RequestEvent, personId: string): Promise<void> {
	cookies.set(SESSION_COOKIE, await openSession(personId, request.headers.get('user-agent') ?? ''), {
		path: '/',
		httpOnly: true,
		sameSite: 'lax',
		secure: process.env.ORIGIN?.startsWith('https:') ?? false,
		maxAge: SESSION_DAYS * 86_400,
	});
}

/** The texts of a form that was sent; one that cannot be read is an empty one. */
export async function formOf(request: Request): Promise<(name: string) => string> {
	const form = await request.formData().catch(() => new FormData());
	return (name) => {
		const value = form.get(name);
		return typeof value === 'string' ? value.replace(/\0|\p{Surrogate}/gu, '').slice(0, 5000) : '';
	};
}
