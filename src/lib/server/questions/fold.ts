import { BoardFold, type Replaced } from '../../../core/board/fold.ts';
import type { Instant } from '../../../core/calendar/zone.ts';
import { FILED_EVENTS } from '../../../core/events/kinds.ts';
import { type HistoryEvent } from '../../../core/flow/history.ts';
import type { Lasting } from '../../../core/rounds/since.ts';
import type { SprintAccounts } from '../../../core/sprint/accounts.ts';
import { byReplica, rows } from '../database.ts';
import { Followed } from '../followed.ts';
import { now } from '../time.ts';
import { inTurns } from '../turns.ts';
import type { FoldHead } from './board-head.ts';
import { keepFold, keptFold, type Folded } from './fold-snapshot.ts';
import { boardFile } from './history.ts';

const followed = new Followed<Folded>(({ fold }) => fold.flow.lives.byCard.size);

/** So many events are read and folded at once: between them others have their turn. */
const BATCH = 5000;

/**
 * A board folded up to its last event. Only what is new since the last time is read. Owners are told by their ids.
 * @param whole where this process has not folded it, the whole history is read, whatever has been kept of it
 * @returns the fold, to be read at once: it goes on as things happen
 */
export async function boardFold(head: FoldHead, whole = false): Promise<BoardFold> {
	const columns = JSON.stringify([
		head.key,
		head.unit,
		head.timeZone,
		head.columns.map(({ name, kind, limit, commitment, was, position }) => [
			name,
			kind,
			limit,
			commitment,
			was,
			position,
		]),
		head.retired,
	]);
	const read = (before: Folded | undefined) =>
		whole && !before ? foldAnew(head, columns) : readOn(head, columns, before);
	const first = await followed.get(head.id, head.seq, read);
	const others = first.columns !== columns && first.seq <= head.seq;
	if (others) followed.forget(head.id, (thing) => thing === first);
	const known = others ? await followed.get(head.id, head.seq, read) : first;
	// What was kept takes a fraction of the memory: whoever asks next goes on from it, unless its columns are others by now.
	void keepFold(head, known).then(
		(kept) => kept && known.columns === columns && followed.replace(head.id, known, kept),
	);
	return known.fold;
}

/** The ledgers of a board's sprints and what each card is left with, up to its last event. */
export async function accountsOf(head: FoldHead): Promise<SprintAccounts> {
	return (await boardFold(head)).accounts;
}

/**
 * What has lasted on a board. After something was taken back that is read anew: from where the board was kept if what was
 * taken back happened after that, else from its beginning.
 */
export async function lastingOn(head: FoldHead): Promise<Lasting> {
	// Others may have it folded meanwhile in another way: then it is tried again.
	for (let tries = 1; ; tries++) {
		const { since } = await boardFold(head, tries > 2);
		if (since) return since;
		followed.forget(head.id, ({ fold }) => !fold.since);
	}
}

/** Reads on from where a board was folded to, here or in another process; from its beginning where that cannot be added to. */
async function readOn(head: FoldHead, columns: string, before: Folded | undefined): Promise<Folded> {
	const known = before?.columns === columns ? before : await keptFold(head, columns);
	if (known) {
		const { back, events } = await eventsSince(head, known.seq);
		const replaced = back ? await replacedSince(head, known.seq) : [];
		const others = new Set(replaced.map(({ card }) => card));
		const next = events.filter(({ card }) => !others.has(card));
		const happened = [...next, ...replaced].map(({ card }) => card);
		await inTurns(known.fold.reach(new Set(happened)));
		const at = now().getTime();
		if (known.fold.goOn(boardFile(head).sprints, next, at) && (!back || known.fold.replace(replaced, at))) {
			known.seq = head.seq;
			known.news += events.length;
			return known;
		}
		// Half added to, it is nothing to be kept.
		known.seq = -1;
	}
	return foldAnew(head, columns);
}

async function foldAnew(head: FoldHead, columns: string): Promise<Folded> {
	const { fold, events } = await byReplica(head, () => readWhole(head));
	return { seq: head.seq, columns, fold, news: events };
}

