import { IsBoolean, IsIn, IsInt, IsISO8601, IsString, Max, MaxLength, Min } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id, Optional } from '../../door/fields.ts';
import { notFound, Problem } from '../../problem.ts';

/** So many reminders of one person a card has at most. */
const MOST = 20;

export class RemindCard {
	@Id('card')
	card!: string;

	/** Whether its owners are reminded, whoever they are then; else only oneself. */
	@IsBoolean({ message: 'A reminder is for the owners or not: true or false.' })
	owners!: boolean;

	@Optional()
	@MaxLength(300, { message: 'The words may have at most 300 characters.' })
	@IsString({ message: 'The words must be text.' })
	words?: string;

	/** The moment, such as 2026-12-04T09:00:00Z; or, with days and an hour, before which date. */
	@Optional()
	@IsISO8601(
		{ strict: true, strictSeparator: true },
		{ message: 'The moment is one such as 2026-12-04T09:00:00Z.' },
	)
	at?: string;

	@Optional()
	@IsIn(['start', 'due'], { message: 'A reminder comes before the start or before it is due: start or due.' })
	before?: 'start' | 'due';

	/** So many days before that date; 0 on the day itself. */
	@Optional()
	@Max(60, { message: 'A reminder comes at most 60 days before.' })
	@Min(0, { message: 'A reminder comes 0 days before or more.' })
	@IsInt({ message: 'The days are a whole number.' })
	days?: number;

	/** At which hour, where the team is. */
	@Optional()
	@Max(23, { message: 'The hour is from 0 to 23.' })
	@Min(0, { message: 'The hour is from 0 to 23.' })
	@IsInt({ message: 'The hour is a whole number.' })
	hour?: number;
}

export const remindCard = boardCommand({
	name: 'RemindCard',
	summary:
		'Sets a reminder on a card, for oneself or its owners: at a moment, or before it starts or is due.',
	role: 'viewer',
	undoable: false,
	input: RemindCard,
	async run(context, input) {
		const { tx, person, at, role } = context;
		const [card] = await context.look([{ card: input.card, seen: true }]);
		if (input.owners && role === 'viewer')
			throw new Problem(403, 'right.missing', 'Reminding the owners needs the role of a member or lead.');
		const parts = [input.before, input.days, input.hour].filter((part) => part !== undefined).length;
		if ((input.at === undefined) === (parts === 0) || (parts !== 0 && parts !== 3))
			throw new Problem(
				422,
				'reminder.when',
				'Say when: either a moment, or so many days before the start or due date and an hour.',
				'at',
			);
		if (input.at && new Date(input.at) <= at)
			throw new Problem(422, 'reminder.past', 'This moment has passed already.', 'at');
		const { rows } = await tx.query<{ n: number }>(
			'select count(*)::int as n from reminder where card_id = $1 and person_id = $2 and dropped_at is null',
			[card!.id, person.id],
		);
		if (rows[0]!.n >= MOST)
			throw new Problem(409, 'reminder.too_many', `A card takes at most ${MOST} reminders of one person.`);
		const { rows: made } = await tx.query<{ id: string }>(
			`insert into reminder (card_id, person_id, owners, words, at, before, days, hour, made_at)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9) returning id`,
			[
				...[card!.id, person.id, input.owners, input.words?.trim() ?? '', input.at ?? null],
				...[input.before ?? null, input.days ?? null, input.hour ?? null, at],
			],
		);
		return { result: { reminder: made[0]!.id } };
	},
});

export class DropReminder {
	@Id('card')
	card!: string;

	@Id('reminder')
	reminder!: string;
}

export const dropReminder = boardCommand({
	name: 'DropReminder',
	summary: 'Takes a reminder of one’s own off a card.',
	role: 'viewer',
	undoable: false,
	input: DropReminder,
	async run(context, input) {
		const [card] = await context.look([{ card: input.card, seen: true }]);
		const { rowCount } = await context.tx.query(
			'update reminder set dropped_at = $4 where id = $1 and card_id = $2 and person_id = $3 and dropped_at is null',
			[input.reminder, card!.id, context.person.id, context.at],
		);
		if (!rowCount) throw notFound('reminder');
	},
});
