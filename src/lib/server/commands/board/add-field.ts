import { randomUUID } from 'node:crypto';
import { IsIn } from 'class-validator';
import { FIELD_KINDS, type FieldKind } from '../../../../core/fields/own.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Lines, Optional } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { choicesOf, fieldsOf, refuseFieldName } from './fields.ts';

const MOST = 30;

export class AddField {
	@Id('board')
	board!: string;

	@Line('The name of the field', 40)
	name!: string;

	@IsIn(FIELD_KINDS, { message: `A field holds one of: ${FIELD_KINDS.join(', ')}.` })
	kind!: FieldKind;

	/** What can be chosen, where it is a choice. */
	@Optional()
	@Lines('choice', 100, 60)
	choices?: string[];
}

export const addField = boardCommand({
	name: 'AddField',
	summary: 'Adds a field of its own to the cards of a board.',
	input: AddField,
	role: 'lead',
	async run(context, input) {
		const fields = await fieldsOf(context);
		refuseFieldName(fields, input.name);
		if (fields.length >= MOST)
			throw new Problem(409, 'field.too_many', `A board has at most ${MOST} fields of its own.`, 'name');
		if (input.kind === 'choice' && !input.choices?.length)
			throw new Problem(422, 'field.no_choices', 'Say what can be chosen.', 'choices');
		const id = randomUUID();
		await context.keep('field', { id });
		const choices =
			input.kind === 'choice'
				? choicesOf(
						[],
						(input.choices ?? []).map((name) => ({ name: name.trim() })),
					)
				: [];
		await context.tx.query(
			'insert into field (id, board_id, name, kind, choices, position) values ($1, $2, $3, $4, $5, $6)',
			[id, context.board.id, input.name, input.kind, JSON.stringify(choices), fields.length],
		);
		context.note(null, 'field-added', input.name, null, { kind: input.kind });
		return { result: { field: id, choices } };
	},
});
