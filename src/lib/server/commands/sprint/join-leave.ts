import type { BoardContext, CardRow } from '../../door/contexts.ts';

/** A card that comes onto a board while a sprint runs joins it, as added and unplanned, unless it is on a list already. */
export async function joinRunningSprint(
	context: BoardContext,
	card: Pick<CardRow, 'id' | 'sprint_id'> & Partial<Pick<CardRow, 'children'>>,
): Promise<void> {
	const sprint = context.board.runningSprint;
	// A card with sub-cards has no stint: its parts have.
	if (!sprint || card.sprint_id === sprint.id || card.children) return;
	await context.tx.query('update card set sprint_id = $2, unplanned = true where id = $1', [
		card.id,
		sprint.id,
	]);
	context.note(card.id, 'sprint', String(sprint.number));
}

/** A card that goes back to the backlog leaves the sprint that is running; the list of a later one it stays on. */
export async function leaveSprint(
	context: BoardContext,
	card: Pick<CardRow, 'id' | 'sprint_id'>,
): Promise<void> {
	const sprint = context.board.runningSprint;
	if (!sprint || card.sprint_id !== sprint.id) return;
	await context.tx.query('update card set sprint_id = null, unplanned = false where id = $1', [card.id]);
}

/** A card that is dropped is on no sprint's list any more, running or to come; the history says so by its archiving. */
export async function dropFromList(context: BoardContext, card: Pick<CardRow, 'id'>): Promise<void> {
	await context.tx.query('update card set sprint_id = null, unplanned = false where id = $1', [card.id]);
}
