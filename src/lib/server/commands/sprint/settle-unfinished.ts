import { generateNKeysBetween } from 'fractional-indexing';
import { REASONS } from '../../../../core/events/reasons.ts';
import { archive } from '../../../../core/flow/clock.ts';
import type { BoardContext } from '../../door/contexts.ts';
import { clockIn, clockOf, placeBounds, writePlaces } from '../card/place.ts';
import type { Decided } from './decided.ts';

/** Carried cards keep their column; only what is left of them comes into the next sprint. */
export async function carry(
	context: BoardContext,
	decided: readonly Decided[],
	next: { id: string; number: number } | null,
): Promise<void> {
	if (!next || !decided.length) return;
	await context.tx.query(
		'update card set sprint_id = $2, unplanned = false, version = version + 1 where id = any($1::uuid[])',
		[decided.map(({ row }) => row.id), next.id],
	);
	for (const { row } of decided) context.note(row.id, 'sprint', String(next.number));
}

/** What goes back stands on top of the backlog, in the order in which it stood. */
export async function putBack(context: BoardContext, decided: readonly Decided[]): Promise<void> {
	if (!decided.length) return;
	const moving = decided.filter(({ row }) => row.column_id !== null);
	const { above, under } = await placeBounds(context, null, null);
	const ranks = generateNKeysBetween(above, under, moving.length);
	await writePlaces(
		context,
		moving.map(({ row }, i) => ({ row, column: null, rank: ranks[i]!, clock: clockIn(context, row, null) })),
	);
	await context.tx.query('update card set sprint_id = null, unplanned = false where id = any($1::uuid[])', [
		decided.map(({ row }) => row.id),
	]);
	await context.changedNow(decided.filter(({ row }) => row.column_id === null).map(({ row }) => row));
	for (const { row } of decided) {
		context.note(row.id, 'sprint', '');
		if (row.column_id !== null)
			context.note(row.id, 'column', '', { column: context.placeName(row.column_id) });
	}
}

/** What is dropped goes to the archive, with the reason for which it was not finished. */
export async function drop(context: BoardContext, decided: readonly Decided[]): Promise<void> {
	if (!decided.length) return;
	const why = ({ reason, words }: Decided) => (reason === 'other' ? words!.trim() : REASONS[reason]);
	await context.tx.query(
		`update card c
		set archived_at = $2, archived_reason = d.reason, clock = d.clock, sprint_id = null, unplanned = false, version = version + 1
		from jsonb_to_recordset($1) as d(id uuid, reason text, clock text)
		where c.id = d.id`,
		[
			JSON.stringify(
				decided.map((one) => ({
					id: one.row.id,
					reason: why(one),
					clock: archive(clockOf(context, one.row)).state,
				})),
			),
			context.at,
		],
	);
	for (const one of decided) context.note(one.row.id, 'archived', why(one));
}
