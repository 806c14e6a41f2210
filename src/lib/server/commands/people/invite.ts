import { IsBoolean, IsEmail, IsIn, IsString, MaxLength } from 'class-validator';
import { newSecret } from '../../sign-in.ts';
import { teamCommand } from '../../door/command.ts';
import { Id, Optional } from '../../door/fields.ts';
import { invitationLetter } from '../../../../core/mail/letter.ts';
import { postLetter } from '../../mail/post.ts';
import { mailOn, origin } from '../../mail/settings.ts';
import { Problem } from '../../problem.ts';

/** So long an invitation holds. */
const DAYS = 7;

export class Invite {
	@Id('team')
	team!: string;

	@IsIn(['lead', 'member', 'viewer'], { message: 'The role is lead, member or viewer.' })
	role!: 'lead' | 'member' | 'viewer';

	/** What they do in the team, such as electrician. */
	@MaxLength(80, { message: 'The title may have at most 80 characters.' })
	@IsString({ message: 'The title must be text.' })
	title!: string;

	/** Whether several people may take it, or only one. */
	@IsBoolean({ message: 'An invitation is for several people or not: true or false.' })
	several!: boolean;

	/** The address that the link is mailed to as well; for one person only. */
	@Optional()
	@MaxLength(200, { message: 'The address may have at most 200 characters.' })
	@IsEmail({}, { message: 'This is not an e-mail address.' })
	email?: string;
}

export const invite = teamCommand({
	name: 'Invite',
	summary: 'Makes a link that lets people into the team for seven days; its secret is answered once.',
	input: Invite,
	role: 'lead',
	undoable: false,
	async run(context, input) {
		const { email } = input;
		if (email && input.several)
			throw new Problem(
				422,
				'invalid.several',
				'What is mailed to one address is for one person.',
				'several',
			);
		if (email && !mailOn())
			throw new Problem(
				409,
				'mail.off',
				'This Harrow has no mail server: hand the link on yourself.',
				'email',
			);
		const { secret, hash } = newSecret();
		const until = new Date(context.at.getTime() + DAYS * 86_400_000);
		const { rows } = await context.tx.query<{ id: string }>(
			`insert into invitation (team_id, role, title, several, secret_hash, made_by, made_at, until, email)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9) returning id`,
			[
				context.team.id,
				input.role,
				input.title.trim(),
				input.several,
				hash,
				context.person.id,
				context.at,
				until,
				email ?? null,
			],
		);
		if (email)
			await postLetter(context.tx, {
				kind: 'invitation',
				address: email,
				team: context.team.id,
				words: invitationLetter({
					by: context.person.name,
					team: context.team.name,
					role: input.role,
					href: `${origin()}/join/${secret}`,
					days: DAYS,
				}),
			});
		const who = input.several ? 'People were' : 'Somebody was';
		context.note(`${who} invited as ${input.role}${input.title.trim() ? ` (${input.title.trim()})` : ''}.`);
		return { result: { invitation: rows[0]!.id }, secret };
	},
});
