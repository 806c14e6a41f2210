import { ValidateBy } from 'class-validator';
import { JSONSchema } from 'class-validator-jsonschema/build/decorators.js';
import { shownValue } from '../../../../core/fields/own.ts';
import { boardCommand } from '../../door/command.ts';
import { applyDecorators } from '../../door/decorate.ts';
import { Id, Version } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { fieldsOf, valueOf } from '../board/fields.ts';

/** Text, a number, yes or no, or null for none; whether it fits its field is asked where the field is known. */
const Value = () =>
	applyDecorators(
		ValidateBy({
			name: 'isFieldValue',
			validator: {
				validate: (value) => value === null || ['string', 'number', 'boolean'].includes(typeof value),
				defaultMessage: () => 'The value must be text, a number, true or false, or null for none.',
			},
		}),
		JSONSchema({ type: ['string', 'number', 'boolean', 'null'] as never }) as PropertyDecorator,
	);

export class SetField {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	@Id('field')
	field!: string;

	/** What the card holds in it: text, a number, a day, a choice by its id, or true or false; null for nothing. */
	@Value()
	value!: string | number | boolean | null;
}

export const setField = boardCommand({
	name: 'SetField',
	summary: 'Says what a card holds in a field that its board has added.',
	input: SetField,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		const field = (await fieldsOf(context)).find(({ id }) => id === input.field);
		if (!field) throw new Problem(422, 'field.unknown', 'This board has no such field.', 'field');
		if (field.retired)
			throw new Problem(409, 'field.retired', `${field.name} is retired: it can hold nothing new.`, 'field');
		const value = valueOf(field, input.value);
		await context.tx.query(
			`update card
			set fields = case when $3::jsonb = 'null' then fields - $2 else jsonb_set(fields, array[$2], $3) end, version = version + 1
			where id = $1`,
			[card.id, field.id, JSON.stringify(value)],
		);
		context.note(
			card.id,
			'field',
			value === null ? '' : shownValue(field, value),
			{ value: shownValue(field, card.fields[field.id]), held: card.fields[field.id] ?? null },
			{ field: field.id, name: field.name },
		);
	},
});
