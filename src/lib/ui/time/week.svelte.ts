import { fsum } from 'd3-array';
import { dayText, parseDay } from '$core/calendar/days';
import { readHours } from '$core/capacity/hours-text';
import type { TimesheetPage, TimesheetRow } from '$core/pages/account';
import type { Command, CommandInput } from '../../commands';
import { reread } from '../frame/reread';
import { send } from '../send';
import { dateWords, figure } from '../words';

export type Entry = TimesheetRow['entries'][number];

export const entriesOn = (row: TimesheetRow, day: string): Entry[] =>
	row.entries.filter((entry) => entry.day === day);
const hoursOf = (entries: readonly Entry[]) => fsum(entries, ({ hours }) => hours);
/** What a cell shows: the hours of a day, nothing where there are none. */
export const shownOn = (row: TimesheetRow, day: string): string => {
	const sum = hoursOf(entriesOn(row, day));
	return sum ? figure(sum, 2) : '';
};

/** A person's week on a timesheet: its rows and sums, and what is typed into its cells. */
export class Week {
	/** Rows that were asked for beside those of the week. */
	private added = $state.raw<TimesheetRow[]>([]);
	/** What is wrong with what was typed, and what was kept of it. */
	problem = $state('');
	said = $state('');
	readonly days = $derived.by(() => {
		const monday = parseDay(this.sheet().monday)!;
		return Array.from({ length: 7 }, (_, i) => dayText(monday + i));
	});
	readonly rows = $derived.by(() => {
		const { rows } = this.sheet();
		return [...rows, ...this.added.filter((row) => !rows.some((known) => known.card === row.card))];
	});
	readonly total = $derived(fsum(this.rows, (row) => this.ofRow(row)));
	readonly billable = $derived(
		fsum(this.rows, ({ entries }) => hoursOf(entries.filter(({ billable }) => billable))),
	);
	/** What is being kept, cell by cell: what is typed into one waits until what was typed before is answered. */
	private readonly queues = new Map<string, Promise<void>>();
	private keeping: Promise<void> = Promise.resolve();

	constructor(private readonly sheet: () => TimesheetPage) {}

	ofRow({ entries }: TimesheetRow): number {
		return hoursOf(entries);
	}

	ofDay(day: string): number {
		return fsum(this.rows, (row) => hoursOf(entriesOn(row, day)));
	}

	/** Puts a row below those of the week, unless the card has one; gives its place. */
	add(row: TimesheetRow): number {
		if (!this.rows.some(({ card }) => card === row.card)) this.added = [...this.added, row];
		return this.rows.findIndex(({ card }) => card === row.card);
	}

	/** Another week is looked at. */
	leave(): void {
		this.added = [];
	}

	/** Sends a command about time; why it was refused, nothing where it was not. */
	async tell<C extends Command>(command: C, input: CommandInput<C>): Promise<string> {
		const sent = await send(command, input);
		if (!sent.ok) return sent.refusal.title;
		await reread('harrow:timesheet');
		return '';
	}

	/** Keeps what was typed into a cell, after what was typed into it before. */
	keep({ card }: TimesheetRow, day: string, input: HTMLInputElement): Promise<void> {
		const at = `${card} ${day}`;
		const text = input.value.trim();
		const kept = (this.queues.get(at) ?? Promise.resolve()).then(() => this.keepNow(card, day, text, input));
		this.queues.set(at, kept);
		return (this.keeping = kept);
	}

	/** The row of a card as it is once all that was typed is kept. */
	async settled({ card }: TimesheetRow): Promise<TimesheetRow | undefined> {
		await this.keeping;
		return this.rows.find((known) => known.card === card);
	}

	/** What was typed into a cell: a new entry, another figure for the one there is, or nothing any more. */
	private async keepNow(card: string, day: string, text: string, input: HTMLInputElement): Promise<void> {
		const row = this.rows.find((known) => known.card === card);
		if (!row || text === shownOn(row, day)) return;
		const entries = entriesOn(row, day);
		const hours = text === '' ? 0 : readHours(text);
		// What has been typed since stays.
		const show = (value: string) => input.value.trim() === text && (input.value = value);
		const refuse = (sentence: string) => {
			this.problem = `${row.key}, ${dateWords(day)}: ${sentence}`;
			show(shownOn(row, day));
		};
		if (hours === null) return refuse('write hours as 1.5, as 1:30 or as 90m.');
		if (entries.length > 1)
			return refuse('there are several entries on this day. Press Enter to correct one of them.');
		this.problem = '';
		const refusal = await this.change(card, day, entries[0], hours);
		if (refusal) return refuse(refusal);
		const where = `on ${row.key}, ${dateWords(day)}.`;
		this.said = hours ? `${figure(hours, 2)} h ${where}` : `Nothing ${where}`;
		show(hours ? figure(hours, 2) : '');
	}

	private change(card: string, day: string, entry: Entry | undefined, hours: number): Promise<string> {
		if (entry) {
			const of = { card, entry: entry.id, version: entry.version };
			return hours ? this.tell('ChangeTime', { ...of, hours }) : this.tell('RemoveTime', of);
		}
		return hours ? this.tell('LogTime', { card, day, hours, ...this.whose }) : Promise.resolve('');
	}

	/** A lead logs for somebody else under their name. */
	get whose(): { person?: string } {
		const { person, me } = this.sheet();
		return person === me ? {} : { person };
	}
}
