import { IsBoolean, IsInt, Max, Min } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Entries, Id, Line, Optional } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { choicesOf, fieldsOf, refuseFieldName } from './fields.ts';

export class Choice {
	/** The choice that is called so from now on; left out for a new one. */
	@Optional()
	@Id('choice')
	id?: string;

	@Line('The choice', 60)
	name!: string;
}

export class ChangeField {
	@Id('board')
	board!: string;

	@Id('field')
	field!: string;

	@Optional()
	@Line('The name of the field', 40)
	name?: string;

	/** All choices in their order; cards keep what they hold under a choice's new name. */
	@Optional()
	@Entries('choices', Choice, 100)
	choices?: Choice[];

	/** Whether it is offered no more; what cards hold in it stays. */
	@Optional()
	@IsBoolean({ message: 'A field is retired or not: true or false.' })
	retired?: boolean;

	/** Its place among the fields, from 0. */
	@Optional()
	@Max(100, { message: 'The place may be at most 100.' })
	@Min(0, { message: 'The place must be 0 or more.' })
	@IsInt({ message: 'The place must be a whole number.' })
	place?: number;
}

export const changeField = boardCommand({
	name: 'ChangeField',
	summary:
		'Changes a field that a board adds to its cards: its name, choices and place, and whether it is offered.',
	input: ChangeField,
	role: 'lead',
	async run(context, input) {
		const { tx, board, at } = context;
		await context.keep('field', input.place === undefined ? { id: input.field } : { board_id: board.id });
		const fields = await fieldsOf(context);
		const field = fields.find(({ id }) => id === input.field);
		if (!field) throw new Problem(422, 'field.unknown', 'This board has no such field.', 'field');
		if (input.name !== undefined) refuseFieldName(fields, input.name, field.id);
		if (input.choices && field.kind !== 'choice')
			throw new Problem(422, 'field.no_choice', `${field.name} is no choice.`, 'choices');
		const after = {
			name: input.name ?? field.name,
			choices: input.choices ? choicesOf(field.choices, input.choices) : field.choices,
			retired: input.retired ?? field.retired,
		};
		await tx.query(
			`update field set name = $2, choices = $3, retired_at = case when $4 then coalesce(retired_at, $5) end, version = version + 1
			where id = $1`,
			[field.id, after.name, JSON.stringify(after.choices), after.retired, at],
		);
		if (input.place !== undefined) {
			const ids = fields.map(({ id }) => id).filter((id) => id !== field.id);
			ids.splice(input.place, 0, field.id);
			await tx.query(
				`update field f set position = o.n - 1 from unnest($1::uuid[]) with ordinality as o(id, n) where f.id = o.id`,
				[ids],
			);
		}
		const names = (choices: typeof field.choices) => choices.map(({ name }) => name);
		context.note(
			null,
			'field-changed',
			after.name,
			{ name: field.name, choices: names(field.choices), retired: field.retired },
			{ name: after.name, choices: names(after.choices), retired: after.retired },
		);
	},
});
