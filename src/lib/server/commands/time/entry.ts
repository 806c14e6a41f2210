import { Decimals } from '../../door/fields.ts';
import { IsBoolean, Max, MaxLength, Min, IsString } from 'class-validator';
import { dayText } from '../../../../core/calendar/days.ts';
import { zoneOf } from '../../../../core/calendar/zone.ts';
import { FILED_EVENTS } from '../../../../core/events/kinds.ts';
import { type HistoryEvent } from '../../../../core/flow/history.ts';
import { sprintAccounts } from '../../../../core/sprint/accounts.ts';
import { Problem } from '../../problem.ts';
import { WORKED_ON } from '../../questions/initiatives.ts';
import { pageOfInitiative } from '../page/page-of.ts';
import { dayField } from '../../door/day-field.ts';
import { applyDecorators } from '../../door/decorate.ts';
import type { BoardContext, CardRow, Standing } from '../../door/contexts.ts';

/** Hours of one entry, to a hundredth. */
export const Hours = () =>
	applyDecorators(
		Max(24, { message: 'A day has at most 24 hours.' }),
		Min(0.01, { message: 'The hours must be above 0.' }),
		Decimals(2, 'The hours must be a number with at most two decimals.'),
	);

/** What was done in that time. */
export const TimeNote = () =>
	applyDecorators(
		MaxLength(500, { message: 'The note may have at most 500 characters.' }),
		IsString({ message: 'The note must be text.' }),
	);

export const Billable = () =>
	applyDecorators(IsBoolean({ message: 'Time is billable or not: true or false.' }));

export interface TimeRow {
	id: string;
	card_id: string;
	person_id: string;
	day: string;
	hours: number;
	note: string;
	billable: boolean;
	sprint_id: string | null;
	seq: number | null;
	logged_at: Date;
	version: number;
}

/** Whose time it is: one's own, or anyone's of the team where a lead logs it. */
export async function whoseTime(
	context: BoardContext,
	asked: string | undefined,
): Promise<{ id: string; name: string }> {
	const id = asked ?? context.person.id;
	if (id !== context.person.id && context.role !== 'lead')
		throw new Problem(
			403,
			'right.missing',
			'Everyone logs their own time; only a lead may log somebody else’s.',
			'person',
		);
	const { rows } = await context.tx.query<{ id: string; name: string }>(
		`select p.id, p.name
		from membership m
		join person p on p.id = m.person_id
		where m.team_id = $1 and m.person_id = $2 and m.role <> 'viewer' and m.left_at is null`,
		[context.board.team, id],
	);
	if (!rows[0])
		throw new Problem(422, 'person.unknown', 'Time is logged by leads and members of the team.', 'person');
	return rows[0];
}

/** A day on which time was worked: not one that is still to come. */
export function workedDay(context: BoardContext, text: string): string {
	const day = dayField(text, 'day', 'The day');
	const today = zoneOf(context.board.timeZone).day(context.at.getTime());
	if (day > today)
		throw new Problem(
			422,
			'time.future',
			`${text} is still to come: time is logged for today (${dayText(today)}) or for days before.`,
			'day',
		);
	return dayText(day);
}

/** Refuses more hours than a day has. Entries of one person are written one after the other. */
export async function fitsInDay(
	context: BoardContext,
	person: { id: string; name: string },
	day: string,
	hours: number,
	but: string | null = null,
): Promise<void> {
	await context.tx.query('select from person where id = $1 for no key update', [person.id]);
	const { rows } = await context.tx.query<{ hours: number }>(
		`select coalesce(sum(hours), 0) as hours from time_entry
		where person_id = $1 and day = $2 and withdrawn_at is null and id is distinct from $3`,
		[person.id, day, but],
	);
	const all = rows[0]!.hours + hours;
	if (all > 24 + 1e-9)
		throw new Problem(
			422,
			'time.too_much',
			`${person.name} would have ${Math.round(all * 100) / 100} hours on ${day}: a day has 24, and ${rows[0]!.hours} are logged already.`,
			'hours',
		);
}

/** Writes time that was worked on a card: what is left of it falls by as much, on a board in hours. */
export async function writeTime(
	context: BoardContext,
	card: CardRow,
	time: { person: { id: string; name: string }; day: string; hours: number; note: string; billable: boolean },
): Promise<string> {
	const { tx, board } = context;
	const burned = board.unit === 'hours' ? Math.min(card.left, time.hours) : 0;
	await tx.query('update card set "left" = "left" - $2, version = version + 1 where id = $1', [
		card.id,
		burned,
	]);
	context.note(
		card.id,
		'worked',
		String(time.hours),
		{ left: card.left },
		{ for: time.person.name, day: time.day },
	);
	const inSprint = board.runningSprint && card.sprint_id === board.runningSprint.id;
	const { rows } = await tx.query<{ id: string }>(
		`insert into time_entry (card_id, person_id, day, hours, note, billable, sprint_id, command_id, seq, logged_at)
		values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
		returning id`,
		[
			card.id,
			time.person.id,
			time.day,
			time.hours,
			time.note.trim(),
			time.billable,
			inSprint ? card.sprint_id : null,
			context.commandId,
			board.lastSeq + context.notes.length,
			context.at,
		],
	);
	await tellBudget(context, card, time.hours);
	return rows[0]!.id;
}

