import { randomUUID } from 'node:crypto';
import { IsIn } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, OrNull } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { allColumns, refuseName, writeOrder } from './columns.ts';

/** So many columns still can be read. */
const MOST = 30;

export class AddColumn {
	@Id('board')
	board!: string;

	@Line('The name of the column', 40)
	name!: string;

	@IsIn(['queue', 'work', 'done'], {
		message: 'Cards wait in a column, are worked on or are done: queue, work or done.',
	})
	kind!: 'queue' | 'work' | 'done';

	/** The column that it comes right after; null for the first place. */
	@OrNull()
	@Id('column before')
	after!: string | null;
}

export const addColumn = boardCommand({
	name: 'AddColumn',
	summary: 'Adds a column to a board, right after another one or in the first place.',
	input: AddColumn,
	role: 'lead',
	async run(context, input) {
		const { tx, board } = context;
		const columns = await allColumns(context);
		refuseName(columns, input.name);
		if (board.columns.length >= MOST)
			throw new Problem(409, 'column.too_many', `A board has at most ${MOST} columns.`, 'name');
		if (input.after !== null) context.column(input.after);
		const id = randomUUID();
		await tx.query(
			`insert into board_column (id, board_id, name, kind, position)
			select $1, $2, $3, $4, max(position) + 1 from board_column where board_id = $2`,
			[id, board.id, input.name, input.kind],
		);
		const ids = columns.map((column) => column.id);
		ids.splice(input.after === null ? 0 : ids.indexOf(input.after) + 1, 0, id);
		await writeOrder(context, ids);
		context.note(null, 'column-added', input.name);
		return { result: { column: id } };
	},
});
