import type { Invitation, InvitationView } from '../../../core/pages/people.ts';
import { rows } from '../database.ts';
import { hashOf, type Person } from '../sign-in.ts';
import { now } from '../time.ts';

/** What a link invites to; null when there is no such invitation, or it is over. */
export async function invitationOf(secret: string): Promise<Invitation | null> {
	const [found] = await rows<Invitation>(
		`select t.name as team, i.role, i.title, p.name as by, i.until
		from invitation i
		join team t on t.id = i.team_id and t.away_at is null
		join person p on p.id = i.made_by
		where i.secret_hash = $1 and i.revoked_at is null and i.until > $2
			and (i.several or not exists (select from invitation_taken k where k.invitation_id = i.id))`,
		[hashOf(secret), now()],
	);
	return found ?? null;
}

/** The invitations to a team that wait to be taken, newest first; none for people who do not lead it. */
export function invitationsOf(person: Person, team: string): Promise<InvitationView[]> {
	return rows<InvitationView>(
		`select i.id, i.role, i.title, i.several, p.name as by, i.until, i.email,
			(select count(*)::integer from invitation_taken k where k.invitation_id = i.id) as taken
		from invitation i
		join membership m on m.team_id = i.team_id and m.person_id = $2 and m.left_at is null and m.role = 'lead'
		join person p on p.id = i.made_by
		where i.team_id = $1 and i.revoked_at is null and i.until > $3
			and (i.several or not exists (select from invitation_taken k where k.invitation_id = i.id))
		order by i.made_at desc`,
		[team, person.id, now()],
	);
}
