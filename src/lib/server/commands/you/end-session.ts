import { notFound } from '../../problem.ts';
import { personCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';

export class EndSession {
	@Id('session')
	session!: string;
}

export const endSession = personCommand({
	name: 'EndSession',
	summary: 'Ends one of one’s own sessions: whoever uses that device signs in anew.',
	input: EndSession,
	async run({ tx, person }, input) {
		const { rowCount } = await tx.query('delete from session where id = $1 and person_id = $2', [
			input.session,
			person.id,
		]);
		if (!rowCount) throw notFound('session');
		await tx.query(`select pg_notify('harrow', 'person ' || $1)`, [person.id]);
	},
});
