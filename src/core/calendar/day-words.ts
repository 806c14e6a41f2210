import { format, isValid, parseISO } from 'date-fns';

/** A calendar date in words that hold whenever they are read: `Fri 4 Dec 2026`. What is no date stays as it is. */
export function dayWords(text: string): string {
	const day = parseISO(text);
	return isValid(day) ? format(day, 'EEE d MMM yyyy') : text;
}
