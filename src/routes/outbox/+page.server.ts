import { error, fail } from '@sveltejs/kit';
import { formOf } from '$lib/server/enter';
import { answerLetter, outbox } from '$lib/server/mail/outbox';
import { outboxFolder } from '$lib/server/mail/outbox-folder';
import { demoMode } from '$lib/server/sign-in';
import type { Actions } from './$types';

/** What the stand-in for a mail server took: for the demonstration, in which anyone can sign in as anyone. */
function folderOf(): string {
	const folder = demoMode() ? outboxFolder() : null;
	if (!folder) error(404, { message: 'There is no such page.' });
	return folder;
}

export const load = async ({ url, depends }) => {
	depends('harrow:outbox');
	const letters = await outbox(folderOf());
	const to = url.searchParams.get('to');
	return {
		title: 'Outbox',
		letters: letters.filter((letter) => !to || letter.to.address === to),
		to,
		people: [...new Map(letters.map(({ to }) => [to.address, to])).values()].sort((a, b) =>
			a.name < b.name ? -1 : 1,
		),
	};
};

export const actions: Actions = Object.assign(Object.create(null) as object, {
	answer: async ({ request }) => {
		const text = await formOf(request);
		const problem = await answerLetter(folderOf(), text('letter'), text('text'));
		return problem
			? fail(422, { letter: text('letter'), text: text('text'), problem })
			: { letter: text('letter'), sent: true };
	},
} satisfies Actions);