/** A board's history, folded, and how many events it was. */
async function readWhole(head: FoldHead): Promise<{ fold: BoardFold; events: number }> {
	let events = 0;
	const file = boardFile(head);
	const fold = new BoardFold(file);
	const [keys, [known]] = await Promise.all([
		keysOfAll(head),
		rows<{ gone: number[] }>(
			`select coalesce(json_agg(seq), '[]') as gone from event_void where board_id = $1`,
			[head.id],
		),
	]);
	const gone = new Set(known!.gone);
	const people = byName(head);
	let from: [at: Instant, seq: number] = [-Infinity, 0];
	/** What happened at the last instant of a batch waits for the next one: more may have happened then. */
	let waiting: Placed[] = [];
	// The next batch is on its way while one is folded.
	let coming = batchAfter(head, from);
	for (;;) {
		const batch = await coming;
		const last = batch.seq ? batch.seq.length - 1 : -1;
		if (last >= 0) {
			from = [batch.at[last]!, batch.seq![last]!];
			coming = batchAfter(head, from);
			coming.catch(() => undefined);
		}
		events += last + 1;
		const all = [...waiting, ...eventsOf(batch, keys, people, gone)];
		const whole = last >= 0 ? all.findLastIndex(({ at }) => at < from[0]) + 1 : all.length;
		waiting = all.splice(whole);
		await inTurns(taken(fold, inPlace(all)));
		if (last < 0) break;
	}
	fold.goOn(file.sprints, [], now().getTime());
	return { fold, events };
}

/** So many events are folded in one step, or more where they are of one instant. */
const STEP = 500;

function* taken(fold: BoardFold, events: HistoryEvent[]): Generator<void> {
	for (let from = 0, to = STEP; from < events.length; from = to, to += STEP) {
		while (to < events.length && events[to]!.at === events[to - 1]!.at) to++;
		fold.take(events.slice(from, to));
		yield;
	}
}

/** The keys of a board's cards by their ids. */
async function keysOfAll(head: FoldHead): Promise<Map<string, string>> {
	const keys = new Map<string, string>();
	for (let last = 0; ;) {
		const [found] = await rows<{ ids: string[] | null; numbers: number[] }>(
			`select json_agg(id) as ids, json_agg(number) as numbers
			from (select id, number from card where board_id = $1 and number > $2 order by number limit $3) part`,
			[head.id, last, BATCH],
			'fold-keys',
		);
		if (!found!.ids) return keys;
		found!.ids.forEach((id, i) => keys.set(id, `${head.key}-${found!.numbers[i]}`));
		last = found!.numbers.at(-1)!;
	}
}

/** An event with its number, or of one that corrects another, that one's. */
interface Placed extends HistoryEvent {
	place: number;
}

/** Each in its place among those of its instant. */
function inPlace(events: Placed[]): Placed[] {
	const out = events.some((event, i) => i > 0 && event.place < events[i - 1]!.place);
	return out ? events.sort((a, b) => a.at - b.at || a.place - b.place) : events;
}

/** Ids by names; of two people of one name whoever is in the team. */
const byName = ({ people }: FoldHead) =>
	new Map(
		[true, false].flatMap((gone) =>
			people.filter((one) => one.gone === gone).map((one) => [one.name, one.id]),
		),
	);

/** Events as columns: what is many times the same is written and read the quickest so. Null where there are none. */
interface Columns {
	card: string[];
	at: Instant[];
	kind: HistoryEvent['event'][];
	value: string[];
	seq: number[] | null;
	place: (number | null)[];
}

const COLUMNS = `json_agg(card_id) as card, json_agg((extract(epoch from at) * 1000)::bigint) as at, json_agg(kind) as kind,
	json_agg(case when kind in ('owner', 'unowner') then coalesce(after ->> 'person', value) else value end) as value,
	json_agg(seq) as seq, json_agg(stands_for) as place`;

