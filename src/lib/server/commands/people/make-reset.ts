import { newSecret } from '../../sign-in.ts';
import { teamCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';
import { memberOf } from './member-of.ts';

/** So long a link to set a new password holds. */
export const RESET_HOURS = 24;

export class MakeReset {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;
}

export const makeReset = teamCommand({
	name: 'MakeReset',
	summary:
		'Makes a link with which somebody sets a new password, once and within a day; its secret is answered once.',
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
		context.note(`A link to set a new password was made for ${person.name}.`);
		return { secret };
	},
});
