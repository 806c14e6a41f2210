import { dayText } from '../../../../core/calendar/days.ts';
import { zoneOf } from '../../../../core/calendar/zone.ts';
import { Problem } from '../../problem.ts';
import { personCommand } from '../../door/command.ts';
import { Line } from '../../door/fields.ts';
import { hashOf } from '../../sign-in.ts';
import { joinTeam, tellBoards } from '../team/members.ts';

export class TakeInvitation {
	/** The last part of its link. */
	@Line('The invitation', 100)
	secret!: string;
}

export const takeInvitation = personCommand({
	name: 'TakeInvitation',
	summary: 'Joins the team of an invitation.',
	input: TakeInvitation,
	secret: ['secret'],
	async run({ tx, person, at, commandId }, input) {
		const { rows } = await tx.query<{
			id: string;
			team_id: string;
			team: string;
			zone: string;
			role: 'lead' | 'member' | 'viewer';
			title: string;
			several: boolean;
			until: Date;
			revoked_at: Date | null;
			taken: boolean;
		}>(
			`select i.id, i.team_id, t.name as team, t.time_zone as zone, i.role, i.title, i.several, i.until, i.revoked_at,
				exists (select from invitation_taken k where k.invitation_id = i.id) as taken
			from invitation i join team t on t.id = i.team_id
			where i.secret_hash = $1 and t.away_at is null
			for update of i`,
			[hashOf(input.secret)],
		);
		const found = rows[0];
		if (!found)
			throw new Problem(
				404,
				'invitation.unknown',
				'There is no such invitation. Ask for a new link.',
				'secret',
			);
		const over = found.revoked_at
			? (['revoked', 'This invitation was ended. Ask for a new link.'] as const)
			: found.until.getTime() <= at.getTime()
				? (['expired', 'This invitation held for seven days and is over. Ask for a new link.'] as const)
				: found.taken && !found.several
					? ([
							'used',
							'This invitation was for one person, and somebody has taken it. Ask for a new link.',
						] as const)
					: null;
		if (over) throw new Problem(410, `invitation.${over[0]}`, over[1], 'secret');
		const today = dayText(zoneOf(found.zone).day(at.getTime()));
		await joinTeam(tx, found.team_id, person.id, found, today);
		await tx.query(
			`insert into invitation_taken (invitation_id, person_id, at) values ($1, $2, $3)
			on conflict (invitation_id, person_id) do update set at = excluded.at`,
			[found.id, person.id, at],
		);
		await tx.query(`select pg_notify('harrow', 'person ' || $1)`, [person.id]);
		await tellBoards(
			tx,
			found.team_id,
			{ person: person.id, commandId, at },
			`${person.name} joined the team as ${found.role}.`,
		);
		return { result: { team: found.team_id, name: found.team } };
	},
});
