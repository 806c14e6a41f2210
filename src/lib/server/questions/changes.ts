import type { CardView } from '../../../core/pages/board.ts';
import { rows } from '../database.ts';
import { cardViews } from './card-view.ts';

/** What a page open on a board is told: the cards that changed, as they stand now, up to an event's number. */
export interface Change {
	seq: number;
	cards: CardView[];
	/** Something other than cards changed: read the board again. */
	board: boolean;
}

/**
 * Changes of a board after an event: the cards that the later events touched, each once, those they are part of, and those
 * that wait for them.
 */
export async function changesAfter(board: string, seq: number): Promise<Change> {
	const [found] = await rows<{ seq: number; board: boolean; cards: CardView[] }>(
		`with news as (
			select card_id, kind from event where board_id = $1 and seq > $2
		)
		select b.last_seq as seq,
			exists (select from news where card_id is null) as board,
			(select coalesce(json_agg(v), '[]') from (
				${cardViews(`
					select card_id from news where card_id is not null
					union
					select k.parent_id from card k where k.id in (select card_id from news) and k.parent_id is not null
					union
					select l.to_id from card_link l join card k on k.id = l.to_id
					where l.from_id in (select card_id from news) and l.kind = 'blocks' and k.board_id = $1`)}
			) v) as cards
		from board b
		where b.id = $1`,
		[board, seq],
		'changes-after',
	);
	return found ?? { seq, cards: [], board: false };
}
