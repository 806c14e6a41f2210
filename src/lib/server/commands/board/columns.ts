import { lifetimes } from '../../../../core/flow/lifetime.ts';
import type { ColumnKind, Layout } from '../../../../core/flow/layout.ts';
import { Problem } from '../../problem.ts';
import { boardHistory } from '../../questions/history.ts';
import type { BoardContext } from '../../door/contexts.ts';

/** A column's row as this goes by it, those that were taken away among them. */
export interface ColumnRow {
	id: string;
	name: string;
	kind: ColumnKind;
	position: number;
	commitment: boolean;
	retired: boolean;
	hidden: boolean;
	was: string[];
	version: number;
}

/**
 * All columns that a board ever had, in their order; kept for undo.
 * @param only the one that is about to change, where the others do not
 */
export async function allColumns(context: BoardContext, only?: string): Promise<ColumnRow[]> {
	await context.keep('board_column', only ? { id: only } : { board_id: context.board.id });
	return columnsNow(context);
}

/** All columns that a board ever had, in their order. */
export async function columnsNow(context: BoardContext): Promise<ColumnRow[]> {
	const { rows } = await context.tx.query<ColumnRow>(
		`select k.id, k.name, k.kind, k.position, k.commitment, k.retired_at is not null as retired, k.hidden, k.version,
			array(select n.name from column_name n where n.column_id = k.id and n.name <> k.name) as was
		from board_column k
		where k.board_id = $1
		order by k.position`,
		[context.board.id],
	);
	return rows;
}

/**
 * A column that stands, as the sender saw it.
 * @throws Problem 409 when it was changed since
 */
export function seenColumn(columns: readonly ColumnRow[], id: string, version: number): ColumnRow {
	const column = columns.find((known) => known.id === id && !known.retired);
	if (!column) throw new Problem(422, 'column.unknown', 'This board has no such column.', 'column');
	if (column.version === version) return column;
	throw new Problem(
		409,
		'column.changed',
		`${column.name} was changed after you last saw it. Look at it as it stands now and try again.`,
		'version',
	);
}

/** Refuses a name that a column of the board has or had: the history tells of columns by their names. */
export function refuseName(columns: readonly ColumnRow[], name: string, but?: string): void {
	const same = (one: string) => one.toLowerCase() === name.toLowerCase();
	const other = columns.find((column) => column.id !== but && [column.name, ...column.was].some(same));
	if (!other) return;
	const how = other.retired
		? ', which was taken away'
		: same(other.name)
			? ''
			: `, which is called ${other.name} now`;
	throw new Problem(
		409,
		'column.name_taken',
		`This board has or had a column called ${name}${how}. The history tells of columns by their names: choose another one.`,
		'name',
	);
}

/**
 * Refuses what would leave the board without a place to finish in or one to work in.
 * @param columns as they would be
 */
export function refuseWithout(columns: readonly ColumnRow[], field: string): void {
	const live = columns.filter((column) => !column.retired);
	if (!live.some((column) => column.kind === 'done' && !column.hidden))
		throw new Problem(
			409,
			'column.last_done',
			'A board needs a column in which cards are done, in sight of everyone.',
			field,
		);
	if (!live.some((column) => column.kind !== 'done'))
		throw new Problem(
			409,
			'column.last_open',
			'A board needs a column in which cards are not done yet.',
			field,
		);
}

/** Refuses to give or take *done*, where a card has ever stood: no closed sprint's account may change by it. */
export async function refuseDone(context: BoardContext, column: ColumnRow, kind: ColumnKind): Promise<void> {
	if (column.kind === kind || (column.kind !== 'done' && kind !== 'done')) return;
	const { rowCount } = await context.tx.query('select from stay where column_id = $1 limit 1', [column.id]);
	if (rowCount)
		throw new Problem(
			409,
			'column.done_stood',
			`Cards have stood in ${column.name}: whether they were done there is part of closed sprints and cannot change. Add another column instead.`,
			'kind',
		);
}

/** Gives columns their places in the order given, from 0. */
export async function writeOrder(context: BoardContext, ids: readonly string[]): Promise<void> {
	await context.tx.query(
		`update board_column k set position = o.n - 1, version = version + (k.position <> o.n - 1)::integer
		from unnest($1::uuid[]) with ordinality as o(id, n)
		where k.id = o.id`,
		[ids],
	);
}

const layoutOf = (columns: readonly ColumnRow[]): Layout => ({
	columns: columns.map(({ name, kind, was, retired }) => ({ name, kind, was, retired })),
	commitment: Math.max(
		0,
		columns.findIndex((column) => column.commitment),
	),
});

/** What a clock goes by of a column: a card in it is done, has started, or neither. */
const clocks = (columns: readonly ColumnRow[]): string => {
	const { commitment } = layoutOf(columns);
	return JSON.stringify(
		columns
			.map(({ id, kind }, i) => [id, kind === 'done' ? 'done' : i >= commitment ? 'started' : ''])
			.sort((a, b) => (a[0]! < b[0]! ? -1 : 1)),
	);
};

/**
 * Reads every card's clock anew where a change of columns has changed what clocks go by: figures read the whole past with the
 * columns' present kinds, order and clock.
 * @param before the columns as they were
 * @returns how many cards have another clock
 */
export async function reclock(context: BoardContext, before: readonly ColumnRow[]): Promise<number> {
	const { tx, board, at } = context;
	const columns = await columnsNow(context);
	const known = new Set(before.map(({ id }) => id));
	// A new column has no past.
	if (
		clocks(before.filter(({ id }) => columns.some((one) => one.id === id))) ===
		clocks(columns.filter(({ id }) => known.has(id)))
	)
		return 0;
	const layout = layoutOf(columns);
	const events = await boardHistory({ id: board.id, key: board.key, seq: board.lastSeq });
	const lives = lifetimes(layout, events, at.getTime());
	const date = (instant: number | null) => (instant === null ? null : new Date(instant));
	const { rowCount } = await tx.query(
		`update card c set clock = n.clock, started_at = n.started, finished_at = n.finished, version = version + 1
		from jsonb_to_recordset($2) as n(number integer, clock text, started timestamptz, finished timestamptz)
		where c.board_id = $1 and c.number = n.number
			and (c.clock, c.started_at, c.finished_at) is distinct from (n.clock, n.started, n.finished)`,
		[
			board.id,
			JSON.stringify(
				lives.map((life) => ({
					number: Number(life.card.slice(board.key.length + 1)),
					clock: life.state,
					started: date(life.started),
					finished: date(life.finished),
				})),
			),
		],
	);
	return rowCount ?? 0;
}
