import { ArrayUnique, IsBoolean, IsIn } from 'class-validator';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Lines, Optional } from '../../door/fields.ts';

export class ChangeFace {
	@Id('board')
	board!: string;

	/** What cards show: ids of fields and of what else a card can show, in their order; left out to have what the board has. */
	@Optional()
	@ArrayUnique({ message: 'Name each field once.' })
	@Lines('field', 40, 60)
	fields?: string[];

	@IsIn(['compact', 'usual', 'roomy'], { message: 'Cards stand compact, usual or roomy.' })
	spacing!: 'compact' | 'usual' | 'roomy';

	@IsIn(['narrow', 'usual', 'wide'], { message: 'Columns are narrow, usual or wide.' })
	width!: 'narrow' | 'usual' | 'wide';

	/** For all who look at the board and have not chosen for themselves; else for oneself. */
	@IsBoolean({ message: 'It is for everyone or for oneself: true or false.' })
	everyone!: boolean;
}

export const changeFace = boardCommand({
	name: 'ChangeFace',
	summary: 'Says what cards of a board show: to oneself, or as a lead to everyone.',
	role: 'viewer',
	input: ChangeFace,
	async run(context, { fields, spacing, width, everyone }) {
		const { tx, board, person, role } = context;
		if (everyone && role !== 'lead')
			throw new Problem(403, 'right.missing', 'Only a lead says what cards show to everyone.');
		const face = fields && JSON.stringify({ fields, spacing, width });
		await context.keep('face', { board_id: board.id, person_id: person.id });
		if (everyone) {
			await context.keep('board', { id: board.id });
			await tx.query('update board set face = $2 where id = $1', [board.id, face ?? null]);
			// What a lead chose for all holds for them too.
			await tx.query('delete from face where board_id = $1 and person_id = $2', [board.id, person.id]);
		} else if (!face)
			await tx.query('delete from face where board_id = $1 and person_id = $2', [board.id, person.id]);
		else
			await tx.query(
				`insert into face (board_id, person_id, face) values ($1, $2, $3)
				on conflict (board_id, person_id) do update set face = excluded.face`,
				[board.id, person.id, face],
			);
		context.note(null, 'face-changed', everyone ? 'everyone' : '');
	},
});
