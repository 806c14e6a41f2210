import { shownTo } from '../../../core/board/private.ts';
import type { BoardHead, CardView } from '../../../core/pages/board.ts';
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
}

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

/** The open cards of a board, up to its last event, in the order of their ranks; those that are meant, as whoever looks sees them. */
export async function openCardsOf(
	head: Pick<BoardHead, 'id' | 'seq' | 'me'>,
	meant: (card: CardView) => boolean,
): Promise<{ seq: number; cards: CardView[] }> {
	const { seq, cards } = await openCards(head.id, head.seq, now());
	const open = [...cards.values()].filter((card) => card.clock !== 'done' && meant(card));
	return { seq, cards: inOrder(open).map((card) => shownTo(card, head.me)) };
}

/** Cards in the order of their ranks. */
export const inOrder = (cards: CardView[]) => cards.sort((a, b) => (a.rank < b.rank ? -1 : 1));

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
