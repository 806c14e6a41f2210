import type { CardView } from '../pages/board.ts';
import { fieldNamed, type Field, type Value } from './field.ts';

/** How cards are ordered: by several fields, one after the other. */
export interface SortKey {
	field: string;
	down: boolean;
}

/** How cards are laid out. */
export interface Arrangement {
	/** The field whose values are the columns; null: the board's own columns. */
	by: Field | null;
	/** The field whose values are the lanes; null for none. */
	lanes: Field | null;
	sort: SortKey[];
}

/** `due,-size` in the order in which they count. */
export const sortKeys = (text: string | null): SortKey[] =>
	(text ?? '')
		.split(',')
		.filter(Boolean)
		.map((key) => ({ field: key.replace(/^-/, ''), down: key.startsWith('-') }));
export const sortText = (keys: readonly SortKey[]): string =>
	keys.map(({ field, down }) => `${down ? '-' : ''}${field}`).join(',');

/** Fields by whose values cards can be put together. */
export const arrangeable = (fields: readonly Field[]): Field[] => fields.filter((field) => field.values);

/**
 * How an address says that cards are laid out. Left out, lanes are those of the board; `none` is none.
 * @param fields of the board
 */
export function readArrangement(params: URLSearchParams, fields: readonly Field[]): Arrangement {
	const named = (id: string | null) => {
		const field = id ? fieldNamed(fields, id) : undefined;
		return field?.values ? field : null;
	};
	const by = named(params.get('by'));
	const lanes = params.get('lanes');
	return {
		by: by?.id === 'column' ? null : by,
		lanes: lanes === null ? named('lane') : named(lanes),
		sort: sortKeys(params.get('sort')).filter(({ field }) => fieldNamed(fields, field)),
	};
}

/** Orders cards by several fields; those without a value come last whichever way, and what is equal stays as it was. */
export function sorted(
	cards: readonly CardView[],
	keys: readonly SortKey[],
	fields: readonly Field[],
): CardView[] {
	const by = keys.flatMap(({ field, down }) => {
		const known = fieldNamed(fields, field);
		return known ? [{ order: known.order, down }] : [];
	});
	if (!by.length) return [...cards];
	const values = new Map(cards.map((card) => [card.id, by.map(({ order }) => order(card))]));
	return [...cards].sort((a, b) => {
		const [one, other] = [values.get(a.id)!, values.get(b.id)!];
		for (let i = 0; i < by.length; i++) {
			const [x, y] = [one[i]!, other[i]!];
			if (x === y) continue;
			if (x === null) return 1;
			if (y === null) return -1;
			const less = typeof x === 'string' && typeof y === 'string' ? x.localeCompare(y) : x < y ? -1 : 1;
			if (less) return by[i]!.down ? -less : less;
		}
		return 0;
	});
}

/** The values of a field as they are laid out: all that are known, those that only cards have, and none at the end. */
export function valuesAmong({ values }: Field, cards: readonly CardView[]): Value[] {
	if (!values) return [];
	const known = new Map(values.known.map((value) => [value.key, value]));
	const others = new Set(cards.flatMap((card) => values.of(card)).filter((key) => !known.has(key)));
	// Weeks and the like come in their order, before and after those that are known.
	const all = [...known.values(), ...[...others].map((key) => ({ key, name: values.name(key) }))];
	const days = all.every(({ key }) => !key || /^\d{4}-\d{2}-\d{2}$/.test(key));
	const filled = all.filter(({ key }) => key);
	if (days) filled.sort((a, b) => (a.key < b.key ? -1 : 1));
	return [...filled, ...all.filter(({ key }) => !key)];
}

/** Cards by the values of a field; one with several stands under each. */
export function byValue({ values }: Field, cards: readonly CardView[]): Map<string, CardView[]> {
	const found = new Map<string, CardView[]>();
	for (const card of cards)
		for (const key of values!.of(card)) {
			const there = found.get(key);
			if (there) there.push(card);
			else found.set(key, [card]);
		}
	return found;
}

/** A count of cards, and a sum of what is left of them, by two fields. */
export interface Tally {
	rows: Value[];
	columns: Value[];
	/** The cards of each cell, by row and column. */
	cells: CardView[][][];
	/** Cards of each row, of each column, and all: each card once. */
	inRow: CardView[][];
	inColumn: CardView[][];
	all: CardView[];
}

/** Counts cards by the values of two fields; rows and columns without cards are left out. */
export function tally(cards: readonly CardView[], rows: Field, columns: Field): Tally {
	const byRow = byValue(rows, cards);
	const byColumn = byValue(columns, cards);
	const kept = (field: Field, by: Map<string, CardView[]>) =>
		valuesAmong(field, cards).filter(({ key }) => by.has(key));
	const [down, across] = [kept(rows, byRow), kept(columns, byColumn)];
	const sets = new Map([...byColumn].map(([key, there]) => [key, new Set(there)]));
	return {
		rows: down,
		columns: across,
		cells: down.map(({ key }) =>
			across.map((column) => byRow.get(key)!.filter((card) => sets.get(column.key)!.has(card))),
		),
		inRow: down.map(({ key }) => byRow.get(key)!),
		inColumn: across.map(({ key }) => byColumn.get(key)!),
		all: [...cards],
	};
}
