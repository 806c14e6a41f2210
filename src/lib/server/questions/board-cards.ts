import { bisectLeft } from 'd3-array';
import type { BoardCards } from '../../../core/pages/board.ts';
import { dayText } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { expectationOf } from '../../../core/flow/expectation.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { listOf, openCards, tallyOf, tookLately } from './open-cards.ts';

/** Finished cards stay on a continuous board for this long. */
const DONE_DAYS = 14;

/**
 * The cards that stand on a board: all unfinished ones in its columns, and what was finished in the running sprint and
 * in those closed for less than the board's done days (on a continuous board, in the last two weeks). With them what the board's past says of how long a card takes.
 */
export async function boardCards(person: Person, slug: string): Promise<BoardCards> {
	const at = now();
	const [found] = await rows<{
		id: string;
		seq: number;
		zone: string;
		percentile: number;
		doneSince: Date;
	}>(
		`select b.id, b.last_seq as seq, t.time_zone as zone, b.expectation_percentile as percentile,
			coalesce(
				(select min(started_at) from sprint where board_id = b.id and started_at is not null
					and (closed_at is null or closed_at + make_interval(days => b.done_days) > $3::timestamptz)),
				(select max(closed_at) + interval '1 millisecond' from sprint where board_id = b.id),
				$3::timestamptz - make_interval(days => $4)
			) as "doneSince"
		from board b
		join team t on t.id = b.team_id
		join board_right r on r.board_id = b.id and r.person_id = $1
		where b.slug = $2`,
		[person.id, slug, at, DONE_DAYS],
		'board-cards',
	);
	if (!found) throw notFound('board');
	const { id, zone, percentile, doneSince } = found;
	const known = await openCards(id, found.seq, doneSince);
	const took = await tookLately(known, id, zone, dayText(zoneOf(zone).day(at.getTime())));
	const { backlog, finished } = tallyOf(known);
	const since = doneSince.getTime();
	// As time goes by done cards leave, those done the longest ago first: so many are left.
	const done = finished.length - bisectLeft(finished, since);
	const cards = listOf(
		known,
		person.id,
		`board ${done}`,
		(card) => card.column !== null && (card.clock !== 'done' || Date.parse(card.finished!) >= since),
	);
	return {
		seq: known.seq,
		cards,
		expectation: expectationOf(
			took.flatMap(([days, n]) => new Array<number>(n).fill(days)),
			percentile,
		),
		doneSince: doneSince.toISOString(),
		backlog,
	};
}
