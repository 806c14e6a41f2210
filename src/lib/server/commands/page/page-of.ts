import type { Tx } from '../../database.ts';
import { Problem } from '../../problem.ts';
import type { BoardContext } from '../../door/contexts.ts';
import { Id, Line, Optional } from '../../door/fields.ts';

/** What names a page in an input: its board, and its initiative where it is the page of one. */
export class OfPage {
	@Id('board')
	board!: string;

	/** The initiative whose page it is; left out for the page of the board itself. */
	@Optional()
	@Line('The initiative', 80)
	initiative?: string;
}

/** A page as it stands, locked with its board. */
export interface PageRow {
	id: string;
	/** The name of its initiative; null for the page of the board. */
	initiative: string | null;
	notes: string;
	version: number;
}

/** The page of an initiative, whichever board is its own: cards of other boards may belong to it too. */
export async function pageOfInitiative(tx: Tx, id: string): Promise<{ id: string; initiative: string }> {
	const { rows } = await tx.query<{ id: string; initiative: string }>(
		`with made as (
			insert into page as p (board_id, initiative_id) select board_id, id from initiative where id = $1
			on conflict (board_id, initiative_id) do update set notes = p.notes
			returning id
		)
		select made.id, i.name as initiative from made, initiative i where i.id = $1`,
		[id],
	);
	return rows[0]!;
}

/**
 * The page of a board, or of one of its initiatives. The first who does anything there makes it.
 * @throws Problem 422 where the board has no such initiative
 */
export async function pageOf({ tx, board }: BoardContext, { initiative }: OfPage): Promise<PageRow> {
	let of: string | null = null;
	if (initiative !== undefined) {
		const { rows } = await tx.query<{ id: string }>(
			'select id from initiative where board_id = $1 and name = $2',
			[board.id, initiative],
		);
		if (!rows[0])
			throw new Problem(
				422,
				'initiative.unknown',
				`${board.name} has no initiative “${initiative}”.`,
				'initiative',
			);
		of = rows[0].id;
	}
	const { rows } = await tx.query<Omit<PageRow, 'initiative'>>(
		`insert into page as p (board_id, initiative_id) values ($1, $2)
		on conflict (board_id, initiative_id) do update set notes = p.notes
		returning id, notes, version`,
		[board.id, of],
	);
	return { ...rows[0]!, initiative: initiative ?? null };
}
