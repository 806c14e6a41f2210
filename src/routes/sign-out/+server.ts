import { redirect } from '@sveltejs/kit';
import { closeSession, SESSION_COOKIE } from '$lib/server/sign-in';

export const POST = async ({ cookies }) => {
	const session = cookies.get(SESSION_COOKIE);
	if (session) await closeSession(session);
	cookies.delete(SESSION_COOKIE, { path: '/' });
	redirect(303, '/sign-in');
};
