import { parseDay } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import type { BoardFile } from '../../../core/sprint/board.ts';
import { FILED_EVENTS } from '../../../core/events/kinds.ts';
import { type HistoryEvent } from '../../../core/flow/history.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { byReplica, rows } from '../database.ts';
import type { FoldHead } from './board-head.ts';

/**
 * The history of a board up to its last event, in time order and in the words of the history file. What was taken back
 * is not in it.
 */
export async function boardHistory(head: Pick<BoardHead, 'id' | 'key' | 'seq'>): Promise<HistoryEvent[]> {
	const [found] = await byReplica(head, () =>
		rows<{ events: [number, number, HistoryEvent['event'], string][] }>(
			`select coalesce(json_agg(json_build_array(c.number, extract(epoch from e.at) * 1000, e.kind, e.value)
				order by e.at, coalesce(e.stands_for, e.seq)), '[]') as events
			from event e
			join card c on c.id = e.card_id
			where e.board_id = $1 and e.seq <= $3 and e.kind = any($2)
				and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)`,
			[head.id, FILED_EVENTS, head.seq],
			'history-events',
		),
	);
	return found!.events.map(([number, at, event, value]) => ({
		card: `${head.key}-${number}`,
		at,
		event,
		value,
	}));
}

/** The columns of a board as figures need them: those that were taken away too. */
function layoutOf(head: Pick<FoldHead, 'columns' | 'retired'>): Pick<BoardFile, 'columns' | 'commitment'> {
	const live = head.columns.map(({ name, kind, limit, was, hidden, position, commitment }) => ({
		position,
		commitment,
		column: { name, kind, limit, ...(was.length && { was }), ...(hidden && { hidden }) },
	}));
	const gone = head.retired.map(({ name, kind, was, position }) => ({
		position,
		commitment: false,
		column: { name, kind, limit: null, ...(was.length && { was }), retired: true },
	}));
	const all = [...live, ...gone].sort((a, b) => a.position - b.position);
	return {
		columns: all.map(({ column }) => column),
		commitment: Math.max(
			0,
			all.findIndex(({ commitment }) => commitment),
		),
	};
}

/** Where each column of a board stands among those of its file, in the order of the columns. */
export const placesInFile = (head: Pick<BoardHead, 'columns' | 'retired'>): number[] =>
	head.columns.map(
		({ position }, i) => i + head.retired.filter((column) => column.position < position).length,
	);

/** A board as the history file describes it. */
export function boardFile(head: Omit<FoldHead, 'people' | 'seq'>): BoardFile {
	const instant = (text: string | null) => (text === null ? null : Date.parse(text));
	return {
		name: head.name,
		zone: zoneOf(head.timeZone),
		unit: head.unit === 'points' ? 'points' : 'hours',
		...layoutOf(head),
		sprints: head.sprints.map((sprint) => ({
			number: sprint.number,
			starts: parseDay(sprint.starts)!,
			ends: parseDay(sprint.ends)!,
			startedAt: instant(sprint.startedAt),
			closedAt: instant(sprint.closedAt),
		})),
	};
}
