import type { Phase } from '../../../../core/retrospective/phases.ts';
import { PHASE_WORDS } from '../../../../core/retrospective/phases.ts';
import type { BoardContext } from '../../door/contexts.ts';
import { notFound, Problem } from '../../problem.ts';

export interface RetroRow {
	id: string;
	number: number;
	columns: string[];
	anonymous: boolean;
	votes: number;
	phase: Phase;
}

/**
 * A retrospective of the board.
 * @param phases in which what is asked for can be done
 * @throws Problem 404 where there is none, 409 in another phase
 */
export async function retroOf(
	{ tx, board }: BoardContext,
	id: string,
	phases: readonly Phase[],
): Promise<RetroRow> {
	const { rows } = await tx.query<RetroRow>(
		'select id, number, columns, anonymous, votes, phase from retrospective where id = $1 and board_id = $2',
		[id, board.id],
	);
	const [retro] = rows;
	if (!retro) throw notFound('retrospective');
	if (!phases.includes(retro.phase))
		throw new Problem(
			409,
			'retrospective.phase',
			`The retrospective has gone on: it is at “${PHASE_WORDS[retro.phase].called}” now.`,
			undefined,
			{ phase: retro.phase },
		);
	return retro;
}

/** Has everyone who looks at a retrospective read it again: says that something changed, and nothing else. */
export const tellRetro = ({ tx, board }: BoardContext) =>
	tx.query(`select pg_notify('harrow', 'page ' || $1 || ' retrospective')`, [board.id]);
