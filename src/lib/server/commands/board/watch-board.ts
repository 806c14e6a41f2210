import { IsBoolean } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';

export class WatchBoard {
	@Id('board')
	board!: string;

	/** Whether one wants to be told of what happens to any of its cards from now on. */
	@IsBoolean({ message: 'A board is watched or not: true or false.' })
	watch!: boolean;
}

export const watchBoard = boardCommand({
	name: 'WatchBoard',
	summary: 'Watches a whole board, or stops.',
	role: 'viewer',
	undoable: false,
	onPutAway: true,
	input: WatchBoard,
	async run({ tx, board, person }, input) {
		await tx.query(
			input.watch
				? 'insert into board_watch (board_id, person_id) values ($1, $2) on conflict do nothing'
				: 'delete from board_watch where board_id = $1 and person_id = $2',
			[board.id, person.id],
		);
	},
});