/** @param gone the numbers of those that were taken back */
function eventsOf(
	{ card, at, kind, value, seq, place }: Columns,
	keys: ReadonlyMap<string, string>,
	people: ReadonlyMap<string, string>,
	gone: ReadonlySet<number>,
): Placed[] {
	const events: Placed[] = [];
	for (let i = 0; i < (seq?.length ?? 0); i++) {
		if (gone.has(seq![i]!)) continue;
		const event = kind[i]!;
		const said = value[i]!;
		events.push({
			card: keys.get(card[i]!)!,
			at: at[i]!,
			event,
			// What was noted of owners before ids were goes by the name.
			value: event === 'owner' || event === 'unowner' ? (people.get(said) ?? said) : said,
			place: place[i] ?? seq![i]!,
		});
	}
	return events;
}

/** Events by time and number, those after one of them, so many at most; taken-back ones too. */
async function batchAfter(head: FoldHead, [at, seq]: [Instant, number]): Promise<Columns> {
	const [found] = await rows<Columns>(
		`select ${COLUMNS} from (
			select * from event
			where board_id = $1 and (at, seq) > ($4, $5) and seq <= $2 and kind = any($3)
			order by at, seq
			limit $6
		) batch`,
		[head.id, head.seq, FILED_EVENTS, at === -Infinity ? '-infinity' : new Date(at), seq, BATCH],
		'fold-batch',
	);
	return found!;
}

/** What happened after an event, in time order, and whether something of before was taken back or corrected by it. */
async function eventsSince(head: FoldHead, seq: number): Promise<{ back: boolean; events: HistoryEvent[] }> {
	const [found] = await rows<Columns & { back: boolean; names: Name[] | null }>(
		`with news as materialized (
			select * from event where board_id = $1 and seq > $2 and seq <= $3
		), told as (
			select n.* from news n
			where n.kind = any($4)
				and not exists (select from event_void v where v.board_id = n.board_id and v.seq = n.seq)
			order by n.at, n.seq
		)
		select ${COLUMNS},
			(select exists (
				select from event_void
				where board_id = $1 and seq <= $2 and command_id = any(array(select command_id from news))
			)) as back,
			(select json_agg(json_build_array(id, number)) from card where id in (select card_id from told)) as names
		from told`,
		[head.id, seq, head.seq, FILED_EVENTS],
		'fold-news',
	);
	const keys = keysOf(head, found!.names);
	return { back: found!.back, events: inPlace(eventsOf(found!, keys, byName(head), new Set())) };
}

type Name = [id: string, number: number];

const keysOf = ({ key }: FoldHead, names: Name[] | null) =>
	new Map(names?.map(([id, number]) => [id, `${key}-${number}`]));

/** Cards of which something was taken back or corrected after an event: their histories as they were then, and as they are. */
async function replacedSince(head: FoldHead, seq: number): Promise<Replaced[]> {
	const [found] = await rows<Columns & { was: boolean[]; is: boolean[]; names: Name[] | null }>(
		`with news as materialized (
			select * from event where board_id = $1 and seq > $2 and seq <= $3
		), gone as materialized (
			select v.seq from event_void v where v.board_id = $1 and v.command_id in (select command_id from news)
		), cards as materialized (
			select e.card_id as id from event e join gone on gone.seq = e.seq where e.board_id = $1 and e.card_id is not null
			union
			select card_id from news where kind in ('undone', 'time-changed') and card_id is not null
		), told as (
			select e.*, e.seq <= $2 and (v.seq is null or v.seq in (select seq from gone)) as was, v.seq is null as is_so
			from event e
			left join event_void v on v.board_id = e.board_id and v.seq = e.seq
			where e.card_id in (select id from cards) and e.seq <= $3 and e.kind = any($4)
			order by e.at, e.seq
		)
		select ${COLUMNS}, json_agg(was) as was, json_agg(is_so) as is,
			(select json_agg(json_build_array(id, number)) from card where id in (select id from cards)) as names
		from told`,
		[head.id, seq, head.seq, FILED_EVENTS],
		'fold-replaced',
	);
	const keys = keysOf(head, found!.names);
	const all = eventsOf(found!, keys, byName(head), new Set());
	const of = (card: string, counts: boolean[]) =>
		inPlace(all.filter((event, i) => event.card === card && counts[i]));
	return [...keys.values()].map((card) => ({ card, was: of(card, found!.was), is: of(card, found!.is) }));
}
