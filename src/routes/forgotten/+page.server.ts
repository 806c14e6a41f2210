import { fail, redirect } from '@sveltejs/kit';
import { askReset } from '$lib/server/account';
import { formOf } from '$lib/server/enter';
import { Problem } from '$lib/server/problem';
import type { Actions } from './$types';

export const load = ({ locals }) => {
	if (locals.person) redirect(303, '/you');
	return { title: 'A new password' };
};

export const actions: Actions = Object.assign(Object.create(null) as object, {
	default: async ({ request, getClientAddress }) => {
		const email = (await formOf(request))('email');
		try {
			await askReset(email, getClientAddress());
		} catch (thrown) {
			if (thrown instanceof Problem) return fail(thrown.status, { email, problem: thrown.message });
			throw thrown;
		}
		return { email, problem: '', sent: true };
	},
} satisfies Actions);
