import { generateKeyBetween } from 'fractional-indexing';
import { Problem } from '../problem.ts';
import { boardCommand } from './command.ts';
import type { BoardContext, CardRow, SprintRow } from './context.ts';
import { Id } from './fields.ts';

export class UndoCommand {
	/** The id of the command to take back. */
	@Id('command')
	of!: string;
}

export const undoCommand = boardCommand({
	name: 'UndoCommand',
	summary: 'Takes back a command of one’s own, as long as its cards have not changed since.',
	input: UndoCommand,
	role: 'viewer',
	undoable: false,
	async run(context, input) {
		const { rows } = await context.tx.query<{
			person_id: string;
			undone_by: string | null;
			undoable: boolean;
			sprints: SprintRow[] | null;
			cards: { id: string; before: CardRow | null; version_after: number; version: number; number: number }[];
		}>(
			`select k.person_id, k.undone_by, coalesce((k.answer ->> 'undoable')::boolean, false) as undoable, k.sprints,
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
		await putSprintsBack(
			context,
			found.sprints ?? [],
			found.cards.map((card) => card.id),
		);
		// Their places are freed first, so that cards which changed places with each other find theirs.
		await context.tx.query(`update card set rank = '~' || id where id = any($1::uuid[])`, [
			found.cards.filter((card) => card.before).map((card) => card.id),
		]);
		for (const { id, before } of found.cards) {
			const card = await context.card(id);
			if (before) await putBack(context, card, before, input.of);
			else await takeAway(context, card);
		}
		await context.tx.query(
			'update time_entry set withdrawn_at = $2, version = version + 1 where command_id = $1 and withdrawn_at is null',
			[input.of, context.at],
		);
		await context.tx.query('update command set undone_by = $2 where id = $1', [input.of, context.commandId]);
	},
});

/** Sprints that the command changed are put back, unless they were changed again or something has happened in them since. */
async function putSprintsBack(context: BoardContext, before: SprintRow[], cards: string[]): Promise<void> {
	if (!before.length) return;
	const now = await context.sprintRows();
	for (const old of before) {
		const sprint = now.find((known) => known.id === old.id)!;
		if (sprint.version !== old.version + 1)
			throw new Problem(
				409,
				'undo.changed',
				`Sprint ${sprint.number} has changed since, so this can no longer be taken back.`,
			);
		const running = now.find((known) => known.started_at && !known.closed_at);
		if (sprint.closed_at && !old.closed_at && running)
			throw new Problem(
				409,
				'undo.next_started',
				`Sprint ${running.number} has started since, so the closing of sprint ${sprint.number} can no longer be taken back.`,
			);
		if (!old.started_at && sprint.started_at) {
			const { rows } = await context.tx.query<{ number: number }>(
				'select number from card where sprint_id = $1 and id <> all($2::uuid[]) order by number limit 1',
				[sprint.id, cards],
			);
			if (rows[0])
				throw new Problem(
					409,
					'undo.changed',
					`Card ${rows[0].number} has come into sprint ${sprint.number} since, so its start can no longer be taken back.`,
				);
		}
		context.keepSprint(sprint);
	}
	await context.tx.query(
		`update sprint s
		set goal = o.goal, starts = o.starts, ends = o.ends, started_at = o.started_at, focus = o.focus, keep_back = o.keep_back,
			raw_hours = o.raw_hours, day_hours = o.day_hours, closed_at = o.closed_at, goal_met = o.goal_met,
			goal_words = coalesce(o.goal_words, ''), settled_by = o.settled_by, version = s.version + 1
		from jsonb_populate_recordset(null::sprint, $1) o
		where s.id = o.id`,
		[JSON.stringify(before)],
	);
	context.note(null, 'undone', before.map((sprint) => sprint.number).join(', '));
}

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
async function putBack(context: BoardContext, card: CardRow, before: CardRow, of: string): Promise<void> {
	const { tx, at, commandId } = context;
	const rank = before.archived_at ? before.rank : await freeRank(context, before);
	await tx.query(
		`update card set title = $2, description = $3, column_id = $4, rank = $5, class = $6, size = $7, "left" = $8, due = $9,
			sprint_id = $10, unplanned = $11, clock = $12, entered_at = $13, started_at = $14, finished_at = $15, blocked_since = $16,
			blocked_reason = $17, let_through = $18, archived_at = $19, archived_reason = $20, type = $21, start = $22,
			initiative_id = $23, parent_id = $24, ready = $25, checklist = $26, waiting_for = $27, version = version + 1
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
			...[
				before.type,
				before.start,
				before.initiative_id,
				before.parent_id,
				before.ready,
				JSON.stringify(before.checklist),
				before.waiting_for,
			],
		],
	);
	await tx.query(
		`with voided as (
			insert into event_void (board_id, seq, command_id) select board_id, seq, $2 from event where command_id = $3 and card_id = $1
		), owners as (
			delete from card_owner where card_id = $1 and person_id <> all($4::uuid[])
		), labels as (
			delete from card_label where card_id = $1 and label_id <> all($5::uuid[])
		), labelled as (
			insert into card_label select $1, unnest($5::uuid[]) on conflict do nothing
		), links as (
			delete from card_link k where from_id = $1
				and not exists (select from jsonb_to_recordset($6) l("to" uuid, kind text) where l."to" = k.to_id and l.kind = k.kind)
		), linked as (
			insert into card_link select $1, l."to", l.kind from jsonb_to_recordset($6) l("to" uuid, kind text) on conflict do nothing
		)
		insert into card_owner select $1, unnest($4::uuid[]) on conflict do nothing`,
		[card.id, commandId, of, before.owners, before.labels, JSON.stringify(before.links)],
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
	if (before.blocked_since && before.waiting_for !== card.waiting_for)
		await tx.query('update blockage set waiting_for = $2 where card_id = $1 and until_at is null', [
			card.id,
			before.waiting_for,
		]);
	context.note(card.id, 'undone', '', null, { command: of, at });
}

/** The card's old rank, or the next free one after it where another card took its place meanwhile. */
async function freeRank(context: BoardContext, before: CardRow): Promise<string> {
	const { rows } = await context.tx.query<{ taken: boolean; next: string | null }>(
		`select bool_or(rank = $3) as taken, min(rank) filter (where rank > $3) as next
		from card
		where board_id = $1 and column_id is not distinct from $2 and archived_at is null and id <> $4`,
		[context.board.id, before.column_id, before.rank, before.id],
	);
	return rows[0]!.taken ? generateKeyBetween(before.rank, rows[0]!.next) : before.rank;
}
