import { dayText } from '../../../../core/calendar/days.ts';
import { zoneOf } from '../../../../core/calendar/zone.ts';
import { timerHours } from '../../../../core/capacity/timer.ts';
import { Problem } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';
import type { TeamContext } from '../../door/contexts.ts';
import { keepALead } from '../team/members.ts';
import { memberOf } from './member-of.ts';
import { writeTime } from '../time/entry.ts';

/** A timer that was left on is no whole day of work. */
const LONGEST_DAY = 10;

export class RemoveMember {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;
}

export const removeMember = teamCommand({
	name: 'RemoveMember',
	summary:
		'Lets a person leave the team. Their name stays on what they did; cards in hand have to be given to others first.',
	input: RemoveMember,
	role: 'lead',
	undoable: false,
	async run(context, input) {
		const person = await memberOf(context, input.person);
		await keepALead(context, person);
		const { rows } = await context.tx.query<{ key: string }>(
			`select b.key || '-' || c.number as key
			from card_owner o
			join card c on c.id = o.card_id
			join board b on b.id = c.board_id and b.team_id = $1
			where o.person_id = $2 and c.archived_at is null and c.clock <> 'done'
				and (c.sprint_id is not null or c.column_id is not null)
			order by b.key, c.number`,
			[context.team.id, person.id],
		);
		if (rows.length) {
			const named = rows.slice(0, 6).map((row) => row.key);
			const more = rows.length - named.length;
			throw new Problem(
				409,
				'member.has_cards',
				`${person.name} still owns ${rows.length === 1 ? 'a card' : `${rows.length} cards`} in hand or in a sprint: ${named.join(', ')}${more ? ` and ${more} more` : ''}. Give them to somebody else first.`,
				'person',
				{ cards: rows.map((row) => row.key) },
			);
		}
		await stopTimers(context, person);
		const today = dayText(zoneOf(context.team.timeZone).day(context.at.getTime()));
		await context.tx.query(
			`with gone as (
				update membership set left_at = $3 where team_id = $1 and person_id = $2
			), ended as (
				update membership_spell set until_day = greatest($4::date, from_day)
				where team_id = $1 and person_id = $2 and until_day is null
			), known as (
				insert into membership_spell (team_id, person_id, from_day, until_day)
				select $1, $2, date '2000-01-01', $4
				where not exists (select from membership_spell where team_id = $1 and person_id = $2)
			)
			delete from session where person_id = $2`,
			[context.team.id, person.id, context.at, today],
		);
		await context.tx.query(`select pg_notify('harrow', 'person ' || $1)`, [person.id]);
		context.note(`${person.name} left the team.`);
	},
});

/** A timer that runs on a card of the team is stopped, and what it ran for is kept as far as the day holds it. */
async function stopTimers(context: TeamContext, person: { id: string; name: string }): Promise<void> {
	const { rows } = await context.tx.query<{ card: string; board: string; started: Date; logged: number }>(
		`delete from timer t
		using card c
		where c.id = t.card_id and c.board_id = any($2::uuid[]) and t.person_id = $1
		returning c.id as card, c.board_id as board, t.started_at as started,
			(select coalesce(sum(hours), 0) from time_entry e
			where e.person_id = $1 and e.withdrawn_at is null and e.day = (t.started_at at time zone $3)::date) as logged`,
		[person.id, context.boards.map((board) => board.id), context.team.timeZone],
	);
	for (const { card, board, started, logged } of rows) {
		const on = await context.onBoard(board);
		const hours = Math.min(LONGEST_DAY, timerHours(started.getTime(), context.at.getTime()), 24 - logged);
		if (hours <= 0) continue;
		const day = dayText(zoneOf(context.team.timeZone).day(started.getTime()));
		const note = 'Timer stopped as the team was left';
		await writeTime(on, await on.card(card), { person, day, hours, note, billable: false });
	}
}
