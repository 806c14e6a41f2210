import { BoardFold } from '../../../core/board/fold.ts';
import type { BoardHead } from '../../../core/board/view.ts';
import type { Instant } from '../../../core/calendar/zone.ts';
import { EVENT_KINDS, type HistoryEvent } from '../../../core/flow/history.ts';
import type { SprintAccounts } from '../../../core/sprint/ledger.ts';
import { rows } from '../database.ts';
import { Followed } from '../followed.ts';
import { now } from '../time.ts';
import { boardFile } from './history.ts';

interface Kept {
	/** Up to which event the board is folded, and the columns that it was folded over. */
	seq: number;
	columns: string;
	fold: BoardFold;
}

const followed = new Followed<Kept>();

/** So many events are read and folded at once: between them others have their turn. */
const BATCH = 5000;

/**
 * A board folded up to its last event. Only what is new since the last time is read. Owners are told by their ids.
 * @returns the fold, to be read at once: it goes on as things happen
 */
export async function boardFold(head: BoardHead): Promise<BoardFold> {
	const columns = JSON.stringify([
		head.unit,
		head.timeZone,
		head.columns.map(({ name, kind, limit, commitment }) => [name, kind, limit, commitment]),
	]);
	const known = await followed.get(head.id, head.seq, (before) => readOn(head, columns, before));
	if (known.columns === columns || known.seq > head.seq) return known.fold;
	followed.forget(head.id);
	return (await followed.get(head.id, head.seq, (before) => readOn(head, columns, before))).fold;
}

/** The ledgers of a board's sprints and what each card is left with, up to its last event. */
export async function accountsOf(head: BoardHead): Promise<SprintAccounts> {
	return (await boardFold(head)).accounts;
}

/** Reads on from where a board was folded to; from its beginning where that cannot be added to. */
async function readOn(head: BoardHead, columns: string, known: Kept | undefined): Promise<Kept> {
	if (known?.columns === columns) {
		const next = await eventsSince(head, known.seq);
		if (next && known.fold.goOn(boardFile(head).sprints, next, now().getTime())) {
			known.seq = head.seq;
			return known;
		}
	}
	return { seq: head.seq, columns, fold: await foldAnew(head) };
}

async function foldAnew(head: BoardHead): Promise<BoardFold> {
	const file = boardFile(head);
	const fold = new BoardFold(file);
	const [names, [known]] = await Promise.all([
		rows<{ id: string; number: number }>('select id, number from card where board_id = $1', [head.id]),
		rows<{ gone: number[] }>(
			`select coalesce(json_agg(seq), '[]') as gone from event_void where board_id = $1`,
			[head.id],
		),
	]);
	const cards = new Map(names.map(({ id, number }) => [id, `${head.key}-${number}`]));
	const gone = new Set(known!.gone);
	const people = byName(head);
	let from: [at: Instant, seq: number] = [-Infinity, 0];
	/** What happened at the last instant of a batch waits for the next one: more may have happened then. */
	let waiting: Row[] = [];
	// The next batch is on its way while one is folded.
	let coming = batchAfter(head, from);
	for (;;) {
		const batch = await coming;
		const last = batch.at(-1);
		if (last) {
			from = [last.at, last.seq];
			coming = batchAfter(head, from);
			coming.catch(() => undefined);
		}
		const all = [...waiting, ...batch];
		const whole = last ? all.findLastIndex(({ at }) => at < last.at) + 1 : all.length;
		waiting = all.slice(whole);
		const ready = all.slice(0, whole).filter(({ seq }) => !gone.has(seq));
		fold.take(inPlace(ready).map((row) => eventOf(cards.get(row.card)!, row, people)));
		if (!last) break;
	}
	fold.goOn(file.sprints, [], now().getTime());
	return fold;
}

interface Row {
	/** The id of the card. */
	card: string;
	at: Instant;
	kind: HistoryEvent['event'];
	value: string;
	seq: number;
	/** Of an event that corrects another, where that one stood. */
	place: number | null;
}

/** Each in its place among those of its instant. */
const inPlace = (events: Row[]) =>
	events.some(({ place }) => place !== null)
		? events.sort((a, b) => a.at - b.at || (a.place ?? a.seq) - (b.place ?? b.seq))
		: events;

function eventOf(card: string, { at, kind, value }: Row, people: ReadonlyMap<string, string>): HistoryEvent {
	// What was noted of owners before ids were goes by the name.
	if (kind === 'owner' || kind === 'unowner')
		return { card, at, event: kind, value: people.get(value) ?? value };
	return { card, at, event: kind, value };
}

/** Ids by names; of two people of one name whoever is in the team. */
const byName = ({ people }: BoardHead) =>
	new Map(
		[true, false].flatMap((gone) =>
			people.filter((one) => one.gone === gone).map((one) => [one.name, one.id]),
		),
	);

interface Columns {
	card: string[] | null;
	at: Instant[];
	kind: HistoryEvent['event'][];
	value: string[];
	seq: number[];
	place: (number | null)[];
}

/** Events as columns: what is many times the same is written and read the quickest so. */
const COLUMNS = `json_agg(card_id) as card, json_agg((extract(epoch from at) * 1000)::bigint) as at, json_agg(kind) as kind,
	json_agg(case when kind in ('owner', 'unowner') then coalesce(after ->> 'person', value) else value end) as value,
	json_agg(seq) as seq, json_agg(stands_for) as place`;

const rowsOf = ({ card, at, kind, value, seq, place }: Columns): Row[] =>
	(card ?? []).map((id, i) => ({
		card: id,
		at: at[i]!,
		kind: kind[i]!,
		value: value[i]!,
		seq: seq[i]!,
		place: place[i]!,
	}));

/** Events by time and number, those after one of them, so many at most; taken-back ones too. */
async function batchAfter(head: BoardHead, [at, seq]: [Instant, number]): Promise<Row[]> {
	const [found] = await rows<Columns>(
		`select ${COLUMNS} from (
			select * from event
			where board_id = $1 and (at, seq) > ($4, $5) and seq <= $2 and kind = any($3)
			order by at, seq
			limit $6
		) batch`,
		[head.id, head.seq, EVENT_KINDS, at === -Infinity ? '-infinity' : new Date(at), seq, BATCH],
		'fold-batch',
	);
	return rowsOf(found!);
}

/** What happened after an event, in time order; null where something before it was taken back or corrected. */
async function eventsSince(head: BoardHead, seq: number): Promise<HistoryEvent[] | null> {
	const [found] = await rows<Columns & { back: boolean; names: [string, number][] | null }>(
		`with news as materialized (
			select * from event where board_id = $1 and seq > $2 and seq <= $3
		), told as (
			select n.* from news n
			where n.kind = any($4)
				and not exists (select from event_void v where v.board_id = n.board_id and v.seq = n.seq)
			order by n.at, n.seq
		)
		select ${COLUMNS},
			(select exists (select from news where kind in ('undone', 'time-changed'))) as back,
			(select json_agg(json_build_array(id, number)) from card where id in (select card_id from told)) as names
		from told`,
		[head.id, seq, head.seq, EVENT_KINDS],
		'fold-news',
	);
	if (found!.back) return null;
	const cards = new Map(found!.names?.map(([id, number]) => [id, `${head.key}-${number}`]));
	const people = byName(head);
	return inPlace(rowsOf(found!)).map((row) => eventOf(cards.get(row.card)!, row, people));
}
