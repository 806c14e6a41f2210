import type { Face } from '../pages/board.ts';
import { fieldNamed, type Field } from './field.ts';

/** What cards show where nobody chose. */
export const USUAL_FACE: Face = {
	fields: ['due', 'left', 'checks', 'carried', 'waits'],
	spacing: 'usual',
	width: 'usual',
};

/** What a card can show that is no field of it. */
export const BESIDE_FIELDS = [
	{ id: 'picture', name: 'Picture' },
	{ id: 'description', name: 'First lines of the description' },
	{ id: 'lines', name: 'Open checklist lines' },
	{ id: 'changed', name: 'Last changed by' },
] as const;

/** Of these each face needs more than a board's page holds: it is asked for when a face wants it. */
export const ASKED_FOR: readonly string[] = ['description', 'lines', 'changed'];

/** Fields that every card shows, or that say nothing on a card. */
const NEVER = new Set([
	'number',
	'title',
	'column',
	'lane',
	'owners',
	'blocked',
	'private',
	'age',
	'finished',
]);

/** What can be chosen for the faces of a board's cards, in the order in which cards show it. */
export function faceable(fields: readonly Field[]): { id: string; name: string }[] {
	return [
		BESIDE_FIELDS[0],
		...fields.filter(({ id }) => !NEVER.has(id)).map(({ id, name }) => ({ id, name })),
		...BESIDE_FIELDS.slice(1),
	];
}

/** What of a face is a plain field: shown by its name and what it says. */
export const plainOf = (face: Face, fields: readonly Field[], but: ReadonlySet<string>): Field[] =>
	face.fields.flatMap((id) => (but.has(id) ? [] : (fieldNamed(fields, id) ?? [])));
