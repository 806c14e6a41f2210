import { randomUUID } from 'node:crypto';
import type pg from 'pg';
import { obey, type Answer } from '../../src/lib/server/door/door.ts';
import { Problem } from '../../src/lib/server/problem.ts';
import type { Person } from '../../src/lib/server/sign-in.ts';

export interface SmallBoard {
	team: string;
	id: string;
	slug: string;
	key: string;
	columns: Record<'Ready' | 'Making' | 'Check' | 'Done', string>;
	lead: Person;
	member: Person;
	viewer: Person;
	outsider: Person;
}

let boards = 0;

/** A board with a limit that holds (Making, 2) and one that advises (Check, 1), and people of every role. */
export async function smallBoard(
	db: pg.Pool,
	options: { sprint?: boolean; visibleTo?: string } = {},
): Promise<SmallBoard> {
	const n = ++boards;
	const key = `SM${n}`;
	const one = async <R extends pg.QueryResultRow>(text: string, values: unknown[]) =>
		(await db.query<R>(text, values)).rows[0]!;
	const team = await one<{ id: string }>(
		`insert into team (name, time_zone) values ($1, 'Europe/Lisbon') returning id`,
		[`Team ${n}`],
	);
	const board = await one<{ id: string }>(
		`insert into board (team_id, name, slug, key, visible_to, sprint_days) values ($1, $2, $3, $4, $5, $6) returning id`,
		[team.id, `Small ${n}`, `small-${n}`, key, options.visibleTo ?? 'team', options.sprint ? 14 : null],
	);
	const columns: Record<string, string> = {};
	for (const [position, [name, kind, limit, mode]] of (
		[
			['Ready', 'queue', null, 'advise'],
			['Making', 'work', 2, 'hold'],
			['Check', 'work', 1, 'advise'],
			['Done', 'done', null, 'advise'],
		] as const
	).entries()) {
		const column = await one<{ id: string }>(
			`insert into board_column (board_id, name, kind, position, wip_limit, limit_mode, commitment) values ($1, $2, $3, $4, $5, $6, $7) returning id`,
			[board.id, name, kind, position, limit, mode, name === 'Making'],
		);
		columns[name] = column.id;
	}
	if (options.sprint)
		await db.query(
			`insert into sprint (board_id, number, starts, ends, started_at) values ($1, 1, '2026-11-16', '2026-11-27', '2026-11-16T09:00Z')`,
			[board.id],
		);
	const person = async (role: string): Promise<Person> => {
		const name = `${role[0]!.toUpperCase()}${role.slice(1)} ${n}`;
		const email = `${role}${n}@small.example`;
		const { id } = await one<{ id: string }>(
			`insert into person (name, initials, email, created_at) values ($1, $2, $3, now()) returning id`,
			[name, role.slice(0, 2).toUpperCase(), email],
		);
		if (role !== 'outsider')
			await db.query('insert into membership (team_id, person_id, role) values ($1, $2, $3)', [
				team.id,
				id,
				role,
			]);
		return { id, name, initials: 'XX', email, scope: 'write' };
	};
	return {
		id: board.id,
		team: team.id,
		slug: `small-${n}`,
		key,
		columns: columns as SmallBoard['columns'],
		lead: await person('lead'),
		member: await person('member'),
		viewer: await person('viewer'),
		outsider: await person('outsider'),
	};
}

/** Sends a command through the door. */
export function command(
	person: Person,
	name: string,
	input: object,
	id: string = randomUUID(),
): Promise<Answer> {
	return obey(person, { id, command: name, input });
}

/** The refusal that a command meets; fails when it is obeyed. */
export async function refusal(work: Promise<unknown>): Promise<Problem> {
	try {
		await work;
	} catch (error) {
		if (error instanceof Problem) return error;
		throw error;
	}
	throw new Error('The command was obeyed where it should have been refused.');
}

/** Adds a card and gives its id. */
export async function addCard(
	board: SmallBoard,
	column: keyof SmallBoard['columns'] | null,
	title = 'A card',
	by = board.member,
): Promise<string> {
	const answer = await command(by, 'AddCard', {
		board: board.id,
		column: column && board.columns[column],
		title,
	});
	return answer.result.card as string;
}

/** A card's row as it stands. */
export async function cardRow(
	db: pg.Pool,
	id: string,
): Promise<Record<string, unknown> & { version: number; number: number }> {
	const { rows } = await db.query('select * from card where id = $1', [id]);
	return rows[0];
}

/** Everything the tables hold of cards, for comparing before and after. */
export async function everything(db: pg.Pool): Promise<string> {
	const tables = [
		'card',
		'card_owner',
		'stay',
		'blockage',
		'event',
		'event_void',
		'command',
		'command_card',
		'board',
		'board_column',
		'sprint',
		'card_link',
		'card_label',
		'working_week',
		'board_share',
		'absence',
		'holiday',
		'time_entry',
		'timer',
		'dismissal',
		'hourly_rate',
		'initiative',
		'label',
		'card_type',
	];
	const all = await Promise.all(
		tables.map((table) =>
			db.query(`select coalesce(json_agg(t order by t::text), '[]') as rows from ${table} t`),
		),
	);
	return JSON.stringify(all.map((answer) => answer.rows[0].rows));
}
