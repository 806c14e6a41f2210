import { dayWords } from '../../../../core/calendar/day-words.ts';
import { IsBoolean, IsIn, IsString, MaxLength } from 'class-validator';
import { HALVES, type DayPart } from '../../../../core/people/bookings.ts';
import { dayText, weekday } from '../../../../core/calendar/days.ts';
import { hoursOn } from '../../../../core/capacity/hours.ts';
import { notFound, Problem } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import type { TeamContext } from '../../door/contexts.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Id, Ids, Line, Optional } from '../../door/fields.ts';
import { rotaOf } from '../../questions/rota.ts';
import { memberOf, selfOrLead } from './member-of.ts';

/** Somebody is put down for at most so many days at once. */
const MOST_DAYS = 62;

export class BookDays {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;

	@DayText('The first day')
	from!: string;

	@DayText('The last day')
	to!: string;

	/** The whole of each day, or half of it. */
	@IsIn(Object.keys(HALVES), { message: 'The part is day, morning or afternoon.' })
	part!: DayPart;

	/** What for: a board, an initiative, or a site by its name; one of the three. */
	@Optional()
	@Id('board')
	board?: string;

	@Optional()
	@Id('initiative')
	initiative?: string;

	@Optional()
	@Line('The site', 80)
	site?: string;

	@Optional()
	@MaxLength(200, { message: 'The note may have at most 200 characters.' })
	@IsString({ message: 'The note must be text.' })
	note?: string;

	/** Also on days on which they are away or do not work. */
	@Optional()
	@IsBoolean({ message: 'Whether days away count is true or false.' })
	anyway?: boolean;

	/** What they were put down for until now makes room. */
	@Optional()
	@IsBoolean({ message: 'Whether it takes the place of another is true or false.' })
	instead?: boolean;
}

export const bookDays = teamCommand({
	name: 'BookDays',
	summary:
		'Puts somebody down for days, or halves of days, on a board, an initiative or a site, without a card.',
	role: 'member',
	input: BookDays,
	async run(context, input) {
		const { tx, team } = context;
		selfOrLead(context, input.person);
		const person = await memberOf(context, input.person);
		const [from, to] = [
			dayField(input.from, 'from', 'The first day'),
			dayField(input.to, 'to', 'The last day'),
		];
		if (to < from) throw new Problem(422, 'booking.backwards', 'The last day is before the first.', 'to');
		if (to - from >= MOST_DAYS)
			throw new Problem(422, 'booking.too_long', `At most ${MOST_DAYS} days are put down at once.`, 'to');
		const what = await whatFor(context, input);
		const rota = await rotaOf(team.id);
		const all = Array.from({ length: to - from + 1 }, (_, i) => from + i);
		const away = all.filter((day) => hoursOn(rota, person.id, day) === 0);
		// Days off within a longer span are passed over; a span that is nothing else is asked about.
		const days = input.anyway ? all : all.filter((day) => !away.includes(day));
		const absent = rota.absences.filter(
			(one) => one.person === person.id && one.from <= to && one.to >= from,
		);
		if (!input.anyway && (absent.length || !days.length))
			throw new Problem(
				409,
				'booking.away',
				absent.length
					? `${person.name} is away from ${dayWords(dayText(absent[0]!.from))} to ${dayWords(dayText(absent[0]!.to))}. Put them down all the same, or choose other days.`
					: `${person.name} does not work on ${from === to ? 'that day' : 'any of these days'}. Put them down all the same, or choose other days.`,
				'from',
			);
		const texts = days.map(dayText);
		const there = await clashes(context, person.id, texts, input.part);
		if (there.length && !input.instead)
			throw new Problem(
				409,
				'booking.taken',
				`${person.name} is put down for ${there[0]!.called} on ${dayWords(there[0]!.day)}${there.length > 1 ? ` and for ${there.length - 1} more` : ''}. Let this take its place, or choose other days.`,
				'from',
			);
		const other = there.find((one) => one.team !== team.id);
		if (other)
			throw new Problem(
				409,
				'booking.elsewhere',
				`${person.name} is put down by another team on ${other.day}: only that team can free the day.`,
				'from',
			);
		await context.keep('booking', { person_id: person.id, day: texts });
		await tx.query('update booking set withdrawn_at = $2 where id = any($1::uuid[])', [
			there.map(({ id }) => id),
			context.at,
		]);
		await tx.query(
			`insert into booking (team_id, person_id, day, halves, board_id, initiative_id, site, note)
			select $1, $2, day, $4::int4range, $5, $6, $7, $8 from unnest($3::date[]) day`,
			[
				team.id,
				person.id,
				texts,
				HALVES[input.part],
				input.board ?? null,
				input.initiative ?? null,
				input.site ?? '',
				input.note?.trim() ?? '',
			],
		);
		const span =
			input.from === input.to
				? `on ${dayWords(input.from)}`
				: `from ${dayWords(input.from)} to ${dayWords(input.to)}`;
		const part = input.part === 'day' ? '' : ` (${input.part}s)`;
		context.note(`${person.name} is put down for ${what} ${span}${part}.`);
		return { result: { days: texts.length } };
	},
});

