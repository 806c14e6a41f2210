/** What work is measured in. */
export type Unit = 'hours' | 'points' | 'none';

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

/**
 * What people are called among each other: by their first names; those who share one by their whole names, and those who share
 * that with what they do.
 * @returns what somebody of them is called, by id; `somebody` for all others
 */
export function calledAmong(
	people: readonly { id: string; name: string; title?: string }[],
): (id: string | null | undefined) => string {
	const first = (name: string) => name.split(' ')[0]!;
	const firsts = timesOf(people.map(({ name }) => first(name)));
	const whole = wholeNames(people);
	const called = new Map<string | null | undefined, string>(
		people.map(({ id, name }) => [id, firsts.get(first(name)) === 1 ? first(name) : whole(id)]),
	);
	return (id) => called.get(id) ?? 'somebody';
}

/** Somebody of a name that others have too, told apart by what they do. */
export const withTitle = (name: string, title: string): string => `${name} (${title})`;

/** The names of people, of those who share one with what they do; by id, and `somebody` for all others. */
export function wholeNames(
	people: readonly { id: string; name: string; title?: string }[],
): (id: string | null | undefined) => string {
	const names = timesOf(people.map(({ name }) => name));
	const called = new Map<string | null | undefined, string>(
		people.map(({ id, name, title }) => [id, title && names.get(name)! > 1 ? withTitle(name, title) : name]),
	);
	return (id) => called.get(id) ?? 'somebody';
}

function timesOf(words: readonly string[]): Map<string, number> {
	const times = new Map<string, number>();
	for (const word of words) times.set(word, (times.get(word) ?? 0) + 1);
	return times;
}
