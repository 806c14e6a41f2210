import { fsum } from 'd3-array';
import type { BacklogPage } from '../../../core/pages/plan.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { columnwise } from '../../columnwise.ts';
import { now } from '../time.ts';
import { openCardsOf } from './open-cards.ts';
import { boardPast } from './past.ts';
import { promiseOf, rawOf } from './promise.ts';
import { rotaOf } from './rota.ts';

/** The backlog of a board, with what says where its sprints would end. The head has been asked for with the person's rights. */
export async function backlogPage(head: BoardHead): Promise<BacklogPage> {
	const next = head.sprints.find((sprint) => !sprint.startedAt);
	const [open, { learned }, rota] = await Promise.all([
		openCardsOf(head, () => true),
		boardPast(head),
		rotaOf(head.teamId),
	]);
	const raw = next ? (rawOf(head, rota, next.number, zoneOf(head.timeZone).day(now().getTime())) ?? 0) : 0;
	return {
		seq: open.seq,
		cards: columnwise(open.cards.filter((card) => card.column === null)),
		next:
			head.sprintDays !== null && next
				? {
						number: next.number,
						promise: head.unit === 'none' ? null : promiseOf(head, next.number, learned, raw),
						placed: fsum(open.cards, (card) => (card.sprint === next.number ? card.left : 0)),
					}
				: null,
		usual: head.sprintDays === null ? null : learned.delivered,
		standing: open.cards.filter((card) => card.column === head.columns[0]?.id).length,
	};
}
