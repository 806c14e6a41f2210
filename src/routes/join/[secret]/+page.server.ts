import { randomUUID } from 'node:crypto';
import { fail, redirect } from '@sveltejs/kit';
import { makeAccount } from '$lib/server/account';
import { obey } from '$lib/server/door/door';
import { enter, formOf } from '$lib/server/enter';
import { Problem } from '$lib/server/problem';
import { invitationOf } from '$lib/server/questions/invitations';
import { countGuess, mayGuess, type Person } from '$lib/server/sign-in';
import type { Actions } from './$types';

/** What a link invites to. One that invites to nothing is counted as a guess. */
async function invitationTo(secret: string, machine: string) {
	await mayGuess(machine);
	const invitation = await invitationOf(secret);
	if (!invitation) await countGuess(machine);
	return invitation;
}

export const load = async ({ params, getClientAddress }) => {
	try {
		const invitation = await invitationTo(params.secret, getClientAddress());
		return { title: invitation ? `Join ${invitation.team}` : 'An invitation', invitation, problem: '' };
	} catch (thrown) {
		if (!(thrown instanceof Problem)) throw thrown;
		return { title: 'An invitation', invitation: null, problem: thrown.message };
	}
};

const join = async (person: Person, secret: string) =>
	obey(person, { id: randomUUID(), command: 'TakeInvitation', input: { secret } });

export const actions: Actions = Object.assign(Object.create(null) as object, {
	join: async ({ locals, params }) => {
		if (!locals.person)
			return fail(401, { problem: 'Your session has ended. Sign in and open the link again.' });
		try {
			await join(locals.person, params.secret);
		} catch (thrown) {
			if (thrown instanceof Problem) return fail(thrown.status, { problem: thrown.message });
			throw thrown;
		}
		redirect(303, '/');
	},
	account: async (event) => {
		const text = await formOf(event.request);
		const [name, email] = [text('name'), text('email')];
		try {
			if (!(await invitationTo(event.params.secret, event.getClientAddress())))
				throw new Problem(410, 'invitation.over', 'This invitation is over. Ask for a new link.');
			const person = await makeAccount({ name, email, password: text('password'), timeZone: text('zone') });
			await enter(event, person.id);
			await join(person, event.params.secret);
		} catch (thrown) {
			if (thrown instanceof Problem)
				return fail(thrown.status, { name, email, problem: thrown.message, field: thrown.field ?? '' });
			throw thrown;
		}
		redirect(303, '/');
	},
} satisfies Actions);
