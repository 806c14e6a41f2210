import { IsEmail, MaxLength } from 'class-validator';
import { Problem } from '../../problem.ts';
import { personCommand } from '../../door/command.ts';
import { Line, Optional } from '../../door/fields.ts';
import { checkZone } from '../team/make-team.ts';

export class ChangeYou {
	@Optional()
	@Line('The name', 80)
	name?: string;

	/** Shown on cards where the name does not fit. */
	@Optional()
	@Line('The initials', 3)
	initials?: string;

	/** The e-mail address with which one signs in. */
	@Optional()
	@MaxLength(200, { message: 'The address may have at most 200 characters.' })
	@IsEmail({}, { message: 'This is not an e-mail address.' })
	email?: string;

	@Optional()
	@Line('The time zone', 60)
	timeZone?: string;
}

export const changeYou = personCommand({
	name: 'ChangeYou',
	summary: 'Changes one’s own name, initials, address or time zone.',
	input: ChangeYou,
	async run({ tx, person }, input) {
		if (input.timeZone) checkZone(input.timeZone);
		if (input.email) await refuseKnown(tx, input.email, person.id);
		await tx.query(
			`update person set name = coalesce($2, name), initials = coalesce($3, initials), email = coalesce($4, email),
				time_zone = coalesce($5, time_zone)
			where id = $1`,
			[person.id, input.name, input.initials?.toUpperCase(), input.email, input.timeZone],
		);
	},
});

/** Refuses an address that somebody else has. */
async function refuseKnown(
	tx: { query: (text: string, values: unknown[]) => Promise<{ rowCount: number | null }> },
	email: string,
	but: string,
): Promise<void> {
	const { rowCount } = await tx.query('select from person where lower(email) = lower($1) and id <> $2', [
		email,
		but,
	]);
	if (rowCount)
		throw new Problem(409, 'address.taken', 'Somebody has an account with this address already.', 'email');
}
