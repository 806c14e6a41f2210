import { randomUUID } from 'node:crypto';
import { fail, redirect } from '@sveltejs/kit';
import { keyFrom } from '$core/flow/set-up';
import { TEMPLATES } from '$core/board/templates';
import { makeAccount } from '$lib/server/account';
import { obey } from '$lib/server/door/door';
import { enter, formOf } from '$lib/server/enter';
import { checkSetUpCode, unclaimed } from '$lib/server/first-run';
import { Problem } from '$lib/server/problem';
import type { Person } from '$lib/server/sign-in';
import type { Actions } from './$types';

export const load = async ({ url }) => {
	if (!(await unclaimed())) redirect(303, '/');
	return { title: 'Set Harrow up', code: url.searchParams.get('code') ?? '', templates: TEMPLATES };
};

export const actions: Actions = Object.assign(Object.create(null) as object, {
	default: async (event) => {
		const text = await formOf(event.request);
		let slug: string | null;
		try {
			await checkSetUpCode(text('code'), event.getClientAddress());
			const team = text('team').trim();
			const boardName = text('board').trim();
			if (!team) throw new Problem(422, 'invalid.team', 'Say what the team is called.', 'team');
			if (!boardName) throw new Problem(422, 'invalid.board', 'Say what the board is called.', 'board');
			const week = Array.from({ length: 7 }, (_, day) => (text(`day-${day}`) ? 8 : 0));
			const timeZone = text('zone') || 'Europe/London';
			const person = await makeAccount(
				{ name: text('name'), email: text('email'), password: text('password'), timeZone },
				true,
			);
			await enter(event, person.id);
			slug = await begin(person, { name: team, timeZone, week }, boardName, text('template'));
		} catch (thrown) {
			if (!(thrown instanceof Problem)) throw thrown;
			return fail(thrown.status, { problem: thrown.message, field: thrown.field ?? '' });
		}
		redirect(303, slug ? `/boards/${slug}` : '/');
	},
} satisfies Actions);

/** The first team and its first board, through the door that all changes go through. */
async function begin(
	person: Person,
	team: { name: string; timeZone: string; week: number[] },
	name: string,
	template: string,
): Promise<string | null> {
	const tell = (command: string, input: object) => obey(person, { id: randomUUID(), command, input });
	const made = await tell('MakeTeam', team);
	const { setUp, id } = TEMPLATES.find((known) => known.id === template) ?? TEMPLATES[0]!;
	const board = await tell('MakeBoard', {
		team: made.result.team,
		name,
		key: keyFrom(name),
		template: id,
		unit: setUp.unit,
		sprintDays: setUp.sprintDays,
	});
	return String(board.result.slug);
}
