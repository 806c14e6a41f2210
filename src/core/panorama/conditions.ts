import { offeredOf, type Condition } from '../board/filter.ts';
import type { Offered } from '../pages/board.ts';
import type { Field, Value } from '../board/field.ts';

/** Fields that are only known where a board itself is looked at. */
const THERE_ONLY = new Set(['carried']);

/**
 * What cards of several boards can be narrowed by: fields of one name are one, and so are their values. Where boards know
 * one by different ids, its name stands for it.
 */
export function offeredTogether(boards: readonly (readonly Field[])[]): Offered[] {
	const fields = new Map<string, { ids: Set<string>; choices: Map<string, Set<string>> }>();
	for (const { id, name, choices } of boards.flatMap(offeredOf)) {
		if (THERE_ONLY.has(id)) continue;
		const field = fields.get(name) ?? { ids: new Set(), choices: new Map<string, Set<string>>() };
		fields.set(name, field);
		field.ids.add(id);
		for (const choice of choices) {
			const keys = field.choices.get(choice.name) ?? new Set();
			field.choices.set(choice.name, keys.add(choice.key));
		}
	}
	return [...fields].map(([name, { ids, choices }]) => ({
		...{ id: oneOr(ids, name), name },
		choices: [...choices].map(([words, keys]): Value => ({ key: oneOr(keys, words), name: words })),
	}));
}
const oneOr = (ids: ReadonlySet<string>, name: string) => (ids.size === 1 ? [...ids][0]! : name);

/**
 * Conditions as one of several boards knows them; null where no card of it can pass. A field that it does not have is
 * never anything.
 */
export function onBoard(fields: readonly Field[], where: readonly Condition[]): Condition[] | null {
	const here: Condition[] = [];
	for (const { field: said, any, not } of where) {
		const field = fields.find(({ id, name }) => id === said || name === said);
		if (field) here.push({ field: field.id, any: any.flatMap((key) => keysOf(field, key)), not });
		else if (!not) return null;
	}
	return here;
}

/** The keys of what a field calls so; one that is no more stays as it is. */
function keysOf({ said = [], values }: Field, key: string): string[] {
	const known = [...said.map((one) => ({ key: one.key, name: one.words })), ...(values?.known ?? [])];
	if (known.some((one) => one.key === key)) return [key];
	const named = known.filter(({ name }) => name === key).map((one) => one.key);
	return named.length ? named : [key];
}

/** What a condition over several boards says, in plain words: `late`, `not Repair or Work`. */
export function togetherWords(offered: readonly Offered[], { field, any, not }: Condition): string {
	const known = offered.find(({ id, name }) => id === field || name === field);
	const words = any.map((key) => known?.choices.find((choice) => choice.key === key)?.name ?? key);
	return `${not ? 'not ' : ''}${words.join(' or ') || 'none'}`;
}
