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
	const shared = (of: (name: string) => string, name: string) =>
		people.filter((one) => of(one.name) === of(name)).length > 1;
	const called = new Map<string | null | undefined, string>();
	for (const { id, name, title } of people)
		if (!shared(first, name)) called.set(id, first(name));
		else called.set(id, shared((whole) => whole, name) && title ? `${name} (${title})` : name);
	return (id) => called.get(id) ?? 'somebody';
}
