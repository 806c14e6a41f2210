import type { Tx } from '../../database.ts';
import { Problem } from '../../problem.ts';
import type { Role, TeamContext } from '../../door/contexts.ts';

/**
 * Lets a person into a team, or back into it: from this day on they belong to it, and begin with its usual week.
 * @returns whether they had been in it before
 * @throws Problem 409 when they are in it already
 */
export async function joinTeam(
	tx: Tx,
	team: string,
	person: string,
	as: { role: Role; title: string },
	today: string,
): Promise<boolean> {
	const { rows } = await tx.query<{ left_at: Date | null }>(
		'select left_at from membership where team_id = $1 and person_id = $2 for update',
		[team, person],
	);
	const before = rows[0];
	if (before && !before.left_at)
		throw new Problem(409, 'member.already', 'They are in this team already.', 'person');
	await tx.query(
		`insert into membership (team_id, person_id, role, title) values ($1, $2, $3, $4)
		on conflict (team_id, person_id) do update set role = excluded.role, title = excluded.title, left_at = null`,
		[team, person, as.role, as.title],
	);
	await tx.query(
		`with spell as (
			insert into membership_spell (team_id, person_id, from_day) values ($1, $2, $3)
			on conflict (team_id, person_id, from_day) do update set until_day = null
		)
		insert into working_week (team_id, person_id, from_day, hours)
		select id, $2, $3, week from team
		where id = $1 and $4 and not exists (select from working_week where team_id = $1 and person_id = $2)`,
		[team, person, today, as.role !== 'viewer'],
	);
	return before !== undefined;
}

/** Refuses what would leave the team without a lead. */
export async function keepALead(context: TeamContext, person: { id: string; name: string }): Promise<void> {
	const { rows } = await context.tx.query<{ person_id: string }>(
		`select person_id from membership where team_id = $1 and role = 'lead' and left_at is null for update`,
		[context.team.id],
	);
	if (rows.some((lead) => lead.person_id !== person.id)) return;
	throw new Problem(
		409,
		'team.last_lead',
		`${person.name} is the only lead: make somebody else a lead first.`,
		'person',
	);
}

/** Says in the history of every board of a team what happened to its people, where the command was about one person. */
export async function tellBoards(
	tx: Tx,
	team: string,
	by: { person: string; commandId: string; at: Date },
	sentence: string,
): Promise<void> {
	await tx.query('select from board where team_id = $1 order by id for update', [team]);
	await tx.query(
		`with moved as (
			update board set last_seq = last_seq + 1 where team_id = $1 returning id, last_seq
		), told as (
			insert into event (board_id, seq, actor_id, command_id, kind, at, value)
			select id, last_seq, $2, $3, 'people', $4, $5 from moved
		)
		select pg_notify('harrow', id || ' ' || last_seq) from moved`,
		[team, by.person, by.commandId, by.at, sentence],
	);
}
