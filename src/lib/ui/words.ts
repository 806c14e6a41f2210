import { format, parseISO } from 'date-fns';
import type { Unit } from '$core/pages/board';
import { parseDay } from '$core/calendar/days';
import { zoneOf, type Day } from '$core/calendar/zone';

/** A date in words: `Fri 4 Dec`, with the year when it is not this one. */
export function dateWords(day: string, today = day): string {
	return format(parseISO(day), day.slice(0, 4) === today.slice(0, 4) ? 'EEE d MMM' : 'EEE d MMM yyyy');
}

/** `4 Dec`. */
export function shortDate(day: string): string {
	return format(parseISO(day), 'd MMM');
}

/** A count with its noun: `1 card`, `3 cards`. */
export function count(n: number, one: string, many = `${one}s`): string {
	return `${n} ${n === 1 ? one : many}`;
}

/** A figure without needless decimals: `6.5`, `12`. */
export function figure(n: number, decimals = 1): string {
	return String(Number(n.toFixed(decimals)));
}

/** Days with a decimal where they have one: `1 day`, `2.5 days`. */
export function daysWords(n: number, decimals = 1): string {
	return `${figure(n, decimals)} ${figure(n, decimals) === '1' ? 'day' : 'days'}`;
}

/** An amount of work in the board's unit: `6.5 h`, `5 pt`. */
export function amount(n: number, unit: Unit): string {
	return unit === 'hours' ? `${figure(n)} h` : unit === 'points' ? `${figure(n)} pt` : figure(n);
}

/** Words joined as in a sentence: `a, b and c`. */
export function list(words: string[]): string {
	return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}

/** The calendar date of an instant in a time zone. */
export function dayOf(instant: string | number, timeZone: string): Day {
	return zoneOf(timeZone).day(typeof instant === 'number' ? instant : Date.parse(instant));
}

/** Days from an instant to a day, both counted. */
export function daysSince(instant: string, today: Day, timeZone: string): number {
	return today - dayOf(instant, timeZone) + 1;
}

/** When a card is due, in the words that stand on it; tone says whether that is late or soon. */
export function dueWords(
	due: string,
	today: Day,
	/** The day on which it was finished; null while it is not. */
	finished: Day | null,
): { text: string; tone: '' | 'late' | 'soon' } {
	const day = parseDay(due)!;
	if (finished !== null)
		return finished > day
			? { text: `${count(finished - day, 'day')} late`, tone: 'late' }
			: { text: `by ${shortDate(due)}`, tone: '' };
	if (day < today) return { text: `late ${count(today - day, 'day')}`, tone: 'late' };
	if (day === today) return { text: 'due today', tone: 'soon' };
	return { text: `by ${shortDate(due)}`, tone: day - today <= 2 ? 'soon' : '' };
}

/** A moment in a history: `Mon 23 Nov, 14:20`. */
export function momentWords(instant: string, timeZone: string): string {
	return new Intl.DateTimeFormat('en-GB', {
		timeZone,
		weekday: 'short',
		day: 'numeric',
		month: 'short',
		hour: '2-digit',
		minute: '2-digit',
	}).format(new Date(instant));
}

/** Why a card is blocked, and for whom or what it waits where that was said. */
export function blockedWords({ reason, waitingFor }: { reason: string; waitingFor?: string | null }): string {
	return waitingFor ? `${reason}, waiting for ${waitingFor}` : reason;
}
