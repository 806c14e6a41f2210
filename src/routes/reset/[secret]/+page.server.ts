import { fail, redirect } from '@sveltejs/kit';
import { resetFor, setPassword } from '$lib/server/account';
import { enter, formOf } from '$lib/server/enter';
import { Problem } from '$lib/server/problem';
import { countGuess, mayGuess } from '$lib/server/sign-in';
import type { Actions } from './$types';

export const load = async ({ params, getClientAddress }) => {
	try {
		await mayGuess(getClientAddress());
		const name = await resetFor(params.secret);
		if (name === null) await countGuess(getClientAddress());
		return { title: 'A new password', name, problem: '' };
	} catch (thrown) {
		if (!(thrown instanceof Problem)) throw thrown;
		return { title: 'A new password', name: null, problem: thrown.message };
	}
};

export const actions: Actions = Object.assign(Object.create(null) as object, {
	default: async (event) => {
		const text = await formOf(event.request);
		try {
			await mayGuess(event.getClientAddress());
			await enter(event, await setPassword(event.params.secret, text('password')));
		} catch (thrown) {
			if (thrown instanceof Problem) return fail(thrown.status, { problem: thrown.message });
			throw thrown;
		}
		redirect(303, '/');
	},
} satisfies Actions);
