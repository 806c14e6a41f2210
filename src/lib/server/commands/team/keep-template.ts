import { IsString, MaxLength } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id, Line } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { setUpOf } from '../../questions/templates.ts';

export class KeepTemplate {
	@Id('board')
	board!: string;

	/** Named by the work that it is for. */
	@Line('The name of the template', 80)
	name!: string;

	@MaxLength(200, { message: 'The sentence may have at most 200 characters.' })
	@IsString({ message: 'The sentence must be text.' })
	sentence!: string;
}

export const keepTemplate = boardCommand({
	name: 'KeepTemplate',
	summary: 'Keeps how a board is set up as a template of its team; one of the same name is replaced.',
	input: KeepTemplate,
	role: 'lead',
	undoable: false,
	async run(context, input) {
		const { tx, board, person, at } = context;
		const setUp = await setUpOf(person, board.id);
		if (!setUp) throw new Problem(404, 'board.not_found', 'There is no such board, or you may not see it.');
		await tx.query(
			`update template set retired_at = $3 where team_id = $1 and lower(name) = lower($2) and retired_at is null`,
			[board.team, input.name, at],
		);
		const { rows } = await tx.query<{ id: string }>(
			`insert into template (team_id, name, sentence, document, made_by, made_at) values ($1, $2, $3, $4, $5, $6) returning id`,
			[board.team, input.name, input.sentence.trim(), JSON.stringify(setUp), person.id, at],
		);
		context.note(null, 'template-kept', input.name);
		return { result: { template: rows[0]!.id } };
	},
});
