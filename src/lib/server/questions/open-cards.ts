import { LRUCache } from 'lru-cache';
import { shownTo } from '../../../core/board/private.ts';
import type { BoardHead, CardView } from '../../../core/pages/board.ts';
import { columnwise } from '../../columnwise.ts';
import { rows } from '../database.ts';
import { Followed } from '../followed.ts';
import { now } from '../time.ts';
import { cardViews } from './card-view.ts';
import { changesAfter } from './changes.ts';

interface Kept {
	seq: number;
	/** Done cards are among them if they were finished since then. */
	doneSince: number;
	/** Open cards of the board and its backlog, and those that were done lately. */
	cards: Map<string, CardView>;
	/** How many cards were done after so many days in the last 90 days; null when that is to be read again. */
	took: { day: string; counts: [days: number, cards: number][] } | null;
	/** Lists of them, by what they are for, and whom where some are private; until something happens. */
	lists: LRUCache<string, CardView[]>;
	/** What is counted of all of them; until something happens. */
	tally: Tally | null;
}

interface Tally {
	/** Some are seen by a few only. */
	private: boolean;
	/** Cards that stand in no column. */
	backlog: number;
	/** When those in a column were done, in milliseconds, the first one first. */
	finished: number[];
}

/** So many lists are remembered of a board. */
const LISTS = 12;

const followed = new Followed<Kept>(({ cards }) => cards.size);

/**
 * The open cards of a board and its backlog, and those done since an instant, up to an event at least. They are shared:
 * nobody changes them.
 */
export async function openCards(board: string, seq: number, doneSince: Date): Promise<Kept> {
	const since = doneSince.getTime();
	const known = await followed.get(board, seq, (before) => readOn(board, since, before));
	if (known.doneSince <= since) return known;
	// Done cards stay longer than they did.
	followed.forget(board);
	return followed.get(board, seq, () => readAll(board, since));
}

/** The open cards of a board, up to its last event: as {@link listOf} gives them. */
export async function openCardsOf(
	head: Pick<BoardHead, 'id' | 'seq' | 'me'>,
	what: string,
	meant: (card: CardView) => boolean,
): Promise<{ seq: number; cards: CardView[] }> {
	const known = await openCards(head.id, head.seq, now());
	return {
		seq: known.seq,
		cards: listOf(known, head.me, what, (card) => card.clock !== 'done' && meant(card)),
	};
}

/**
 * Those cards that are meant, in the order of their ranks, as somebody sees them. Until something happens on the board it is
 * the same list, which is written once, however many pages it goes to.
 * @param what tells those that are meant, and what is told of them, from others
 * @param as what a page is told of each
 */
export function listOf(
	known: Kept,
	me: string,
	what: string,
	meant: (card: CardView) => boolean,
	as: (card: CardView) => CardView = (card) => card,
): CardView[] {
	const whose = tallyOf(known).private ? `${what} ${me}` : what;
	let list = known.lists.get(whose);
	if (!list) {
		const cards = [...known.cards.values()].map((card) => as(shownTo(card, me))).filter(meant);
		list = columnwise(cards.sort((a, b) => (a.rank < b.rank ? -1 : 1)));
		known.lists.set(whose, Object.freeze(list) as CardView[]);
	}
	return list;
}

/** What is counted of all cards: it is counted once until something happens. */
export function tallyOf(known: Kept): Tally {
	if (known.tally) return known.tally;
	const tally: Tally = { private: false, backlog: 0, finished: [] };
	for (const card of known.cards.values()) {
		if (card.private) tally.private = true;
		if (card.column === null) tally.backlog++;
		else if (card.clock === 'done') tally.finished.push(Date.parse(card.finished!));
	}
	tally.finished.sort((a, b) => a - b);
	return (known.tally = tally);
}

async function readOn(board: string, since: number, known: Kept | undefined): Promise<Kept> {
	if (!known) return readAll(board, since);
	const change = await changesAfter(board, known.seq);
	if (change.board) return readAll(board, since);
	for (const card of change.cards) {
		const before = known.cards.get(card.id);
		if (card.clock === 'done' || before?.clock === 'done') known.took = null;
		if (card.archived) known.cards.delete(card.id);
		else known.cards.set(card.id, spare(card));
	}
	known.seq = change.seq;
	known.lists.clear();
	known.tally = null;
	return known;
}

/** A card without what few have: of the others pages need not be told it. Made anew: what is deleted from stays slow to read. */
function spare({ watchers, picture, review, percent, ...card }: CardView): CardView {
	return Object.assign(
		card,
		card.private && { watchers },
		picture && { picture },
		review && { review },
		percent !== null && { percent },
	);
}

async function readAll(board: string, since: number): Promise<Kept> {
	const [found] = await rows<{ seq: number; cards: CardView[] | null }>(
		`select b.last_seq as seq, (select json_agg(v order by v.rank) from (
			${cardViews(`
				select id from card where board_id = b.id and archived_at is null and clock <> 'done'
				union all
				select id from card where board_id = b.id and clock = 'done' and finished_at >= $2 and archived_at is null`)}
		) v) as cards
		from board b
		where b.id = $1`,
		[board, new Date(since)],
		'open-cards',
	);
	return {
		seq: found?.seq ?? 0,
		doneSince: since,
		cards: new Map(found?.cards?.map((card) => [card.id, spare(card)])),
		took: null,
		lists: new LRUCache({ max: LISTS }),
		tally: null,
	};
}

/** How many cards of a board were done after so many days, both ends counted, in the 90 days up to and with one. */
export async function tookLately(
	known: Kept,
	board: string,
	zone: string,
	day: string,
): Promise<[days: number, cards: number][]> {
	if (known.took?.day === day) return known.took.counts;
	const { seq } = known;
	const found = await rows<{ days: number; cards: number }>(
		`select (finished_at at time zone $2)::date - (started_at at time zone $2)::date + 1 as days, count(*) as cards
			from card
			where board_id = $1 and clock = 'done' and finished_at > $3::date - interval '92 days'
				and (finished_at at time zone $2)::date > $3::date - 90 and (finished_at at time zone $2)::date <= $3::date
			group by 1
			order by 1`,
		[board, zone, day],
		'took-lately',
	);
	const counts = found.map(({ days, cards }): [number, number] => [days, cards]);
	// What happened while this was read is not in it: then it is not kept.
	if (known.seq === seq) known.took = { day, counts };
	return counts;
}
