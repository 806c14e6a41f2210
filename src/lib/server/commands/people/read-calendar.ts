import { IsString, MaxLength } from 'class-validator';
import { dayText } from '../../../../core/calendar/days.ts';
import { zoneOf } from '../../../../core/calendar/zone.ts';
import type { readCalendar as read } from '../../../../core/exchange/calendar-file.ts';
import { apart } from '../../apart.ts';
import { rows } from '../../database.ts';
import { now } from '../../time.ts';
import { Problem } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import { Id, OrNull } from '../../door/fields.ts';
import { inTurn } from '../../door/turns.ts';
import { leadsOnly, memberOf, mustWait, selfOrLead } from './member-of.ts';

export class ReadCalendar {
	@Id('team')
	team!: string;

	/** Whose absences these are; null: the team's holidays. */
	@OrNull()
	@Id('person')
	person!: string | null;

	/** The file itself (iCalendar, RFC 5545). */
	@MaxLength(1_000_000, { message: 'A calendar file may have at most a million characters.' })
	@IsString({ message: 'The file must be text.' })
	file!: string;
}

export const readCalendar = teamCommand({
	name: 'ReadCalendar',
	summary:
		'Reads absences of a person, or holidays of the team, from an iCalendar file. Read again, it changes them.',
	input: ReadCalendar,
	// Files come from anywhere: they are read before anything is locked, apart, and not for long.
	prepare: ({ team, file }) => inTurn(['calendar-file'], () => readApart(team, file)),
	async run(context, input, found) {
		const { tx, team } = context;
		if (input.person === null) leadsOnly(context);
		else selfOrLead(context, input.person);
		const person = input.person === null ? null : await memberOf(context, input.person);
		if (!found.ok) throw new Problem(422, 'calendar.unreadable', found.reason, 'file');
		const entries = found.days.map((entry) => ({
			...entry,
			from: dayText(entry.from),
			to: dayText(entry.to),
			hours: entry.hours === null ? null : Math.min(24, entry.hours),
		}));
		if (person) {
			await context.keep('absence', {
				person_id: person.id,
				calendar_uid: [...new Set(entries.map((entry) => entry.uid))],
			});
			await tx.query(
				`insert into absence (person_id, from_day, to_day, hours, note, calendar_uid, waits)
				select distinct on (e.uid, e."from") $1::uuid, e."from", e."to", e.hours, e.note, e.uid, $3
				from jsonb_to_recordset($2) as e(uid text, "from" date, "to" date, hours numeric, note text)
				on conflict (person_id, calendar_uid, from_day) where calendar_uid is not null
				do update set to_day = excluded.to_day, hours = excluded.hours, note = excluded.note, withdrawn_at = null`,
				[person.id, JSON.stringify(entries), await mustWait(context)],
			);
			context.note(`${person.name}’s calendar was read: ${entries.length} absences.`);
			return { result: { read: entries.length } };
		}
		const whole = entries.filter((entry) => entry.hours === null);
		if (!whole.length)
			throw new Problem(
				422,
				'calendar.no_days',
				'This calendar holds no whole days: holidays are whole days.',
				'file',
			);
		await context.keep('holiday', { team_id: team.id });
		await tx.query(
			`insert into holiday (team_id, day, name)
			select distinct on (d.day) $1::uuid, d.day::date, left(coalesce(nullif(e.note, ''), 'Holiday'), 80)
			from jsonb_to_recordset($2) as e("from" date, "to" date, note text),
				generate_series(e."from", least(e."to", e."from" + 60), interval '1 day') as d(day)
			on conflict (team_id, day) do update set name = excluded.name, withdrawn_at = null`,
			[team.id, JSON.stringify(whole)],
		);
		context.note(`A calendar of holidays was read: ${whole.length} entries.`);
		return { result: { read: whole.length } };
	},
});

type Read = ReturnType<typeof read>;
const LONGEST_MS = 2000;

async function readApart(team: string, text: string): Promise<Read> {
	const [found] = await rows<{ zone: string }>('select time_zone as zone from team where id = $1', [team]);
	// Whether there is such a team, and the person is in it, the door says.
	if (!found) return { ok: false, reason: '' };
	const today = zoneOf(found.zone).day(now().getTime());
	const read = await apart<Read>('calendar-file', { text, zone: found.zone, today }, LONGEST_MS);
	return (
		read ?? {
			ok: false,
			reason: 'This iCalendar file takes too long to read: a rule in it may name no day at all.',
		}
	);
}
