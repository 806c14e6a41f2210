import { Problem } from '../../problem.ts';
import type { TeamContext } from '../../door/contexts.ts';

/** Someone who is in the team now. */
export async function memberOf(
	context: TeamContext,
	person: string,
): Promise<{ id: string; name: string; role: string }> {
	const { rows } = await context.tx.query<{ id: string; name: string; role: string }>(
		`select p.id, p.name, m.role
		from membership m
		join person p on p.id = m.person_id
		where m.team_id = $1 and m.person_id = $2 and m.left_at is null`,
		[context.team.id, person],
	);
	if (!rows[0]) throw new Problem(422, 'person.unknown', 'This person is not in the team.', 'person');
	return rows[0];
}

/** Whether an absence that this person enters waits for a lead of the team. */
export async function mustWait({ tx, team, role }: TeamContext): Promise<boolean> {
	if (role === 'lead') return false;
	const { rows } = await tx.query<{ agree: boolean }>(
		'select agree_absences as agree from team where id = $1',
		[team.id],
	);
	return rows[0]!.agree;
}

/** Refuses all but leads. */
export function leadsOnly(context: TeamContext): void {
	if (context.role !== 'lead')
		throw new Problem(403, 'right.missing', 'Only a lead of the team may do this.');
}

/** Everyone may say when they are away themselves; for others a lead does. */
export function selfOrLead(context: TeamContext, person: string): void {
	if (context.role !== 'lead' && person !== context.person.id)
		throw new Problem(403, 'right.missing', 'Only a lead may do this for somebody else.');
}
