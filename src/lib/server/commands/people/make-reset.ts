import { RESET_HOURS } from '../../account.ts';
import { newSecret } from '../../sign-in.ts';
import { teamCommand } from '../../door/command.ts';
import { resetLetter } from '../../../../core/mail/letter.ts';
import { postLetter } from '../../mail/post.ts';
import { origin } from '../../mail/settings.ts';
import { Id } from '../../door/fields.ts';
import { memberOf } from './member-of.ts';

export class MakeReset {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;
}

export const makeReset = teamCommand({
	name: 'MakeReset',
	summary:
		'Makes a link with which somebody sets a new password, once and within a day, and mails it to them where there is a mail server; its secret is answered once.',
	input: MakeReset,
	role: 'lead',
	undoable: false,
	async run(context, input) {
		const person = await memberOf(context, input.person);
		const { secret, hash } = newSecret();
		await context.tx.query(
			'insert into reset (person_id, secret_hash, made_by, made_at, until) values ($1, $2, $3, $4, $5)',
			[
				person.id,
				hash,
				context.person.id,
				context.at,
				new Date(context.at.getTime() + RESET_HOURS * 3_600_000),
			],
		);
		const mailed = await postLetter(context.tx, {
			kind: 'reset',
			person: person.id,
			team: context.team.id,
			words: resetLetter({
				by: context.person.name,
				href: `${origin()}/reset/${secret}`,
				hours: RESET_HOURS,
			}),
		});
		context.note(`A link to set a new password was made for ${person.name}.`);
		return { result: { mailed }, secret };
	},
});
