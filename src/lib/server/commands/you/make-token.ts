import { IsIn } from 'class-validator';
import { newSecret } from '../../sign-in.ts';
import { personCommand } from '../../door/command.ts';
import { Line } from '../../door/fields.ts';

export class MakeToken {
	@Line('The name', 80)
	name!: string;

	@IsIn(['read', 'write'], { message: 'The scope must be read or write.' })
	scope!: 'read' | 'write';
}

export const makeToken = personCommand({
	name: 'MakeToken',
	summary: 'Makes a bearer token that carries one’s own rights; its secret is answered once.',
	input: MakeToken,
	async run({ tx, person, at }, input) {
		const { secret, hash } = newSecret('harrow_');
		const { rows } = await tx.query<{ id: string }>(
			`insert into access_token (token_hash, person_id, name, scope, created_at) values ($1, $2, $3, $4, $5) returning id`,
			[hash, person.id, input.name, input.scope, at],
		);
		return { result: { token: rows[0]!.id }, secret };
	},
});
