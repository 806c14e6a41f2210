import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Optional, OrNull } from '../../door/fields.ts';
import { stageNamed, stagesOf } from './stages.ts';

export class AddInitiative {
	@Id('board')
	board!: string;

	@Line('The name', 80)
	name!: string;

	/** The stage of the team in which it stands; left out or null for none. */
	@Optional()
	@OrNull()
	@Line('The stage', 40)
	stage?: string | null;
}

export const addInitiative = boardCommand({
	name: 'AddInitiative',
	summary: 'Adds an initiative to a board before any card belongs to it.',
	role: 'lead',
	input: AddInitiative,
	async run(context, { name, stage = null }) {
		const { tx, board } = context;
		stageNamed(await stagesOf(tx, board.team), stage);
		const there = await tx.query('select initiative_named($1, $2) as id', [board.id, name]);
		if (there.rows[0].id)
			throw new Problem(409, 'initiative.known', `There is an initiative “${name}” already.`, 'name');
		await context.keep('initiative', { board_id: board.id, name });
		const { rows } = await tx.query<{ id: string }>(
			'insert into initiative (board_id, name, stage) values ($1, $2, $3) returning id',
			[board.id, name, stage],
		);
		context.note(null, 'initiative-added', name, null, stage === null ? null : { stage });
		return { result: { initiative: rows[0]!.id } };
	},
});
