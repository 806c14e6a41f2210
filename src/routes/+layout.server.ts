import { demoMode } from '$lib/server/sign-in';

export const load = ({ locals }) => ({
	demo: demoMode(),
	person: locals.person && {
		id: locals.person.id,
		name: locals.person.name,
		initials: locals.person.initials,
	},
});
