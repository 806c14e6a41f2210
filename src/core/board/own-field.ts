import type { Day } from '../calendar/zone.ts';
import { shownValue, type FieldValue, type OwnField } from '../fields/own.ts';
import type { CardView } from '../pages/board.ts';
import type { Change, Field } from './field.ts';
import { days } from './field-values.ts';

/** A field that a board has added. */
export function ownField(field: OwnField, today: Day): Field {
	const held = (card: CardView) => card.fields[field.id];
	const put = (value: FieldValue | null): Change => ({ do: 'own', field: field.id, value });
	const own: Pick<Field, 'id' | 'name' | 'text'> = {
		id: field.id,
		name: field.name,
		text: (card) => shownValue(field, held(card)),
	};
	switch (field.kind) {
		case 'date':
			return {
				...own,
				...days(
					today,
					(card) => (held(card) as string | undefined) ?? null,
					(_, day) => put(day),
				),
				text: own.text,
			};
		case 'choice':
			return {
				...own,
				order: (card) => {
					const at = field.choices.findIndex(({ id }) => id === held(card));
					return at < 0 ? null : at;
				},
				values: {
					of: (card) => [String(held(card) ?? '')],
					known: [
						...field.choices.map(({ id, name }) => ({ key: id, name })),
						{ key: '', name: `no ${field.name}` },
					],
					name: (key) => field.choices.find(({ id }) => id === key)?.name ?? `no ${field.name}`,
					put: (_, to) => put(to || null),
					does: `changes a card’s ${field.name}`,
				},
			};
		case 'yes-no':
			return {
				...own,
				order: (card) => (held(card) === true ? 0 : held(card) === false ? 1 : null),
				values: {
					of: (card) => [held(card) === undefined ? '' : held(card) ? 'yes' : 'no'],
					known: [
						{ key: 'yes', name: `${field.name}: yes` },
						{ key: 'no', name: `${field.name}: no` },
						{ key: '', name: 'not said' },
					],
					name: (key) => (key ? `${field.name}: ${key}` : 'not said'),
					put: (_, to) => put(to ? to === 'yes' : null),
					does: `changes a card’s ${field.name}`,
				},
			};
		case 'number':
			return {
				...own,
				order: (card) => (held(card) as number | undefined) ?? null,
				cell: (card) => (held(card) as number | undefined) ?? null,
				sum: (card) => (held(card) as number | undefined) ?? 0,
				said: [{ key: '~none', words: `without ${field.name}`, is: (card) => held(card) === undefined }],
			};
		case 'text':
			return {
				...own,
				order: (card) => (held(card) as string | undefined)?.toLowerCase() ?? null,
				said: [{ key: '~none', words: `without ${field.name}`, is: (card) => held(card) === undefined }],
			};
	}
}
