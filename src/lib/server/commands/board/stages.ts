import type { Tx } from '../../database.ts';
import { Problem } from '../../problem.ts';

/** The stages that initiatives of a team go through, and how many each holds. */
export interface Stages {
	names: string[];
	limits: Record<string, number>;
}

export async function stagesOf(tx: Tx, team: string): Promise<Stages> {
	const { rows } = await tx.query<Stages>(
		'select stages as names, stage_limits as limits from team where id = $1',
		[team],
	);
	return rows[0]!;
}

/** @throws Problem 422 for a stage that the team has not; none is one too */
export function stageNamed({ names }: Stages, stage: string | null): void {
	if (stage === null || names.includes(stage)) return;
	throw new Problem(
		422,
		'stage.unknown',
		`The team has no stage “${stage}”. ${names.length ? `It has ${names.join(', ')}.` : 'A lead can add stages to it.'}`,
		'stage',
	);
}
