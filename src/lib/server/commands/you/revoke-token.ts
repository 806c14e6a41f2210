import { notFound } from '../../problem.ts';
import { personCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';

export class RevokeToken {
	@Id('token')
	token!: string;
}

export const revokeToken = personCommand({
	name: 'RevokeToken',
	summary: 'Ends a token of one’s own.',
	input: RevokeToken,
	async run({ tx, person, at }, input) {
		const { rowCount } = await tx.query(
			'update access_token set revoked_at = coalesce(revoked_at, $3) where id = $1 and person_id = $2',
			[input.token, person.id, at],
		);
		if (!rowCount) throw notFound('token');
		await tx.query(`select pg_notify('harrow', 'person ' || $1)`, [person.id]);
	},
});
