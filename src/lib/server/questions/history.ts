import { parseDay } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import type { BoardFile } from '../../../core/exchange/board-file.ts';
import { EVENT_KINDS, inOrder, type HistoryEvent } from '../../../core/flow/history.ts';
import type { BoardHead } from '../../../core/board/view.ts';
import { sprintAccounts } from '../../../core/sprint/ledger.ts';
import { rows } from '../database.ts';
import { now } from '../time.ts';

interface Known {
	seq: number;
	events: HistoryEvent[];
}

/** Histories already read, by board, newest last. Any process can read them again: they only save the reading. */
const read = new Map<string, Known>();
const BOARDS_KEPT = 30;

/**
 * The history of a board up to its last event, in time order and in the words of the history file. What was taken back
 * is not in it. Only what is new since the last reading is fetched.
 */
export async function boardHistory(head: Pick<BoardHead, 'id' | 'key' | 'seq'>): Promise<HistoryEvent[]> {
	let known = read.get(head.id) ?? { seq: 0, events: [] };
	if (known.seq < head.seq) {
		const fresh = await eventsAfter(head, known.seq);
		// A taken-back command voids events that were read before.
		if (known.seq > 0 && fresh.undone) known = { seq: 0, events: [] };
		const events = known.seq === 0 && fresh.undone ? (await eventsAfter(head, 0)).events : fresh.events;
		known = { seq: head.seq, events: inOrder([...known.events, ...events]) };
	}
	read.delete(head.id);
	read.set(head.id, known);
	for (const oldest of read.keys()) if (read.size > BOARDS_KEPT) read.delete(oldest);
	return known.events;
}

async function eventsAfter(
	head: Pick<BoardHead, 'id' | 'key' | 'seq'>,
	seq: number,
): Promise<{ events: HistoryEvent[]; undone: boolean }> {
	const [found] = await rows<{ undone: boolean; events: [number, number, HistoryEvent['event'], string][] }>(
		`select exists (select from event where board_id = $1 and seq > $2 and seq <= $4 and kind in ('undone', 'time-changed')) as undone,
			(select coalesce(json_agg(json_build_array(c.number, extract(epoch from e.at) * 1000, e.kind, e.value) order by e.at, coalesce(e.stands_for, e.seq)), '[]')
			from event e
			join card c on c.id = e.card_id
			where e.board_id = $1 and e.seq > $2 and e.seq <= $4 and e.kind = any($3)
				and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)) as events`,
		[head.id, seq, EVENT_KINDS, head.seq],
		'history-events',
	);
	return {
		undone: found!.undone,
		events: found!.events.map(([number, at, event, value]) => ({
			card: `${head.key}-${number}`,
			at,
			event,
			value,
		})),
	};
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

type Accounts = ReturnType<typeof sprintAccounts>;
const kept = new Map<string, { seq: number; sprints: string; accounts: Accounts }>();

/** The ledgers of a board's sprints and what each card is left with, by its history up to its last event. */
export async function boardAccounts(head: BoardHead): Promise<Accounts> {
	// The dates of sprints are part of what is read: they come with the head, not with the history.
	const sprints = JSON.stringify(head.sprints.map((sprint) => [sprint.startedAt, sprint.closedAt]));
	const known = kept.get(head.id);
	if (known && known.seq === head.seq && known.sprints === sprints) return known.accounts;
	const accounts = sprintAccounts(boardFile(head), await boardHistory(head), now().getTime());
	kept.delete(head.id);
	kept.set(head.id, { seq: head.seq, sprints, accounts });
	for (const oldest of kept.keys()) if (kept.size > BOARDS_KEPT) kept.delete(oldest);
	return accounts;
}
