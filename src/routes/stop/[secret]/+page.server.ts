import { stoppedBy, stopLetters } from '$lib/server/mail/stop';
import { countGuess, mayGuess } from '$lib/server/sign-in';
import { Problem } from '$lib/server/problem';
import { fail } from '@sveltejs/kit';
import type { Actions } from './$types';

export const load = async ({ params, getClientAddress }) => {
	try {
		await mayGuess(getClientAddress());
		const link = await stoppedBy(params.secret);
		if (!link) await countGuess(getClientAddress());
		return { title: 'No more letters', link, problem: '' };
	} catch (thrown) {
		if (!(thrown instanceof Problem)) throw thrown;
		return { title: 'No more letters', link: null, problem: thrown.message };
	}
};

// Without the names that every object has. A mail program posts here by itself when somebody presses its button (RFC 8058).
export const actions: Actions = Object.assign(Object.create(null) as object, {
	default: async ({ params, getClientAddress }) => {
		try {
			await mayGuess(getClientAddress());
			if (await stopLetters(params.secret)) return { stopped: true };
			await countGuess(getClientAddress());
			return fail(404, { stopped: false });
		} catch (thrown) {
			if (thrown instanceof Problem) return fail(thrown.status, { stopped: false });
			throw thrown;
		}
	},
} satisfies Actions);
