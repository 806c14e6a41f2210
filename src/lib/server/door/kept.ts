import { isDeepStrictEqual } from 'node:util';
import pg from 'pg';
import type { Tx } from '../database.ts';
import { Problem } from '../problem.ts';

/** What a command may change beside cards: the key of each table, and what its rows are called in a sentence. */
const TABLES = {
	attachment: { key: ['id'], called: 'A file of the card' },
	absence: { key: ['id'], called: 'This absence' },
	board: { key: ['id'], called: 'What is set of this board' },
	booking: { key: ['id'], called: 'What somebody is put down for' },
	board_person: { key: ['board_id', 'person_id'], called: 'Who may see this board' },
	board_column: { key: ['id'], called: 'This column' },
	board_share: { key: ['team_id', 'person_id', 'from_day'], called: 'These shares' },
	card_type: { key: ['id'], called: 'This type' },
	dismissal: { key: ['board_id', 'finding', 'day'], called: 'This finding' },
	face: { key: ['board_id', 'person_id'], called: 'What cards show to you' },
	field: { key: ['id'], called: 'This field' },
	holiday: { key: ['team_id', 'day'], called: 'This holiday' },
	hourly_rate: { key: ['team_id', 'person_id', 'from_day'], called: 'This rate' },
	initiative: { key: ['id'], called: 'This initiative' },
	lens: { key: ['id'], called: 'This lens' },
	lane: { key: ['id'], called: 'This lane' },
	label: { key: ['id'], called: 'This label' },
	milestone: { key: ['id'], called: 'This milestone' },
	milestone_before: { key: ['id'], called: 'What comes before this milestone' },
	membership: { key: ['team_id', 'person_id'], called: 'What this person is in the team' },
	skill: { key: ['team_id', 'person_id', 'name'], called: 'What this person can do' },
	sprint: { key: ['id'], called: 'This sprint' },
	page: { key: ['id'], called: 'This page' },
	team: { key: ['id'], called: 'What is set of this team' },
	watch: { key: ['card_id', 'person_id'], called: 'Who watches this card' },
	week_note: { key: ['team_id', 'person_id', 'monday'], called: 'What is noted of this week' },
	timer: { key: ['person_id'], called: 'The timer' },
	working_week: { key: ['team_id', 'person_id', 'from_day'], called: 'This working week' },
} as const;
export type KeptTable = keyof typeof TABLES;

/** Numbers that every command on a board moves on: they are no setting, and are not put back. */
const COUNTERS = ['last_seq', 'last_number'];

type Row = Record<string, unknown>;
export type Where = Record<string, string | readonly string[]>;

/** The rows of a table that were kept for undo: as they were, and as the command left them. */
export interface Kept {
	table: KeptTable;
	where: Where;
	before: Row[];
	after: Row[];
}

const name = pg.escapeIdentifier;

async function rowsOf(tx: Tx, table: KeptTable, where: Where): Promise<Row[]> {
	const columns = Object.keys(where);
	const { rows } = await tx.query<{ row: Row }>(
		`select to_jsonb(t) - $1::text[] as row
		from ${name(table)} t
		where ${columns.map((column, i) => `t.${name(column)}::text = any($${i + 2}::text[])`).join(' and ')}
		order by ${TABLES[table].key.map((column) => `t.${name(column)}`).join(', ')}
		for update`,
		[COUNTERS, ...columns.map((column) => [where[column]].flat())],
	);
	return rows.map(({ row }) => row);
}

/** Keeps rows for undo. What a command changes beside cards it keeps first. */
export class Keeping {
	readonly #tx: Tx;
	readonly #kept: Omit<Kept, 'after'>[] = [];

	constructor(tx: Tx) {
		this.#tx = tx;
	}

	/** Keeps the rows that match, those too that do not exist yet; gives them as they stand. */
	async keep(table: KeptTable, where: Where): Promise<Row[]> {
		const known = this.#kept.find((one) => one.table === table && isDeepStrictEqual(one.where, where));
		if (known) return known.before;
		const before = await rowsOf(this.#tx, table, where);
		this.#kept.push({ table, where, before });
		return before;
	}

	/** All that was kept and has changed, with what became of it. */
	async changes(): Promise<Kept[]> {
		const changed: Kept[] = [];
		for (const one of this.#kept) {
			const after = await rowsOf(this.#tx, one.table, one.where);
			if (!isDeepStrictEqual(one.before, after)) changed.push({ ...one, after });
		}
		return changed;
	}
}

/**
 * Puts rows back as they were kept.
 * @throws Problem when somebody changed them again meanwhile
 */
export async function putKeptBack(tx: Tx, kept: readonly Kept[]): Promise<void> {
	for (const { table, where, before, after } of kept) {
		const { key, called } = TABLES[table];
		if (!isDeepStrictEqual(await rowsOf(tx, table, where), after))
			throw new Problem(
				409,
				'undo.changed',
				`${called} ${table === 'board_share' ? 'have' : 'has'} changed since, so this can no longer be taken back.`,
			);
		const same = key.map((column) => `t.${name(column)} = o.${name(column)}`).join(' and ');
		const from = `jsonb_populate_recordset(null::${name(table)}, $1) o`;
		const is = (row: Row) => (other: Row) => key.every((column) => row[column] === other[column]);
		const came = after.filter((row) => !before.some(is(row)));
		const went = before.filter((row) => !after.some(is(row)));
		const stayed = before.filter((row) => after.some(is(row)));
		if (came.length)
			await tx.query(`delete from ${name(table)} t using ${from} where ${same}`, [JSON.stringify(came)]);
		if (stayed.length) {
			// Whoever looked at the row meanwhile looked at something else: its version goes on.
			const columns = Object.keys(stayed[0]!).filter(
				(column) => !(key as readonly string[]).includes(column),
			);
			const set = columns.map((column) =>
				column === 'version' ? 'version = t.version + 1' : `${name(column)} = o.${name(column)}`,
			);
			if (set.length)
				await tx.query(`update ${name(table)} t set ${set.join(', ')} from ${from} where ${same}`, [
					JSON.stringify(stayed),
				]);
		}
		if (went.length)
			await tx.query(`insert into ${name(table)} select o.* from ${from}`, [JSON.stringify(went)]);
	}
}
