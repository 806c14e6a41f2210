import type { BoardState } from '../board/board-state.svelte';

/** Changes a name of a board; gives why it was refused, and nothing when it was done. */
export const namesOf =
	(board: BoardState, kind: 'type' | 'label' | 'initiative') =>
	async (name: string, change: object): Promise<string> => {
		const sent = await board.ask('ChangeName', { board: board.head.id, [kind]: name, ...change });
		return sent.ok ? '' : sent.refusal.title;
	};
