import type { JobView, LettersPage, LetterView } from '../../../core/pages/letters.ts';
import { rows } from '../database.ts';
import { mailOn } from '../mail/settings.ts';
import { notFound, Problem } from '../problem.ts';
import { isId } from '../asked.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';

const SHOWN = 200;

/**
 * How the letters of a team’s people fare, and what else waits to be done. For those who lead it; what a letter says is only
 * for whom it goes to.
 * @throws Problem 404 where there is no such team, 403 for those who do not lead it
 */
export async function lettersPage(person: Person, team: string): Promise<LettersPage> {
	const [found] = isId(team)
		? await rows<LettersPage['team'] & { lead: boolean; boards: LettersPage['boards'] }>(
				`select t.id, t.name, t.time_zone as "timeZone", m.role = 'lead' as lead, (
					select coalesce(json_agg(json_build_object('name', b.name, 'slug', b.slug) order by b.position, b.name), '[]')
					from board b where b.team_id = t.id and b.away_at is null
				) as boards
				from team t join membership m on m.team_id = t.id and m.person_id = $2 and m.left_at is null
				where t.id = $1`,
				[team, person.id],
			)
		: [];
	if (!found) throw notFound('team');
	if (!found.lead)
		throw new Problem(403, 'role.too_low', 'How letters fare is shown to those who lead the team.');
	const [letters, [counts], jobs] = await Promise.all([
		rows<LetterView>(
			`select m.id, m.kind, coalesce(p.name, m.to_address) as to, m.made_at as "madeAt", m.tries, m.trouble,
				case when m.sent_at is not null then 'sent' when m.dropped_at is null then 'waits'
					when m.refused then 'refused' else 'over' end as state,
				case when m.sent_at is null and m.dropped_at is null then (
					select j.run_at from graphile_worker.jobs j where j.key = 'mail-' || m.id and j.attempts < j.max_attempts
				) end as next, m.sent_at as "sentAt"
			from mail m left join person p on p.id = m.person_id
			where m.team_id = $1 or exists (
				select from membership o where o.team_id = $1 and o.person_id = m.person_id and o.left_at is null)
			order by (m.sent_at is null and (m.dropped_at is null or m.refused)) desc, m.made_at desc
			limit ${SHOWN}`,
			[team],
			'letters',
		),
		rows<{ waiting: number; refused: number; sent: number }>(
			`select count(*) filter (where sent_at is null and dropped_at is null)::int as waiting,
				count(*) filter (where refused)::int as refused,
				count(*) filter (where sent_at > $2::timestamptz - interval '7 days')::int as sent
			from mail m
			where m.team_id = $1 or exists (
				select from membership o where o.team_id = $1 and o.person_id = m.person_id and o.left_at is null)`,
			[team, now()],
			'letters-count',
		),
		rows<JobView>(
			`select task_identifier as task, run_at as "runAt", attempts::int as tries, last_error as trouble, locked_at is not null as running
			from graphile_worker.jobs where task_identifier <> 'send-mail' order by run_at limit 50`,
		),
	]);
	const { lead: _lead, boards, ...of } = found;
	return { team: of, boards, on: mailOn(), ...counts!, letters, jobs };
}
