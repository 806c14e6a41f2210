import type { BacklogPage } from '../../../core/board/plan.ts';
import type { BoardHead, CardView } from '../../../core/board/view.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { rows } from '../database.ts';
import { now } from '../time.ts';
import { CARD_VIEW } from './card-view.ts';
import { boardPast } from './past.ts';
import { promiseOf, rawOf } from './promise.ts';
import { rotaOf } from './rota.ts';

/** The backlog of a board, with what says where its sprints would end. The head has been asked for with the person's rights. */
export async function backlogPage(head: BoardHead): Promise<BacklogPage> {
	const next = head.sprints.find((sprint) => !sprint.startedAt);
	const [[found], { learned }, rota] = await Promise.all([
		rows<{ seq: number; cards: CardView[] | null; placed: number; standing: number }>(
			`select b.last_seq as seq,
				(select json_agg(v order by v.rank) from (
					select ${CARD_VIEW}
					from card c
					left join sprint s on s.id = c.sprint_id
					where c.board_id = b.id and c.column_id is null and c.archived_at is null
				) v) as cards,
				(select coalesce(sum(c."left"), 0) from card c join sprint s on s.id = c.sprint_id
				where s.board_id = b.id and s.number = $2 and c.archived_at is null) as placed,
				(select count(*) from card c where c.archived_at is null
					and c.column_id = (select id from board_column where board_id = b.id order by position limit 1)) as standing
			from board b
			where b.id = $1`,
			[head.id, next?.number ?? 0],
			'backlog',
		),
		boardPast(head),
		rotaOf(head.teamId),
	]);
	const raw = next ? (rawOf(head, rota, next.number, zoneOf(head.timeZone).day(now().getTime())) ?? 0) : 0;
	return {
		seq: found!.seq,
		cards: found!.cards ?? [],
		next:
			head.sprintDays !== null && next
				? {
						number: next.number,
						promise: head.unit === 'none' ? null : promiseOf(head, next.number, learned, raw),
						placed: found!.placed,
					}
				: null,
		usual: head.sprintDays === null ? null : learned.delivered,
		standing: found!.standing,
	};
}
