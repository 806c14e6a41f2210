import { roomForOthers } from '../../../../core/board/lanes.ts';
import type { ServiceClass } from '../../../../core/pages/board.ts';
import { Problem } from '../../problem.ts';
import type { BoardContext } from '../../door/contexts.ts';

/** A lane's row, those that are retired among them. */
export interface LaneRow {
	id: string;
	name: string;
	class: ServiceClass | null;
	limit: number | null;
	mode: 'advise' | 'hold';
	retired: boolean;
}

/** All lanes that a board has, in their order; those that are retired too. */
export async function lanesOf(context: BoardContext): Promise<LaneRow[]> {
	const { rows } = await context.tx.query<LaneRow>(
		`select id, name, class, wip_limit as "limit", limit_mode as mode, retired_at is not null as retired
		from lane where board_id = $1 order by position, name`,
		[context.board.id],
	);
	return rows;
}

/** Refuses a name that another lane of the board has, retired or not. */
export function refuseLaneName(lanes: readonly LaneRow[], name: string, but?: string): void {
	const other = lanes.find((lane) => lane.id !== but && lane.name.toLowerCase() === name.toLowerCase());
	if (other)
		throw new Problem(
			409,
			'lane.name_taken',
			`This board has a lane called ${other.name} already${other.retired ? ', which is retired' : ''}.`,
			'name',
		);
}

/**
 * Refuses lanes in which no card could stand: two of one class, or one that stands for no class beside lanes for all.
 * @param lanes as they would be
 */
export function refuseEmpty(lanes: readonly LaneRow[], lane: Pick<LaneRow, 'id' | 'class'>): void {
	const standing = lanes.filter((one) => !one.retired);
	const twin = standing.find((one) => lane.class && one.class === lane.class && one.id !== lane.id);
	if (twin)
		throw new Problem(
			409,
			'lane.class_taken',
			`Cards of the class ${lane.class} stand in the lane ${twin.name} already.`,
			'class',
		);
	if (!roomForOthers(standing) && standing.some((one) => one.class === null))
		throw new Problem(
			409,
			'lane.no_class_left',
			'Every class of service would have a lane of its own, and no card could stand in any other lane.',
			'class',
		);
}
