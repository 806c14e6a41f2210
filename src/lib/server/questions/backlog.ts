import { fsum } from 'd3-array';
import type { BacklogPage } from '../../../core/pages/plan.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { now } from '../time.ts';
import { listOf, openCards } from './open-cards.ts';
import { boardPast } from './past.ts';
import { promiseOf, rawOf } from './promise.ts';
import { rotaOf } from './rota.ts';

/** The backlog of a board, with what says where its sprints would end. The head has been asked for with the person's rights. */
export async function backlogPage(head: BoardHead): Promise<BacklogPage> {
	const next = head.sprints.find((sprint) => !sprint.startedAt);
	const [known, { learned }, rota] = await Promise.all([
		openCards(head.id, head.seq, now()),
		boardPast(head),
		rotaOf(head.teamId),
	]);
	const raw = next ? (rawOf(head, rota, next.number, zoneOf(head.timeZone).day(now().getTime())) ?? 0) : 0;
	const open = listOf(known, head.me, 'open', (card) => card.clock !== 'done');
	return {
		seq: known.seq,
		cards: listOf(known, head.me, 'backlog', (card) => card.clock !== 'done' && card.column === null),
		next:
			head.sprintDays !== null && next
				? {
						number: next.number,
						promise: head.unit === 'none' ? null : promiseOf(head, next.number, learned, raw),
						placed: fsum(open, (card) => (card.sprint === next.number ? card.left : 0)),
					}
				: null,
		usual: head.sprintDays === null ? null : learned.delivered,
		standing: open.filter((card) => card.column === head.columns[0]?.id).length,
	};
}
