import { generateKeyBetween } from 'fractional-indexing';
import { Problem } from '../problem.ts';
import { boardCommand } from './command.ts';
import type { BoardContext, CardRow } from './context.ts';
import { Id } from './fields.ts';

export class UndoCommand {
	/** The id of the command to take back. */
	@Id('command')
	of!: string;
}

type Before = CardRow & { owners: string[] };

export const undoCommand = boardCommand({
	name: 'UndoCommand',
	summary: 'Takes back a command of one’s own, as long as its cards have not changed since.',
	input: UndoCommand,
	undoable: false,
	async run(context, input) {
		const { rows } = await context.tx.query<{
			person_id: string;
			undone_by: string | null;
			undoable: boolean;
			cards: { id: string; before: Before | null; version_after: number; version: number; number: number }[];
		}>(
			`select k.person_id, k.undone_by, coalesce((k.answer ->> 'undoable')::boolean, false) as undoable,
				(select coalesce(json_agg(json_build_object('id', c.id, 'before', t.before, 'version_after', t.version_after,
					'version', c.version, 'number', c.number)), '[]')
				from command_card t join card c on c.id = t.card_id where t.command_id = k.id) as cards
			from command k
			where k.id = $1
			for update of k`,
			[input.of],
		);
		const found = rows[0]!;
		if (found.person_id !== context.person.id)
			throw new Problem(403, 'undo.not_yours', 'Only the person who did this can take it back.');
		if (found.undone_by) throw new Problem(409, 'undo.already', 'This was taken back already.');
		if (!found.undoable) throw new Problem(409, 'undo.impossible', 'This cannot be taken back.');
		for (const card of found.cards)
			if (card.version !== card.version_after)
				throw new Problem(
					409,
					'undo.changed',
					`Card ${card.number} has changed since, so this can no longer be taken back.`,
				);
		for (const { id, before } of found.cards) {
			const card = await context.card(id);
			if (before) await putBack(context, card, before, input.of);
			else await takeAway(context, card);
		}
		await context.tx.query('update command set undone_by = $2 where id = $1', [input.of, context.commandId]);
	},
});

/** A card that the command made is archived: what was written stays findable. */
async function takeAway(context: BoardContext, card: CardRow): Promise<void> {
	const clock = card.clock === 'done' ? 'done' : 'dropped';
	await context.tx.query(
		`update card set archived_at = $2, archived_reason = 'Taken back', clock = $3, sprint_id = null, version = version + 1 where id = $1`,
		[card.id, context.at, clock],
	);
	context.note(card.id, 'archived', 'Taken back');
}

/** A card that the command changed is put back as it was; the command's events count no more, so its spells are as before too. */
async function putBack(context: BoardContext, card: CardRow, before: Before, of: string): Promise<void> {
	const { tx, at, commandId } = context;
	const rank = before.archived_at ? before.rank : await freeRank(context, before);
	await tx.query(
		`update card set title = $2, description = $3, column_id = $4, rank = $5, class = $6, size = $7, "left" = $8, due = $9,
			sprint_id = $10, unplanned = $11, clock = $12, entered_at = $13, started_at = $14, finished_at = $15, blocked_since = $16,
			blocked_reason = $17, let_through = $18, archived_at = $19, archived_reason = $20, version = version + 1
		where id = $1`,
		[
			...[
				card.id,
				before.title,
				before.description,
				before.column_id,
				rank,
				before.class,
				before.size,
				before.left,
				before.due,
			],
			...[
				before.sprint_id,
				before.unplanned,
				before.clock,
				before.entered_at,
				before.started_at,
				before.finished_at,
			],
			...[
				before.blocked_since,
				before.blocked_reason,
				before.let_through,
				before.archived_at,
				before.archived_reason,
			],
		],
	);
	await tx.query(
		`with voided as (
			insert into event_void (board_id, seq, command_id) select board_id, seq, $2 from event where command_id = $3 and card_id = $1
		), owners as (
			delete from card_owner where card_id = $1 and person_id <> all($4::uuid[])
		)
		insert into card_owner select $1, unnest($4::uuid[]) on conflict do nothing`,
		[card.id, commandId, of, before.owners],
	);
	if (before.column_id !== card.column_id) {
		await tx.query('delete from stay where card_id = $1 and left_at is null', [card.id]);
		await tx.query(
			`update stay set left_at = null
			where ctid = (select ctid from stay where card_id = $1 order by left_at desc, entered_at desc limit 1)`,
			[card.id],
		);
	}
	if (!before.blocked_since && card.blocked_since)
		await tx.query('delete from blockage where card_id = $1 and until_at is null', [card.id]);
	if (before.blocked_since && !card.blocked_since)
		await tx.query(
			`update blockage set until_at = null
			where ctid = (select ctid from blockage where card_id = $1 order by until_at desc, from_at desc limit 1)`,
			[card.id],
		);
	context.note(card.id, 'undone', '', null, { command: of, at });
}

/** The card's old rank, or the next free one after it where another card took its place meanwhile. */
async function freeRank(context: BoardContext, before: Before): Promise<string> {
	const { rows } = await context.tx.query<{ taken: boolean; next: string | null }>(
		`select bool_or(rank = $3) as taken, min(rank) filter (where rank > $3) as next
		from card
		where board_id = $1 and column_id is not distinct from $2 and archived_at is null and id <> $4`,
		[context.board.id, before.column_id, before.rank, before.id],
	);
	return rows[0]!.taken ? generateKeyBetween(before.rank, rows[0]!.next) : before.rank;
}
