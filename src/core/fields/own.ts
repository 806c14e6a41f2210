import { dayText, parseDay } from '../calendar/days.ts';

/** What a field that a board adds can hold. */
export const FIELD_KINDS = ['text', 'number', 'date', 'choice', 'yes-no'] as const;
export type FieldKind = (typeof FIELD_KINDS)[number];

/** A field that a board adds to its cards. A choice keeps its identity under whatever name it has. */
export interface OwnField {
	id: string;
	name: string;
	kind: FieldKind;
	choices: { id: string; name: string }[];
}

/** What a card holds in such a field: a choice by its id, a day as `2026-12-04`. */
export type FieldValue = string | number | boolean;
/** The values of a card by the ids of their fields; a field without one is empty. */
export type FieldValues = Readonly<Record<string, FieldValue>>;

export type Checked = { ok: true; value: FieldValue | null } | { ok: false; reason: string };
export const right = (value: FieldValue | null): Checked => ({ ok: true, value });
export const wrong = (reason: string): Checked => ({ ok: false, reason });
export const short = (text: string) => (text.length > 40 ? `${text.slice(0, 40)}…` : text);

const MOST_TEXT = 500;
const MOST_NUMBER = 1_000_000_000;

/** Whether a value is one of its field's kind; null and an empty text stand for none. */
export function checkValue(field: OwnField, value: unknown): Checked {
	if (value === null || value === '') return right(null);
	switch (field.kind) {
		case 'text':
			if (typeof value !== 'string') return wrong(`${field.name} must be text`);
			if (value.length > MOST_TEXT) return wrong(`${field.name} may have at most ${MOST_TEXT} characters`);
			return right(value.trim() || null);
		case 'number': {
			const fits =
				typeof value === 'number' && Math.abs(value) <= MOST_NUMBER && Number(value.toFixed(4)) === value;
			return fits ? right(value) : wrong(`${field.name} must be a number with at most four decimals`);
		}
		case 'date': {
			const day = typeof value === 'string' ? parseDay(value) : null;
			return day === null ? wrong(`${field.name} must be a day such as 2026-12-04`) : right(dayText(day));
		}
		case 'choice':
			return field.choices.some(({ id }) => id === value)
				? right(value as string)
				: wrong(
						`${field.name} must be one of its choices: ${field.choices.map(({ name }) => name).join(', ')}`,
					);
		case 'yes-no':
			return typeof value === 'boolean' ? right(value) : wrong(`${field.name} must be yes or no`);
	}
}

/** A value as people read it, and as it is written into tables. */
export function shownValue(field: OwnField, value: FieldValue | undefined): string {
	if (value === undefined) return '';
	if (field.kind === 'choice') return field.choices.find(({ id }) => id === value)?.name ?? '';
	if (field.kind === 'yes-no') return value ? 'yes' : 'no';
	return String(value);
}
