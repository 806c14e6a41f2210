import type pg from 'pg';
import { generateNKeysBetween } from 'fractional-indexing';

/**
 * A board with many open cards: most of them in one queue, so that one list is long. Made beside the demo, for its team.
 * @returns the slug of the board
 */
export async function largeBoard(db: pg.Pool, cards = 2000): Promise<string> {
	const { rows } = await db.query<{ id: string }>(
		`insert into board (team_id, name, slug, key, position, last_number) select id, 'Large', 'large', 'LARGE', 9, $1 from team limit 1 returning id`,
		[cards],
	);
	const board = rows[0]!.id;
	await db.query(
		`insert into board_column (board_id, name, kind, position, commitment)
		values ($1, 'Ready', 'queue', 0, false), ($1, 'Making', 'work', 1, true), ($1, 'Check', 'work', 2, false), ($1, 'Done', 'done', 3, false)`,
		[board],
	);
	const ranks = generateNKeysBetween(null, null, cards);
	await db.query(
		`insert into card (board_id, number, title, column_id, rank, size, "left", clock, entered_at, started_at, created_at)
		select $1, i, 'Card number ' || i || case when i % 3 = 0 then ' with a title that takes up two lines of a card' else '' end,
			k.id, r.rank, 5, 5, case when k.name = 'Ready' then 'none' else 'running' end, '2026-11-20T09:00Z',
			case when k.name = 'Ready' then null else timestamptz '2026-11-20T09:00Z' end, '2026-11-01T09:00Z'
		from generate_series(1, $2::int) i
		join unnest($3::text[]) with ordinality r(rank, n) on r.n = i
		join board_column k on k.board_id = $1 and k.name = case when i <= $2::int * 0.75 then 'Ready' when i <= $2::int * 0.9 then 'Making' else 'Check' end`,
		[board, cards, ranks],
	);
	await db.query(
		`insert into stay (card_id, column_id, entered_at) select id, column_id, entered_at from card where board_id = $1`,
		[board],
	);
	await db.query('analyze');
	return 'large';
}
