import { notFound } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';

export class RevokeInvitation {
	@Id('team')
	team!: string;

	@Id('invitation')
	invitation!: string;
}

export const revokeInvitation = teamCommand({
	name: 'RevokeInvitation',
	summary: 'Ends an invitation: its link lets nobody in any more.',
	input: RevokeInvitation,
	role: 'lead',
	undoable: false,
	async run(context, input) {
		const { rowCount } = await context.tx.query(
			'update invitation set revoked_at = $3 where id = $1 and team_id = $2 and revoked_at is null',
			[input.invitation, context.team.id, context.at],
		);
		if (!rowCount) throw notFound('invitation');
		context.note('An invitation was ended.');
	},
});
