import { IsString, MaxLength } from 'class-validator';
import { Problem } from '../../problem.ts';
import { checkNewPassword } from '../../password.ts';
import { personCommand } from '../../door/command.ts';
import { hashPassword, isPasswordOf } from '../../sign-in.ts';

const Secret = (what: string) => (target: object, key: string) => {
	MaxLength(1000, { message: `${what} is too long.` })(target, key);
	IsString({ message: `${what} must be text.` })(target, key);
};

export class ChangePassword {
	/** The one that holds now. */
	@Secret('The present password')
	now!: string;

	@Secret('The new password')
	next!: string;
}

export const changePassword = personCommand({
	name: 'ChangePassword',
	summary: 'Sets another password for oneself and ends every session but the one that asks.',
	input: ChangePassword,
	secret: ['now', 'next'],
	async run({ tx, person }, input) {
		if (!(await isPasswordOf(person.id, input.now)))
			throw new Problem(403, 'password.wrong', 'This is not your present password.', 'now');
		await checkNewPassword(input.next, [person.name, person.email], 'next');
		await tx.query('update person set password_hash = $2 where id = $1', [
			person.id,
			await hashPassword(input.next),
		]);
		await tx.query('delete from session where person_id = $1 and id <> $2', [
			person.id,
			person.session ?? '00000000-0000-0000-0000-000000000000',
		]);
		await tx.query(`select pg_notify('harrow', 'person ' || $1)`, [person.id]);
	},
});
