import type { CardView } from '../pages/board.ts';

/** What a board is narrowed to; empty words, nobody and false let everything through. */
export interface Filter {
	text: string;
	/** A person's id, `nobody`, or empty for everyone. */
	owner: string;
	blocked: boolean;
	outside: boolean;
}

/** Where the words of a filter are looked for, as a sentence says it. */
export const LOOKED_AT = 'number, title, type, labels, initiative and what blocks it';

export function readFilter(params: URLSearchParams): Filter {
	return {
		text: params.get('text') ?? '',
		owner: params.get('owner') ?? '',
		blocked: params.has('blocked'),
		outside: params.has('outside'),
	};
}

/** Puts a filter into an address, leaving the rest of it as it is. */
export function writeFilter(url: URL, filter: Filter): URL {
	const next = new URL(url);
	const set = (name: string, value: string) =>
		value ? next.searchParams.set(name, value) : next.searchParams.delete(name);
	set('text', filter.text);
	set('owner', filter.owner);
	set('blocked', filter.blocked ? 'yes' : '');
	set('outside', filter.outside ? 'yes' : '');
	return next;
}

export function isNarrow(filter: Filter): boolean {
	return Boolean(filter.text || filter.owner || filter.blocked || filter.outside);
}

/**
 * Whether a card passes. Words are looked for in what `LOOKED_AT` names, whatever the case. While a sprint runs
 * its own cards pass, or those that stand outside it where they are asked for; a card with sub-cards is in no sprint itself.
 */
export function passes(filter: Filter, card: CardView, runningSprint: number | undefined): boolean {
	if (filter.blocked && !card.blocked) return false;
	const outside =
		runningSprint !== undefined && card.sprint !== runningSprint && card.clock !== 'done' && !card.parts;
	if (outside !== filter.outside && runningSprint !== undefined) return false;
	if (
		filter.owner === 'nobody' ? card.owners.length > 0 : filter.owner && !card.owners.includes(filter.owner)
	)
		return false;
	const words = filter.text.toLowerCase().split(/\s+/).filter(Boolean);
	if (!words.length) return true;
	const text = [card.number, card.title, card.type, card.initiative, card.blocked?.reason, ...card.labels]
		.join(' ')
		.toLowerCase();
	return words.every((word) => text.includes(word));
}
