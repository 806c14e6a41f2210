import { boardCommand } from '../../door/command.ts';
import { DayText, Id, Optional, Version } from '../../door/fields.ts';
import {
	Billable,
	fitsInDay,
	Hours,
	notFrozen,
	relogged,
	tellBudget,
	timeEntry,
	TimeNote,
	workedDay,
} from './entry.ts';
import type { BoardContext } from '../../door/contexts.ts';

export class ChangeTime {
	@Id('card')
	card!: string;

	@Id('entry')
	entry!: string;

	/** The version of the entry that the sender saw. */
	@Version()
	version!: number;

	@Optional()
	@DayText('The day')
	day?: string;

	@Optional()
	@Hours()
	hours?: number;

	@Optional()
	@TimeNote()
	note?: string;

	@Optional()
	@Billable()
	billable?: boolean;
}

export const changeTime = boardCommand({
	name: 'ChangeTime',
	summary: 'Corrects time that was logged: its day, hours, note or billable mark.',
	input: ChangeTime,
	undoable: false,
	async run(context, input) {
		const card = await context.card(input.card);
		const entry = await timeEntry(context, card, input.entry, input.version);
		const day = input.day === undefined ? entry.day : workedDay(context, input.day);
		const hours = input.hours ?? entry.hours;
		const person = await personOf(context, entry.person_id);
		if (day !== entry.day || hours !== entry.hours) await fitsInDay(context, person, day, hours, entry.id);
		let { seq } = entry;
		if (hours !== entry.hours) {
			await notFrozen(context, entry);
			seq = await relogged(context, card, entry, hours, { for: person.name, day });
		} else await context.changedNow([card]);
		await context.tx.query(
			`update time_entry set day = $2, hours = $3, note = $4, billable = $5, seq = $6, version = version + 1 where id = $1`,
			[entry.id, day, hours, (input.note ?? entry.note).trim(), input.billable ?? entry.billable, seq],
		);
		await tellBudget(context, card, hours - entry.hours);
	},
});

export class RemoveTime {
	@Id('card')
	card!: string;

	@Id('entry')
	entry!: string;

	/** The version of the entry that the sender saw. */
	@Version()
	version!: number;
}

export const removeTime = boardCommand({
	name: 'RemoveTime',
	summary: 'Takes back time that was logged by mistake; it counts nowhere any more and is kept.',
	input: RemoveTime,
	undoable: false,
	async run(context, input) {
		const card = await context.card(input.card);
		const entry = await timeEntry(context, card, input.entry, input.version);
		await notFrozen(context, entry);
		const person = await personOf(context, entry.person_id);
		await relogged(context, card, entry, null, { for: person.name, day: entry.day });
		await context.tx.query('update time_entry set withdrawn_at = $2, version = version + 1 where id = $1', [
			entry.id,
			context.at,
		]);
	},
});

async function personOf(context: BoardContext, id: string): Promise<{ id: string; name: string }> {
	const { rows } = await context.tx.query<{ id: string; name: string }>(
		'select id, name from person where id = $1',
		[id],
	);
	return rows[0]!;
}
