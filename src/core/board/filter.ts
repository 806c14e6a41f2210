import type { CardView } from './view.ts';

/** What a board is narrowed to; empty words, nobody and false let everything through. */
export interface Filter {
	text: string;
	/** A person's id, `nobody`, or empty for everyone. */
	owner: string;
	blocked: boolean;
	outside: boolean;
}

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
 * Whether a card passes. Text is looked for in its number, title and block reason, whatever the case. While a sprint runs
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
	const text = `${card.number} ${card.title} ${card.blocked?.reason ?? ''}`.toLowerCase();
	return words.every((word) => text.includes(word));
}
