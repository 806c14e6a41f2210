import { intoLane, laneOf } from '../../../../core/board/lanes.ts';
import type { BoardContext, CardRow, LockedLane } from '../../door/contexts.ts';
import { checkLimit, together, type Let } from './limits.ts';

/** What says in which lane a card stands, and whether it counts there. */
type InLane = Pick<CardRow, 'class' | 'lane_id' | 'column_id' | 'archived_at'>;

/** A card before and after; null before: it is new. */
export interface LaneChange {
	before: (InLane & Pick<CardRow, 'id'>) | null;
	after: Partial<InLane>;
}

/** The lane in which an unfinished card stands on the board; null for none, as for cards of the backlog and done ones. */
function countsIn({ board }: BoardContext, card: InLane): LockedLane | null {
	const column = board.columns.find(({ id }) => id === card.column_id);
	if (!column || column.kind === 'done' || card.archived_at) return null;
	return laneOf(board.lanes, { lane: card.lane_id, class: card.class });
}

const NEW: InLane = { class: 'standard', lane_id: null, column_id: null, archived_at: null };

/**
 * What the limits of lanes say when cards come to stand in them: from the backlog, from another lane, or from where they
 * were done. Over one that holds, a reason is asked for; over one that advises, the person is told.
 */
export async function checkLanes(
	context: BoardContext,
	changes: readonly LaneChange[],
	reason: string | undefined,
): Promise<Let> {
	const { board, tx } = context;
	const moves = changes.map(({ before, after }) => ({
		from: before && countsIn(context, before),
		to: countsIn(context, { ...(before ?? NEW), ...after }),
	}));
	const asked = board.lanes.filter(
		(lane) => lane.limit !== null && moves.some(({ from, to }) => to === lane && from !== lane),
	);
	if (!asked.length) return { through: null };
	const { rows } = await tx.query<{ id: string; n: number }>(
		`select l.id, count(c.id) as n
		from lane l
		left join card c on c.board_id = $1 and c.archived_at is null and c.clock <> 'done'
			and c.column_id in (select id from board_column where board_id = $1 and kind <> 'done' and retired_at is null)
			and c.id <> all($3::uuid[])
			and case when l.class is not null then c.class = l.class
				else c.lane_id = l.id and c.class <> all($4::text[]) end
		where l.id = any($2::uuid[])
		group by 1`,
		[
			board.id,
			asked.map(({ id }) => id),
			changes.flatMap(({ before }) => before?.id ?? []),
			board.lanes.flatMap((lane) => lane.class ?? []),
		],
	);
	const standing = new Map(rows.map(({ id, n }) => [id, n]));
	return together(
		...asked.map((lane) => {
			const stay = moves.filter(({ from, to }) => to === lane && from === lane).length;
			const come = moves.filter(({ from, to }) => to === lane && from !== lane).length;
			const named = { ...lane, name: `The lane ${lane.name}` };
			return checkLimit(named, standing.get(lane.id)! + stay, come, reason, 'lane');
		}),
	);
}

/** What changes of cards that are put into a lane (null: into none), as their rows have it. */
export function laneChanges<C extends CardRow>(
	context: BoardContext,
	cards: readonly C[],
	lane: string | null,
): { card: C; lane_id: string | null; class: CardRow['class'] }[] {
	const target = lane === null ? null : context.lane(lane);
	return cards.flatMap((card) => {
		const to = intoLane(context.board.lanes, { lane: card.lane_id, class: card.class }, target);
		return to.lane === card.lane_id && to.class === card.class
			? []
			: [{ card, lane_id: to.lane, class: to.class }];
	});
}

/** Puts cards into their lanes and tells of it; their versions are the caller's. */
export async function writeLanes(
	context: BoardContext,
	changes: ReturnType<typeof laneChanges>,
): Promise<void> {
	if (!changes.length) return;
	await context.tx.query(
		`update card c set lane_id = n.lane, class = n.class
		from jsonb_to_recordset($1) n(id uuid, lane uuid, class text)
		where c.id = n.id`,
		[JSON.stringify(changes.map(({ card, lane_id, ...to }) => ({ id: card.id, lane: lane_id, ...to })))],
	);
	const name = (id: string | null) => context.board.lanes.find((lane) => lane.id === id)?.name ?? '';
	for (const { card, lane_id, class: to } of changes) {
		if (to !== card.class) context.note(card.id, 'class', to, { class: card.class });
		if (lane_id !== card.lane_id) context.note(card.id, 'lane', name(lane_id), { lane: card.lane_id });
	}
}
