import { boardCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { allColumns, reclock } from './columns.ts';

export class MoveClock {
	@Id('board')
	board!: string;

	/** The column in which a card's clock starts from now on, also in the past. */
	@Id('column')
	column!: string;
}

export const moveClock = boardCommand({
	name: 'MoveClock',
	summary:
		'Lets the clock of cards start in another column: also of those that are finished, so past flow figures change.',
	input: MoveClock,
	role: 'lead',
	async run(context, input) {
		const columns = await allColumns(context);
		const column = context.column(input.column);
		if (column.kind === 'done')
			throw new Problem(
				422,
				'column.clock_done',
				`A card is done in ${column.name}: its clock starts in a column before that.`,
				'column',
			);
		const before = columns.find(({ commitment }) => commitment)?.name ?? '';
		await context.tx.query(
			'update board_column set commitment = false where board_id = $1 and commitment and id <> $2',
			[context.board.id, column.id],
		);
		await context.tx.query(
			'update board_column set commitment = true, version = version + 1 where id = $1 and not commitment',
			[column.id],
		);
		const cards = await reclock(context, columns);
		context.note(null, 'clock-moved', column.name, { column: before }, { cards });
		return { result: { cards } };
	},
});
