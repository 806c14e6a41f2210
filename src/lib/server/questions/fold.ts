import { LRUCache } from 'lru-cache';
import { BoardFold } from '../../../core/board/fold.ts';
import type { BoardHead } from '../../../core/board/view.ts';
import type { Instant } from '../../../core/calendar/zone.ts';
import { EVENT_KINDS, type HistoryEvent } from '../../../core/flow/history.ts';
import type { SprintAccounts } from '../../../core/sprint/ledger.ts';
import { rows } from '../database.ts';
import { now } from '../time.ts';
import { boardFile } from './history.ts';

interface Kept {
	/** Up to which event the board is folded, and the columns that it was folded over. */
	seq: number;
	columns: string;
	fold: BoardFold;
}

/** Boards folded already. Any process can fold them again: they only save the reading. */
const kept = new LRUCache<string, Kept>({ max: 30 });
/** What is being folded: one reading of a board at a time, and whoever asks meanwhile waits for it. */
const reading = new Map<string, Promise<Kept>>();

/** So many events are read and folded at once: between them others have their turn. */
const BATCH = 10_000;

/**
 * A board folded up to its last event. Only what is new since the last time is read. Owners are told by their ids.
 * @returns the fold, to be read at once: it goes on as things happen
 */
export async function boardFold(head: BoardHead): Promise<BoardFold> {
	const waiting = reading.get(head.id);
	const columns = JSON.stringify([
		head.unit,
		head.timeZone,
		head.columns.map(({ name, kind, limit, commitment }) => [name, kind, limit, commitment]),
	]);
	const known = kept.get(head.id);
	if (!waiting && known && known.columns === columns && known.seq >= head.seq) return known.fold;
	const work = (waiting ?? Promise.resolve()).catch(() => undefined).then(() => catchUp(head, columns));
	reading.set(head.id, work);
	try {
		return (await work).fold;
	} finally {
		if (reading.get(head.id) === work) reading.delete(head.id);
	}
}

/** The ledgers of a board's sprints and what each card is left with, up to its last event. */
export async function accountsOf(head: BoardHead): Promise<SprintAccounts> {
	return (await boardFold(head)).accounts;
}

/** Reads on from where a board was folded to; from its beginning where that cannot be added to. */
async function catchUp(head: BoardHead, columns: string): Promise<Kept> {
	const known = kept.get(head.id);
	if (known && known.columns === columns) {
		if (known.seq >= head.seq) return known;
		const next = await eventsSince(head, known.seq);
		const file = boardFile(head);
		if (next && known.fold.goOn(file.sprints, next, now().getTime())) {
			known.seq = head.seq;
			return known;
		}
	}
	const made: Kept = { seq: head.seq, columns, fold: await foldAnew(head) };
	kept.set(head.id, made);
	return made;
}

async function foldAnew(head: BoardHead): Promise<BoardFold> {
	const file = boardFile(head);
	const fold = new BoardFold(file);
	const people = byName(head);
	let from: [at: Instant, place: number] = [-Infinity, 0];
	// The next batch is on its way while one is folded.
	let coming = batchAfter(head, from);
	for (;;) {
		const batch = await coming;
		const last = batch.at(-1);
		if (!last) break;
		from = [last[1], last[5]];
		coming = batchAfter(head, from);
		coming.catch(() => undefined);
		fold.take(batch.map((row) => eventOf(head, row, people)));
	}
	fold.goOn(file.sprints, [], now().getTime());
	return fold;
}

type Row = [
	number: number,
	at: Instant,
	kind: HistoryEvent['event'],
	value: string,
	person: string | null,
	place: number,
];

function eventOf(
	head: Pick<BoardHead, 'key'>,
	[number, at, event, value, person]: Row,
	people: ReadonlyMap<string, string>,
): HistoryEvent {
	const card = `${head.key}-${number}`;
	if (event !== 'owner' && event !== 'unowner') return { card, at, event, value };
	// What was noted before ids were goes by the name.
	return { card, at, event, value: person ?? people.get(value) ?? value };
}

/** Ids by names; of two people of one name whoever is in the team. */
const byName = ({ people }: BoardHead) =>
	new Map(
		[true, false].flatMap((gone) =>
			people.filter((one) => one.gone === gone).map((one) => [one.name, one.id]),
		),
	);

const EVENT = `json_build_array(c.number, extract(epoch from e.at) * 1000, e.kind, e.value, e.after ->> 'person', coalesce(e.stands_for, e.seq))`;

/** Events in time order, those after an instant and a place in it, so many at most. */
async function batchAfter(head: BoardHead, [at, place]: [Instant, number]): Promise<Row[]> {
	const [found] = await rows<{ events: Row[] | null }>(
		`select json_agg(event) as events from (
			select ${EVENT} as event
			from event e
			join card c on c.id = e.card_id
			where e.board_id = $1 and e.seq <= $2 and e.kind = any($3)
				and e.at >= $4 and (e.at > $4 or coalesce(e.stands_for, e.seq) > $5)
				and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)
			order by e.at, coalesce(e.stands_for, e.seq)
			limit $6
		) batch`,
		[head.id, head.seq, EVENT_KINDS, at === -Infinity ? '-infinity' : new Date(at), place, BATCH],
		'fold-batch',
	);
	return found?.events ?? [];
}

/** What happened after an event, in time order; null where something before it was taken back or corrected. */
async function eventsSince(head: BoardHead, seq: number): Promise<HistoryEvent[] | null> {
	const [found] = await rows<{ back: boolean; events: Row[] | null }>(
		`with news as (
			select * from event where board_id = $1 and seq > $2 and seq <= $3
		)
		select exists (select from news where kind in ('undone', 'time-changed')) as back,
			(select json_agg(${EVENT} order by e.at, e.seq)
			from news e
			join card c on c.id = e.card_id
			where e.kind = any($4)
				and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)) as events`,
		[head.id, seq, head.seq, EVENT_KINDS],
		'fold-news',
	);
	if (found!.back) return null;
	const people = byName(head);
	return (found!.events ?? []).map((row) => eventOf(head, row, people));
}
