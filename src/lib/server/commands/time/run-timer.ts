import { Max, Min } from 'class-validator';
import { leftOn, timerHours } from '../../../../core/capacity/timer.ts';
import { dayText } from '../../../../core/calendar/days.ts';
import { zoneOf } from '../../../../core/calendar/zone.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { withoutChildren } from '../card/family.ts';
import { Decimals, Id, Optional } from '../../door/fields.ts';
import { Billable, fitsInDay, TimeNote, whoseTime, writeTime } from './entry.ts';

export class StartTimer {
	@Id('card')
	card!: string;
}

export const startTimer = boardCommand({
	name: 'StartTimer',
	summary: 'Starts one’s timer on a card. A person has one timer.',
	input: StartTimer,
	undoable: false,
	async run(context, input) {
		await whoseTime(context, undefined);
		const card = await context.card(input.card);
		// Starting a timer changes nothing of the card.
		context.touched.delete(card.id);
		withoutChildren(card, 'Time is logged on them.');
		const { rows } = await context.tx.query<{ key: string }>(
			`select b.key || '-' || c.number as key
			from timer t
			join card c on c.id = t.card_id
			join board b on b.id = c.board_id
			where t.person_id = $1`,
			[context.person.id],
		);
		if (rows[0])
			throw new Problem(
				409,
				'timer.running',
				`Your timer runs on ${rows[0].key}. Stop it there first.`,
				'card',
			);
		await context.tx.query('insert into timer (person_id, card_id, started_at) values ($1, $2, $3)', [
			context.person.id,
			card.id,
			context.at,
		]);
		return { result: { started: context.at.toISOString() } };
	},
});

export class StopTimer {
	@Id('card')
	card!: string;

	/** How much of it was work; left out for as long as it ran. 0 logs nothing. */
	@Optional()
	@Max(24, { message: 'A day has at most 24 hours.' })
	@Min(0, { message: 'The hours must not be below 0.' })
	@Decimals(2, 'The hours must be a number with at most two decimals.')
	hours?: number;

	/** Whose timer; one’s own unless a lead stops one that was left on. */
	@Optional()
	@Id('person')
	person?: string;

	@Optional()
	@TimeNote()
	note?: string;

	@Optional()
	@Billable()
	billable?: boolean;
}

export const stopTimer = boardCommand({
	name: 'StopTimer',
	summary: 'Stops a timer and logs its time on the day it was started.',
	input: StopTimer,
	async run(context, input) {
		const person = await whoseTime(context, input.person);
		const card = await context.card(input.card);
		await context.keep('timer', { person_id: person.id });
		const { rows } = await context.tx.query<{ started_at: Date }>(
			'delete from timer where person_id = $1 and card_id = $2 returning started_at',
			[person.id, card.id],
		);
		if (!rows[0])
			throw new Problem(409, 'timer.not_running', `No timer runs on card ${card.number}.`, 'card');
		const zone = zoneOf(context.board.timeZone);
		const [from, at] = [rows[0].started_at.getTime(), context.at.getTime()];
		if (input.hours === undefined && leftOn(zone, from, at))
			throw new Problem(
				409,
				'timer.left_on',
				`The timer was left on: it has run for ${timerHours(from, at)} hours. Say how much of that was work.`,
				'hours',
				{ started: rows[0].started_at.toISOString() },
			);
		const hours = input.hours ?? timerHours(from, at);
		if (!hours) {
			context.touched.delete(card.id);
			// Somebody who says that none of it was work knows; who stops it at once is told.
			const advice = 'The timer ran for less than a minute: nothing was logged.';
			return { result: { hours }, advice: input.hours === undefined ? advice : undefined };
		}
		const day = dayText(zone.day(from));
		await fitsInDay(context, person, day, hours);
		const { note = '', billable = false } = input;
		await writeTime(context, card, { person, day, hours, note, billable });
		return { result: { hours } };
	},
});
