import { parseDay } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import type { BoardFile } from '../../../core/sprint/board.ts';
import { FILED_EVENTS } from '../../../core/events/kinds.ts';
import { type HistoryEvent } from '../../../core/flow/history.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { rows } from '../database.ts';

/**
 * The history of a board up to its last event, in time order and in the words of the history file. What was taken back
 * is not in it.
 */
export async function boardHistory(head: Pick<BoardHead, 'id' | 'key' | 'seq'>): Promise<HistoryEvent[]> {
	const [found] = await rows<{ events: [number, number, HistoryEvent['event'], string][] }>(
		`select coalesce(json_agg(json_build_array(c.number, extract(epoch from e.at) * 1000, e.kind, e.value)
				order by e.at, coalesce(e.stands_for, e.seq)), '[]') as events
			from event e
			join card c on c.id = e.card_id
			where e.board_id = $1 and e.seq <= $3 and e.kind = any($2)
				and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)`,
		[head.id, FILED_EVENTS, head.seq],
		'history-events',
	);
	return found!.events.map(([number, at, event, value]) => ({
		card: `${head.key}-${number}`,
		at,
		event,
		value,
	}));
}

/** A board as the history file describes it. */
export function boardFile(head: BoardHead): BoardFile {
	const instant = (text: string | null) => (text === null ? null : Date.parse(text));
	return {
		name: head.name,
		zone: zoneOf(head.timeZone),
		unit: head.unit === 'points' ? 'points' : 'hours',
		columns: head.columns.map(({ name, kind, limit }) => ({ name, kind, limit })),
		commitment: Math.max(
			0,
			head.columns.findIndex((column) => column.commitment),
		),
		sprints: head.sprints.map((sprint) => ({
			number: sprint.number,
			starts: parseDay(sprint.starts)!,
			ends: parseDay(sprint.ends)!,
			startedAt: instant(sprint.startedAt),
			closedAt: instant(sprint.closedAt),
		})),
	};
}
