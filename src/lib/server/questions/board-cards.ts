import type { BoardCards, CardView } from '../../../core/board/view.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { expectationOf } from '../../../core/flow/expectation.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { CARD_VIEW } from './card-view.ts';

/** Finished cards stay on a continuous board for this long. */
const DONE_DAYS = 14;

/**
 * The cards that stand on a board: all unfinished ones in its columns, and what was finished in the running sprint and
 * in those closed for less than the board's done days (on a continuous board, in the last two weeks). With them what the board's past says of how long a card takes.
 */
export async function boardCards(person: Person, slug: string): Promise<BoardCards> {
	const at = now();
	const [found] = await rows<{
		seq: number;
		zone: string;
		percentile: number;
		doneSince: Date;
		backlog: number;
		cards: CardView[] | null;
		past: [started: number, finished: number][] | null;
	}>(
		`with b as materialized (
			select b.id, b.last_seq, b.expectation_percentile, t.time_zone,
				coalesce(
					(select min(started_at) from sprint where board_id = b.id and started_at is not null
						and (closed_at is null or closed_at + make_interval(days => b.done_days) > $3::timestamptz)),
					(select max(closed_at) + interval '1 millisecond' from sprint where board_id = b.id),
					$3::timestamptz - make_interval(days => $4)
				) as done_since
			from board b
			join team t on t.id = b.team_id
			join board_right r on r.board_id = b.id and r.person_id = $1
			where b.slug = $2
		)
		select b.last_seq as seq, b.time_zone as zone, b.expectation_percentile as percentile, b.done_since as "doneSince",
			(select count(*) from card where board_id = b.id and column_id is null and archived_at is null) as backlog,
			(select json_agg(v order by v.rank) from (
				select ${CARD_VIEW}
				from card c
				left join sprint s on s.id = c.sprint_id
				where c.board_id = b.id and c.column_id is not null and c.archived_at is null
					and (c.clock <> 'done' or c.finished_at >= b.done_since)
			) v) as cards,
			(select json_agg(json_build_array(extract(epoch from started_at) * 1000, extract(epoch from finished_at) * 1000))
			from card
			where board_id = b.id and clock = 'done' and finished_at > $3::timestamptz - interval '92 days') as past
		from b`,
		[person.id, slug, at, DONE_DAYS],
		'board-cards',
	);
	if (!found) throw notFound('board');
	const zone = zoneOf(found.zone);
	const today = zone.day(at.getTime());
	const took = (found.past ?? []).flatMap(([started, finished]) =>
		zone.day(finished) > today - 90 ? [zone.day(finished) - zone.day(started) + 1] : [],
	);
	return {
		seq: found.seq,
		cards: found.cards ?? [],
		expectation: expectationOf(took, found.percentile),
		doneSince: found.doneSince.toISOString(),
		backlog: found.backlog,
	};
}
