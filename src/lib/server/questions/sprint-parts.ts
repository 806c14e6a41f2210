import type { BoardHead, CardView } from '../../../core/pages/board.ts';
import type { PlanPage } from '../../../core/pages/plan.ts';
import { partsInHours, partsInPoints } from '../../../core/capacity/promise.ts';

/** What each person holds of a sprint of a board, beside what they can promise of it; nothing on a board that is not sized. */
export function sprintParts(
	head: Pick<BoardHead, 'unit'>,
	plan: Pick<PlanPage, 'people' | 'learned'>,
	sprint: Pick<BoardHead['sprints'][number], 'number' | 'focus' | 'keepBack'>,
	cards: readonly CardView[],
): ReturnType<typeof partsInHours> {
	const raw = new Map(plan.people.map((one) => [one.person, one.raw]));
	const planned = cards
		.filter((card) => card.sprint === sprint.number && !card.parts)
		.map((card) => ({
			card: String(card.number),
			left: card.left,
			owners: card.owners,
			unplanned: card.unplanned,
		}));
	if (head.unit === 'points') return partsInPoints(raw, plan.learned.perDay, planned);
	if (head.unit === 'none') return [];
	return partsInHours(
		raw,
		sprint.focus ?? plan.learned.focus,
		sprint.keepBack ?? plan.learned.keepBack,
		planned,
	);
}