/** Tells those who look after an initiative once the hours that were worked on it pass its budget. */
export async function tellBudget(context: BoardContext, card: CardRow, more: number): Promise<void> {
	if (card.initiative_id === null || more <= 0) return;
	const { rows } = await context.tx.query<{ name: string; budget: number; worked: number }>(
		`select i.name, i.budget_hours as budget, ${WORKED_ON('i.id')} as worked
		from initiative i
		where i.id = $1 and i.budget_hours is not null`,
		[card.initiative_id],
	);
	const [found] = rows;
	if (!found || found.worked <= found.budget || found.worked - more > found.budget) return;
	const page = await pageOfInitiative(context.tx, card.initiative_id);
	context.noteOnPage(page, 'budget-passed', String(Math.round(found.worked * 100) / 100), {
		hours: found.budget,
	});
}

/** An entry of time on a card that may be changed by this person. */
export async function timeEntry(
	context: BoardContext,
	card: CardRow,
	id: string,
	version: number,
): Promise<TimeRow> {
	const { rows } = await context.tx.query<TimeRow>(
		'select * from time_entry where id = $1 and card_id = $2 and withdrawn_at is null for update',
		[id, card.id],
	);
	const entry = rows[0];
	if (!entry) throw new Problem(404, 'time.not_found', 'There is no such entry of time.', 'entry');
	if (entry.person_id !== context.person.id && context.role !== 'lead')
		throw new Problem(403, 'right.missing', 'Only a lead may change somebody else’s time.');
	if (entry.version !== version)
		throw new Problem(
			409,
			'time.changed',
			'This entry was changed after you last saw it. Look at it as it stands now and try again.',
			'version',
		);
	return entry;
}

/** The figures of a sprint stay as they were once it was started or settled: hours from before then are not changed. */
export async function notFrozen(context: BoardContext, entry: TimeRow): Promise<void> {
	const frozen = (await context.sprintRows()).find(
		(sprint) =>
			(sprint.started_at && sprint.started_at > entry.logged_at) ||
			(sprint.closed_at && sprint.closed_at >= entry.logged_at),
	);
	if (frozen)
		throw new Problem(
			409,
			'time.frozen',
			`These hours were logged before sprint ${frozen.number} was ${frozen.closed_at ? 'settled' : 'started'}, and its figures stay as they were. Their note, day and billable mark can still be changed.`,
			'hours',
		);
}

/**
 * Corrects what the card's history says of an entry, or takes it out of it (hours null): the figures then are as if it had
 * always been so. The corrected hours stay where and when they were, in their stint and sprint, also when the card has left
 * that since; what is left of the card now is what its history says then.
 */
export async function relogged(
	context: BoardContext,
	card: CardRow,
	entry: TimeRow,
	hours: number | null,
	words: { for: string; day: string },
): Promise<number | null> {
	const { tx, board } = context;
	const stood = entry.seq === null ? null : await takeOut(context, entry.seq);
	context.note(card.id, 'time-changed', hours === null ? '' : String(hours), { hours: entry.hours }, words);
	if (hours !== null) context.note(card.id, 'worked', String(hours), null, words, stood);
	const seq = hours === null ? null : board.lastSeq + context.notes.length;
	await tx.query('update card set "left" = $2, version = version + 1 where id = $1', [
		card.id,
		await leftByHistory(context, card),
	]);
	return seq;
}

/** Takes an event out of the history; gives where it stood. */
async function takeOut(context: BoardContext, seq: number): Promise<Standing | null> {
	const { rows } = await context.tx.query<Standing>(
		`with out as (
			insert into event_void (board_id, seq, command_id) values ($1, $2, $3)
		)
		select at, coalesce(stands_for, seq) as seq from event where board_id = $1 and seq = $2`,
		[context.board.id, seq, context.commandId],
	);
	return rows[0] ?? null;
}

async function leftByHistory(context: BoardContext, card: CardRow): Promise<number> {
	const key = String(card.number);
	const { rows } = await context.tx.query<{
		at: Date;
		event: HistoryEvent['event'];
		value: string;
		place: number;
	}>(
		`select e.at, e.kind as event, e.value, coalesce(e.stands_for, e.seq) as place from event e
		where e.card_id = $1 and e.kind = any($2)
			and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)
`,
		[card.id, FILED_EVENTS],
	);
	const now = context.at.getTime();
	const noted = context.notes.flatMap(({ card: of, kind, value, stands }, i) =>
		of === card.id && (FILED_EVENTS as readonly string[]).includes(kind)
			? [
					{
						at: stands?.at ?? context.at,
						event: kind as HistoryEvent['event'],
						value,
						place: stands?.seq ?? context.board.lastSeq + i + 1,
					},
				]
			: [],
	);
	const inPlace = [...rows, ...noted].sort((a, b) => a.at.getTime() - b.at.getTime() || a.place - b.place);
	const events = inPlace.map(({ at, event, value }): HistoryEvent => ({
		card: key,
		at: at.getTime(),
		event,
		value,
	}));
	const sprints = (await context.sprintRows()).map((sprint) => ({
		number: sprint.number,
		starts: 0,
		ends: 0,
		startedAt: sprint.started_at?.getTime() ?? null,
		closedAt: sprint.closed_at?.getTime() ?? null,
	}));
	const unit = context.board.unit === 'points' ? 'points' : 'hours';
	const { cards } = sprintAccounts({ ...context.board, unit, sprints }, events, now);
	return Math.round((cards.get(key)?.left ?? 0) * 100) / 100;
}
