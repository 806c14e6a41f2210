import type { CardView, Offered } from '../pages/board.ts';
import { fieldNamed, type Field } from './field.ts';

/** A condition: a field has one of these values, or (not) none of them. Keys that begin with ~ are plain words of the field. */
export interface Condition {
	field: string;
	any: string[];
	not: boolean;
}

/** What cards are narrowed to; all of it must hold. */
export interface Filter {
	/** Words that a card has in what `LOOKED_AT` names. */
	text: string;
	where: Condition[];
	/** Those that stand outside the running sprint, instead of its own. */
	outside: boolean;
}

export const NO_FILTER: Filter = { text: '', where: [], outside: false };

/** Where the words of a filter are looked for, as a sentence says it. */
export const LOOKED_AT =
	'number, title, description, type, labels, owners, initiative, fields of its own and what blocks it';

/** `owners:a|b`, or `!owners:a|b` where none of them may be. */
function conditionOf(text: string): Condition | null {
	const [, not, field, keys] = /^(!?)([\w-]+):(.*)$/s.exec(text) ?? [];
	if (!field) return null;
	try {
		return { field, any: keys!.split('|').map(decodeURIComponent), not: not === '!' };
	} catch {
		return null;
	}
}
const textOf = ({ field, any, not }: Condition) =>
	`${not ? '!' : ''}${field}:${any.map(encodeURIComponent).join('|')}`;

/** The conditions that an address names; what cannot be read is left out. */
export const readWhere = (params: URLSearchParams): Condition[] =>
	params.getAll('where').flatMap((text) => conditionOf(text) ?? []);
/** Puts conditions into an address in the place of those that it named. */
export function writeWhere(params: URLSearchParams, where: readonly Condition[]): void {
	params.delete('where');
	for (const condition of where) params.append('where', textOf(condition));
}

export function readFilter(params: URLSearchParams): Filter {
	const where = readWhere(params);
	const owner = params.get('owner');
	if (owner) where.push({ field: 'owners', any: [owner === 'nobody' ? '' : owner], not: false });
	if (params.has('blocked')) where.push({ field: 'blocked', any: ['yes'], not: false });
	return { text: params.get('text') ?? '', where, outside: params.has('outside') };
}

/** Puts a filter into an address, leaving the rest of it as it is. */
export function writeFilter(url: URL, filter: Filter): URL {
	const next = new URL(url);
	for (const name of ['text', 'owner', 'blocked', 'outside']) next.searchParams.delete(name);
	if (filter.text) next.searchParams.set('text', filter.text);
	writeWhere(next.searchParams, filter.where);
	if (filter.outside) next.searchParams.set('outside', 'yes');
	return next;
}

export const isNarrow = (filter: Filter): boolean =>
	Boolean(filter.text || filter.where.length || filter.outside);

/** What cards are narrowed to, with another condition of a field in the place of what it had; none where no value is left. */
export function withCondition<T extends { where: Condition[] }>(
	filter: T,
	field: string,
	any: readonly string[],
	not = false,
): T {
	const others = filter.where.filter((condition) => condition.field !== field);
	return { ...filter, where: any.length ? [...others, { field, any: [...any], not }] : others };
}

/** The fields that conditions can be on. */
export const offeredOf = (fields: readonly Field[]): Offered[] =>
	fields
		.filter((field) => field.values || field.said?.length)
		.map(({ id, name, said = [], values }) => ({
			...{ id, name },
			choices: [...said.map(({ key, words }) => ({ key, name: words })), ...(values?.known ?? [])],
		}));

/** What a condition says, in plain words: `late`, `not Repair or Work`; null where its field or value is no more. */
export function conditionWords(fields: readonly Field[], { field, any, not }: Condition): string | null {
	const known = fieldNamed(fields, field);
	if (!known) return null;
	const words = any.map(
		(key) => known.said?.find((said) => said.key === key)?.words ?? known.values?.name(key) ?? key,
	);
	return `${not ? 'not ' : ''}${words.join(' or ')}`;
}

/** Whether a card has a value of a field, or is what plain words of it say. */
function has(field: Field, card: CardView, key: string): boolean {
	const said = field.said?.find((one) => one.key === key);
	return said ? said.is(card) : (field.values?.of(card).includes(key) ?? false);
}

/**
 * Tells whether cards pass. A condition on a field that is no more lets everything through. While a sprint runs its own
 * cards pass, or those that stand outside it where they are asked for; a card with sub-cards is in no sprint itself.
 * @param described ids of cards whose description has the words, where that was looked up
 */
export function passing(
	filter: Filter,
	fields: readonly Field[],
	runningSprint: number | undefined,
	described: ReadonlySet<string> = new Set(),
): (card: CardView) => boolean {
	const where = filter.where.flatMap(({ field, any, not }) => {
		const known = fieldNamed(fields, field);
		return known ? [{ field: known, any, not }] : [];
	});
	const words = filter.text.toLowerCase().split(/\s+/).filter(Boolean);
	const looked = fields.filter(({ id }) => !UNREAD.has(id));
	return (card) => {
		const outside =
			runningSprint !== undefined && card.sprint !== runningSprint && card.clock !== 'done' && !card.parts;
		if (outside !== filter.outside && runningSprint !== undefined) return false;
		for (const { field, any, not } of where)
			if (any.some((key) => has(field, card, key)) === not) return false;
		if (!words.length || described.has(card.id)) return true;
		const text = looked
			.map((field) => field.text(card))
			.join(' ')
			.toLowerCase();
		return words.every((word) => text.includes(word));
	};
}

/** Fields in which words are not looked for: figures and marks that nobody would search by. */
const UNREAD = new Set([
	'column',
	'lane',
	'class',
	'sprint',
	'due',
	'start',
	'size',
	'left',
	'length',
	'review',
	'files',
	'private',
	'done',
	'ready',
	'checks',
	'age',
	'carried',
	'finished',
]);
