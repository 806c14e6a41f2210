import { Problem } from '../problem.ts';
import { boardCommand, teamCommand } from './command.ts';
import { RANK, type BoardContext, type CardRow, type PersonContext, type Role } from './contexts.ts';
import { Id, Line, Optional } from './fields.ts';
import { putKeptBack, type Kept } from './kept.ts';
import { columnsNow, reclock } from '../commands/board/columns.ts';
import { group, rollup } from 'd3-array';
import { checkHands } from '../commands/card/hands.ts';
import { checkLanes } from '../commands/card/lanes.ts';
import { checkLimit } from '../commands/card/limits.ts';
import { freeRanks } from '../commands/card/place.ts';
import { readBoard } from './lock.ts';

export class UndoCommand {
	/** The id of the command to take back. */
	@Id('command')
	of!: string;

	/** Why cards that come back into a full column are let through. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

interface Undone {
	kept: Kept[] | null;
	cards: {
		id: string;
		board: string;
		before: CardRow | null;
		version_after: number;
		version: number;
		number: number;
	}[];
}

export const undoCommand = boardCommand({
	name: 'UndoCommand',
	summary: 'Takes back a command of one’s own, as long as what it changed has not changed since.',
	input: UndoCommand,
	role: 'viewer',
	undoable: false,
	onPutAway: true,
	async run(context, input) {
		const { kept, cards } = await toUndo(context, input.of, context.role);
		mustBeUnchanged(cards);
		if (kept) {
			const sprints = kept.filter((one) => one.table === 'sprint');
			await sprintsMayGoBack(
				context,
				sprints,
				cards.map((card) => card.id),
			);
			const columns = kept.some((one) => one.table === 'board_column') ? await columnsNow(context) : null;
			await putKeptBack(context.tx, kept);
			if (columns) {
				// Cards come back to columns that stand again, and every clock is as the columns say now.
				const { board } = (await readBoard(context.tx, context.person, context.board.id))!;
				Object.assign(context.board, { columns: board.columns, commitment: board.commitment });
				await reclock(context, columns);
			}
			for (const { after } of sprints)
				for (const sprint of after) context.note(null, 'undone', String(sprint.number));
			if (!sprints.length && !cards.length)
				context.note(null, 'setting-undone', '', null, { command: input.of });
		}
		// What happened on a page counts no more either.
		await context.tx.query(
			`insert into event_void (board_id, seq, command_id)
			select board_id, seq, $2 from event where command_id = $1 and page_id is not null`,
			[input.of, context.commandId],
		);
		const rows = await context.cards(cards.map(({ id }) => ({ card: id })));
		const befores = cards.flatMap(({ before }, i) => (before ? [{ before, row: rows[i]! }] : []));
		await putBack(context, befores, input);
		await takeAway(
			context,
			rows.filter((_, i) => !cards[i]!.before),
		);
		await context.tx.query(
			'update time_entry set withdrawn_at = $2, version = version + 1 where command_id = $1 and withdrawn_at is null',
			[input.of, context.at],
		);
	},
});

/** The same for a command about a team: the rows that it changed are put back. */
export const undoForTeam = teamCommand({
	name: 'UndoCommand',
	summary: undoCommand.summary,
	input: UndoCommand,
	undoable: false,
	async run(context, input) {
		const { kept, cards } = await toUndo(context, input.of, context.role);
		mustBeUnchanged(cards);
		await putKeptBack(context.tx, kept ?? []);
		// What it did to cards is taken back board by board.
		for (const [board, there] of group(cards, ({ board }) => board)) {
			const on = await context.onBoard(board);
			const now = await on.cards(there.map(({ id }) => ({ card: id })));
			await putBack(
				on,
				there.flatMap(({ before }, i) => (before ? [{ before, row: now[i]! }] : [])),
				input,
			);
		}
		const { rows } = await context.tx.query<{ value: string }>(
			`select value from event where board_id = $1 and command_id = $2 order by seq`,
			[context.boards[0]?.id, input.of],
		);
		for (const { value } of rows) context.note(`Taken back: ${value}`);
	},
});

/** Refuses to take back what has changed again since. */
function mustBeUnchanged(cards: Undone['cards']): void {
	for (const card of cards)
		if (card.version !== card.version_after)
			throw new Problem(
				409,
				'undo.changed',
				`Card ${card.number} has changed since, so this can no longer be taken back.`,
			);
}

/** What a command of this person changed; it is marked as taken back. */
async function toUndo(context: PersonContext, of: string, role: Role): Promise<Undone> {
	const { rows } = await context.tx.query<
		Undone & { person_id: string; undone_by: string | null; undoable: boolean; role: Role | null }
	>(
		`select k.person_id, k.undone_by, coalesce((k.answer ->> 'undoable')::boolean, false) as undoable, k.kept, k.role,
			(select coalesce(json_agg(json_build_object('id', c.id, 'board', c.board_id, 'before', t.before, 'version_after', t.version_after,
				'version', c.version, 'number', c.number) order by c.number), '[]')
			from command_card t join card c on c.id = t.card_id where t.command_id = k.id) as cards
		from command k
		where k.id = $1
		for update of k`,
		[of],
	);
	const found = rows[0]!;
	if (found.person_id !== context.person.id)
		throw new Problem(403, 'undo.not_yours', 'Only the person who did this can take it back.');
	// Whoever may not do it any more may not take it back either.
	if (RANK[role] < RANK[found.role ?? 'viewer'])
		throw new Problem(403, 'right.missing', 'Taking this back asks for the role that doing it asked for.');
	if (found.undone_by) throw new Problem(409, 'undo.already', 'This was taken back already.');
	if (!found.undoable) throw new Problem(409, 'undo.impossible', 'This cannot be taken back.');
	await context.tx.query('update command set undone_by = $2 where id = $1', [of, context.commandId]);
	return found;
}

/** Refuses when something has happened in or after a sprint that the command changed. */
async function sprintsMayGoBack(
	context: BoardContext,
	sprints: readonly Kept[],
	cards: string[],
): Promise<void> {
	const running = context.board.runningSprint;
	const changed = sprints.flatMap(({ before, after }) =>
		after.flatMap((now) => {
			const old = before.find((row) => row.id === now.id);
			return old ? [{ old, now }] : [];
		}),
	);
	for (const { old, now } of changed) {
		if (now.closed_at && !old.closed_at && running)
			throw new Problem(
				409,
				'undo.next_started',
				`Sprint ${running.number} has started since, so the closing of sprint ${String(now.number)} can no longer be taken back.`,
			);
		if (old.started_at || !now.started_at) continue;
		const { rows } = await context.tx.query<{ number: number }>(
			'select number from card where sprint_id = $1 and id <> all($2::uuid[]) order by number limit 1',
			[now.id, cards],
		);
		if (rows[0])
			throw new Problem(
				409,
				'undo.changed',
				`Card ${rows[0].number} has come into sprint ${String(now.number)} since, so its start can no longer be taken back.`,
			);
	}
}

/** Cards that the command made are archived: what was written stays findable. */
async function takeAway(context: BoardContext, cards: readonly CardRow[]): Promise<void> {
	if (!cards.length) return;
	await context.tx.query(
		`update card
		set archived_at = $2, archived_reason = 'Taken back', clock = case when clock = 'done' then clock else 'dropped' end,
			sprint_id = null, version = version + 1
		where id = any($1::uuid[])`,
		[cards.map((card) => card.id), context.at],
	);
	for (const card of cards) context.note(card.id, 'archived', 'Taken back');
}

/** What a card's row keeps through an undo; all its other columns are put back. */
const STAYS_AS_IT_IS = ['id', 'board_id', 'number', 'created_at', 'version'];
/** What is read with a card and is no column of it. */
const BESIDE = ['owners', 'labels', 'links', 'children'];

interface Back {
	before: CardRow;
	row: CardRow;
}

/** Cards that the command changed are put back as they were; its events count no more, so their spells are as before too. */
async function putBack(context: BoardContext, cards: readonly Back[], input: UndoCommand): Promise<void> {
	if (!cards.length) return;
	const { tx, commandId } = context;
	const through = await limitsAllow(context, cards, input.reason);
	// Their places are freed first, so that cards which changed places with each other find theirs.
	await tx.query(`update card set rank = '~' || id where id = any($1::uuid[])`, [
		cards.map(({ row }) => row.id),
	]);
	const ranks = await freeRanks(
		context,
		cards.map(({ before }) => before),
	);
	const columns = Object.keys(cards[0]!.before).filter(
		(column) => !STAYS_AS_IT_IS.includes(column) && !BESIDE.includes(column),
	);
	const olds = cards.map(({ before }, i) => ({
		...before,
		rank: ranks[i],
		let_through: through.get(before.id) ?? before.let_through,
	}));
	await tx.query(
		`update card c
		set version = c.version + 1, ${columns.map((column) => `"${column}" = o."${column}"`).join(', ')}
		from jsonb_populate_recordset(null::card, $1) o
		where o.id = c.id`,
		[JSON.stringify(olds)],
	);
	await tx.query(
		`with old as materialized (
			select * from jsonb_to_recordset($1) as o(id uuid, owners uuid[], labels uuid[], links jsonb)
		), owner as (
			select id, unnest(owners) as person from old
		), labelled as (
			select id, unnest(labels) as label from old
		), link as (
			select o.id, l."to", l.kind from old o, jsonb_to_recordset(o.links) l("to" uuid, kind text)
		), voided as (
			insert into event_void (board_id, seq, command_id)
			select e.board_id, e.seq, $2 from event e join old o on o.id = e.card_id where e.command_id = $3
			on conflict do nothing
		), less_owners as (
			delete from card_owner k using old o where k.card_id = o.id and k.person_id <> all(o.owners)
		), less_labels as (
			delete from card_label k using old o where k.card_id = o.id and k.label_id <> all(o.labels)
		), less_links as (
			delete from card_link k using old o
			where k.from_id = o.id and not exists (select from link l where l.id = o.id and l."to" = k.to_id and l.kind = k.kind)
		), more_labels as (
			insert into card_label select id, label from labelled on conflict do nothing
		), more_links as (
			insert into card_link select id, "to", kind from link on conflict do nothing
		)
		insert into card_owner select id, person from owner on conflict do nothing`,
		[JSON.stringify(olds), commandId, input.of],
	);
	await spellsBack(context, cards);
	for (const { row } of cards) context.note(row.id, 'undone', '', null, { command: input.of });
}

/** Cards that come back into a column ask its limit as any others do; those that were let through before still are. */
async function limitsAllow(
	context: BoardContext,
	cards: readonly Back[],
	reason: string | undefined,
): Promise<Map<string, string>> {
	const through = new Map<string, string>();
	for (const column of context.board.columns) {
		const there = cards.filter(({ before }) => before.column_id === column.id && !before.archived_at);
		const coming = there.filter(({ row }) => row.column_id !== column.id || row.archived_at);
		const asking = coming.filter(({ before }) => !before.let_through);
		if (column.limit === null || !asking.length) continue;
		const { rows } = await context.tx.query<{ n: number }>(
			'select count(*) as n from card where column_id = $1 and archived_at is null and id <> all($2::uuid[])',
			[column.id, cards.map(({ row }) => row.id)],
		);
		const standing = rows[0]!.n + there.length - asking.length;
		const let_in = checkLimit(column, standing, asking.length, reason).through;
		if (let_in) for (const { row } of asking) through.set(row.id, let_in);
	}
	// So do those that come back into a lane.
	const asking = cards.filter(({ before }) => !before.let_through && !before.archived_at);
	const lanes = await checkLanes(
		context,
		asking.map(({ before, row }) => ({ before: row, after: before })),
		reason,
	);
	if (lanes.through) for (const { row } of asking) through.set(row.id, lanes.through);
	// And those that are in the hands of people again.
	const again = asking.filter(
		({ before, row }) => before.clock === 'running' && (row.clock !== 'running' || row.archived_at),
	);
	const hands = await checkHands(
		context,
		rollup(
			again.flatMap(({ before }) => before.owners),
			(all) => all.length,
			(owner) => owner,
		),
		again.map(({ row }) => row.id),
		reason,
	);
	if (hands.through) for (const { row } of again) through.set(row.id, hands.through);
	return through;
}

/** Stays and blockages as they were: those that the command began go, those that it ended are open again. */
async function spellsBack(context: BoardContext, cards: readonly Back[]): Promise<void> {
	const { tx } = context;
	const of = (which: (card: Back) => unknown) => cards.filter(which).map(({ row }) => row.id);
	const moved = of(({ before, row }) => before.column_id !== row.column_id);
	if (moved.length) {
		await tx.query('delete from stay where card_id = any($1::uuid[]) and left_at is null', [moved]);
		await tx.query(
			`update stay set left_at = null
			where ctid in (select distinct on (card_id) ctid from stay where card_id = any($1::uuid[])
				order by card_id, left_at desc, entered_at desc)`,
			[moved],
		);
	}
	const blocked = of(({ before, row }) => !before.blocked_since && row.blocked_since);
	if (blocked.length)
		await tx.query('delete from blockage where card_id = any($1::uuid[]) and until_at is null', [blocked]);
	const unblocked = of(({ before, row }) => before.blocked_since && !row.blocked_since);
	if (unblocked.length)
		await tx.query(
			`update blockage set until_at = null
			where ctid in (select distinct on (card_id) ctid from blockage where card_id = any($1::uuid[])
				order by card_id, until_at desc, from_at desc)`,
			[unblocked],
		);
	const waiting = cards.filter(
		({ before, row }) => before.blocked_since && before.waiting_for !== row.waiting_for,
	);
	if (waiting.length)
		await tx.query(
			`update blockage b set waiting_for = w.words
			from jsonb_to_recordset($1) as w(id uuid, words text)
			where b.card_id = w.id and b.until_at is null`,
			[JSON.stringify(waiting.map(({ row, before }) => ({ id: row.id, words: before.waiting_for })))],
		);
}
