import { generateNKeysBetween } from 'fractional-indexing';
import type { BoardContext } from '../../door/contexts.ts';
import { clockIn, placeBounds, writePlaces } from '../card/place.ts';
import { splitOffParts } from '../card/split-off.ts';
import type { Decided } from './decided.ts';

/** What was done of a split card is finished; what is left of it goes to a new card, onto the next sprint's list or to the backlog. */
export async function split(
	context: BoardContext,
	decided: readonly Decided[],
	next: { id: string; number: number } | null,
): Promise<void> {
	if (!decided.length) return;
	const { tx, board } = context;
	await splitOffParts(
		context,
		decided.map(({ row, title, lines = [], to }) => ({
			...{ row, title: title!, amount: row.left, lines },
			sprint: to === 'backlog' ? null : next,
		})),
		null,
	);
	const done = board.columns.find((column) => column.kind === 'done')!;
	const { above, under } = await placeBounds(context, done.id, undefined);
	const ranks = generateNKeysBetween(above, under, decided.length);
	await writePlaces(
		context,
		decided.map(({ row }, i) => ({
			...{ row, column: done.id, rank: ranks[i]! },
			clock: clockIn(context, row, done.id),
		})),
	);
	await tx.query(
		`update card c set title = coalesce(p.title, c.title), sprint_id = null, unplanned = false
		from jsonb_to_recordset($1) as p(id uuid, title text)
		where c.id = p.id`,
		[JSON.stringify(decided.map(({ row, finished }) => ({ id: row.id, title: finished })))],
	);
	for (const { row, finished } of decided) {
		if (finished && finished !== row.title) context.note(row.id, 'renamed', finished, { title: row.title });
		context.note(row.id, 'column', done.name, { column: context.placeName(row.column_id) });
	}
}
