import { format, parseISO } from 'date-fns';
import { parseDay } from '$core/calendar/days';
import { zoneOf, type Day } from '$core/calendar/zone';
import { count } from '$core/words';

export { amount, calledAmong, count, daysWords, figure, list, wholeNames } from '$core/words';

/** A date in words: `Fri 4 Dec`, with the year when it is not this one. */
export function dateWords(day: string, today = day): string {
	return format(parseISO(day), day.slice(0, 4) === today.slice(0, 4) ? 'EEE d MMM' : 'EEE d MMM yyyy');
}

/** `4 Dec`. */
export function shortDate(day: string): string {
	return format(parseISO(day), 'd MMM');
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
