import { randomUUID } from 'node:crypto';
import { checkValue, type FieldValue, type OwnField } from '../../../../core/fields/own.ts';
import { Problem } from '../../problem.ts';
import type { BoardContext } from '../../door/contexts.ts';

/** The fields that a board adds to its cards, in their order; those that are retired too. */
export async function fieldsOf(
	context: BoardContext,
): Promise<(OwnField & { retired: boolean; version: number })[]> {
	const { rows } = await context.tx.query<OwnField & { retired: boolean; version: number }>(
		`select id, name, kind, choices, retired_at is not null as retired, version
		from field where board_id = $1 order by position, name`,
		[context.board.id],
	);
	return rows;
}

/** A value as it is kept, or null for none; one of another kind is refused. */
export function valueOf(field: OwnField, value: unknown): FieldValue | null {
	const checked = checkValue(field, value);
	if (checked.ok) return checked.value;
	throw new Problem(422, 'invalid.value', `${checked.reason}.`, 'value');
}

/** The choices by their new names: those that are named by their ids keep them. */
export function choicesOf(
	known: OwnField['choices'],
	given: readonly { id?: string; name: string }[],
): OwnField['choices'] {
	const names = given.map(({ name }) => name.toLowerCase());
	if (new Set(names).size < names.length)
		throw new Problem(422, 'field.choice_twice', 'Each choice is named once.', 'choices');
	const gone = known.filter(({ id }) => !given.some((one) => one.id === id));
	if (gone.length)
		throw new Problem(
			422,
			'field.choice_gone',
			`Cards may hold ${gone[0]!.name}: a choice can be called otherwise, not taken away.`,
			'choices',
		);
	return given.map(({ id, name }) => ({ id: known.find((one) => one.id === id)?.id ?? randomUUID(), name }));
}

/** Refuses a name that another field of the board has, retired or not. */
export function refuseFieldName(
	fields: readonly { id: string; name: string; retired: boolean }[],
	name: string,
	but?: string,
): void {
	const other = fields.find((field) => field.id !== but && field.name.toLowerCase() === name.toLowerCase());
	if (other)
		throw new Problem(
			409,
			'field.name_taken',
			`This board has a field called ${other.name} already${other.retired ? ', which is retired' : ''}.`,
			'name',
		);
}