export class DropBookings {
	@Id('team')
	team!: string;

	@Ids('booking', 200)
	bookings!: string[];
}

export const dropBookings = teamCommand({
	name: 'DropBookings',
	summary: 'Frees days for which somebody was put down.',
	role: 'member',
	input: DropBookings,
	async run(context, { bookings }) {
		const rows = (await context.keep('booking', { id: bookings })) as unknown as {
			team_id: string;
			person_id: string;
			day: string;
			withdrawn_at: string | null;
		}[];
		const own = rows.filter((row) => row.team_id === context.team.id && !row.withdrawn_at);
		if (!own.length || own.length < new Set(bookings).size) throw notFound('booking');
		for (const { person_id } of own) selfOrLead(context, person_id);
		await context.tx.query('update booking set withdrawn_at = $2 where id = any($1::uuid[])', [
			bookings,
			context.at,
		]);
		const { rows: people } = await context.tx.query<{ name: string }>(
			'select name from person where id = any($1::uuid[]) order by name',
			[[...new Set(own.map(({ person_id }) => person_id))]],
		);
		const days = [...new Set(own.map(({ day }) => day))].sort();
		context.note(
			`${people.map(({ name }) => name).join(', ')}: free again on ${days[0]}${days.length > 1 ? ` and ${days.length - 1} more` : ''}.`,
		);
	},
});

export class NoteWeek {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;

	/** The Monday of the week. */
	@DayText('The week')
	monday!: string;

	/** What is to be known of it; empty takes it away. */
	@MaxLength(300, { message: 'The note may have at most 300 characters.' })
	@IsString({ message: 'The note must be text.' })
	note!: string;
}

export const noteWeek = teamCommand({
	name: 'NoteWeek',
	summary: 'Notes something on a person’s week, for the whole team to read.',
	role: 'member',
	input: NoteWeek,
	async run(context, input) {
		selfOrLead(context, input.person);
		const person = await memberOf(context, input.person);
		const day = dayField(input.monday, 'monday', 'The week');
		if (weekday(day) !== 0)
			throw new Problem(422, 'invalid.monday', 'A week is named by its Monday.', 'monday');
		await context.keep('week_note', { team_id: context.team.id, person_id: person.id, monday: input.monday });
		const note = input.note.trim();
		await context.tx.query(
			note
				? `insert into week_note (team_id, person_id, monday, note) values ($1, $2, $3, $4)
					on conflict (team_id, person_id, monday) do update set note = excluded.note`
				: 'delete from week_note where team_id = $1 and person_id = $2 and monday = $3 and $4 = $4',
			[context.team.id, person.id, input.monday, note],
		);
		context.note(
			note
				? `${person.name}, week of ${dayWords(input.monday)}: ${note}`
				: `What was noted of ${person.name}’s week of ${dayWords(input.monday)} was taken away.`,
		);
	},
});

/** What somebody is put down for, in words; one thing, which the team has. */
async function whatFor(
	{ tx, boards, team }: TeamContext,
	{ board, initiative, site }: BookDays,
): Promise<string> {
	if ([board, initiative, site].filter((one) => one !== undefined).length !== 1)
		throw new Problem(422, 'invalid.board', 'Say one thing: a board, an initiative or a site.', 'board');
	if (site !== undefined) return site;
	if (board !== undefined) {
		const found = boards.find(({ id }) => id === board);
		if (found) return found.name;
		throw new Problem(422, 'board.unknown', 'The team has no such board.', 'board');
	}
	const { rows } = await tx.query<{ name: string }>(
		'select i.name from initiative i join board b on b.id = i.board_id and b.team_id = $2 where i.id = $1',
		[initiative, team.id],
	);
	if (rows[0]) return rows[0].name;
	throw new Problem(422, 'initiative.unknown', 'The team has no such initiative.', 'initiative');
}

interface Clash {
	id: string;
	team: string;
	day: string;
	called: string;
}

/** What stands in the way, by whichever team; another team's is told without its name. */
async function clashes(
	{ tx, team }: TeamContext,
	person: string,
	days: readonly string[],
	part: DayPart,
): Promise<Clash[]> {
	const { rows } = await tx.query<Clash>(
		`select k.id, k.team_id as team, k.day::text,
			case when k.team_id = $4 then coalesce(b.name, i.name, k.site) else 'something of another team' end as called
		from booking k
		left join board b on b.id = k.board_id
		left join initiative i on i.id = k.initiative_id
		where k.person_id = $1 and k.day = any($2::date[]) and k.halves && $3::int4range and k.withdrawn_at is null
		order by k.day`,
		[person, days, HALVES[part], team.id],
	);
	return rows;
}
