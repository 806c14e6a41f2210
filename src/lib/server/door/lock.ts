import type { Tx } from '../database.ts';
import { notFound } from '../problem.ts';
import { wantsBoard, type BoardInput } from '../questions/board-of.ts';
import type { Person } from '../sign-in.ts';
import { setTime } from '../time.ts';
import type { LockedBoard, Role, TeamContext } from './contexts.ts';

/**
 * When a command happens, in SQL ($1: the time that is set, if any): by the database's clock, which all processes share, and
 * never before what happened on the board last. Kept to the millisecond, as the history has it.
 */
const HAPPENS = (boards: string) => `greatest(
	coalesce($1::timestamptz, date_trunc('milliseconds', clock_timestamp())),
	(select max(last.at) from ${boards} o
		cross join lateral (select at from event where board_id = o.id order by at desc limit 1) last))`;

/** Whether board `b` is open to a person who may not see it, for a card of theirs, or without one for asking. */
const OPEN = (card: string, person: string) => `case when ${card}::uuid is null then b.ask_page is not null
	else exists (select from card c where c.id = ${card}::uuid and c.board_id = b.id and c.asker_id = ${person} and not c.private) end`;

/**
 * Locks the board that the input speaks of, if the person may see it. Every command locks its board first, and reads what
 * it goes by only then: what was read before or while waiting may be old.
 * @param open also for whoever may not see it: where it has an ask page, or they asked for the card
 */
export async function lockBoard(
	tx: Tx,
	person: Person,
	input: BoardInput,
	open = false,
): Promise<{ board: LockedBoard; role: Role; at: Date }> {
	const locked = await tx.query<{ id: string }>({
		name: 'board-lock',
		text: `select b.id
			from board b
			where b.id = coalesce($2::uuid,
				(select board_id from card c where id = $3::uuid and may_see(c, $1)),
				(select board_id from board_column where id = $4::uuid),
				(select board_id from command where id = $5::uuid))
				and (exists (select from board_right r where r.board_id = b.id and r.person_id = $1) or $6 and ${OPEN('$3', '$1')})
			for update`,
		values: [
			...[person.id, input.board ?? null, input.card ?? null, input.column ?? null, input.of ?? null],
			open,
		],
	});
	if (!locked.rows[0]) throw notFound(wantsBoard(input));
	const read = await readBoard(
		tx,
		person,
		locked.rows[0].id,
		open ? { card: input.card ?? null } : undefined,
	);
	// Whoever waited for the lock may have lost the right meanwhile.
	if (!read) throw notFound(wantsBoard(input));
	return read;
}

/** Locks two boards in one order, so that nobody who does the same the other way round waits for them in a ring. */
export async function lockBoth(tx: Tx, boards: readonly string[]): Promise<void> {
	await tx.query('select from board where id = any($1::uuid[]) order by id for update', [boards]);
}

/** A board that is locked, as this person has it; null when they may not see it. */
export async function readBoard(
	tx: Tx,
	person: Person,
	id: string,
	open?: { card: string | null },
): Promise<{ board: LockedBoard; role: Role; at: Date } | null> {
	const { rows } = await tx.query<
		Omit<LockedBoard, 'columns' | 'commitment'> & {
			role: Role;
			at: Date;
			columns: (LockedBoard['columns'][number] & { commitment: boolean })[];
		}
	>({
		name: 'command-board',
		text: `select b.id, b.team_id as team, b.slug, b.key, b.name, b.away_at is not null as away, b.unit, b.sprint_days as "sprintDays",
				b.person_limit as "personLimit", b.person_mode as "personMode",
				t.time_zone as "timeZone", b.last_seq as "lastSeq", b.last_number as "lastNumber", coalesce(r.role, 'anyone') as role,
				${HAPPENS('(select b.id)')} as at,
				(select json_agg(json_build_object('id', k.id, 'name', k.name, 'kind', k.kind, 'limit', k.wip_limit,
					'mode', k.limit_mode, 'policy', k.policy, 'version', k.version, 'commitment', k.commitment) order by k.position)
				from board_column k where k.board_id = b.id and k.retired_at is null) as columns,
				(select coalesce(json_agg(json_build_object('id', l.id, 'name', l.name, 'class', l.class, 'limit', l.wip_limit,
					'mode', l.limit_mode) order by l.position), '[]')
				from lane l where l.board_id = b.id and l.retired_at is null and 'lanes' <> all(b.off)) as lanes,
				(select json_build_object('id', s.id, 'number', s.number) from sprint s
				where s.board_id = b.id and s.started_at is not null and s.closed_at is null) as "runningSprint"
			from board b
			join team t on t.id = b.team_id
			left join board_right r on r.board_id = b.id and r.person_id = $3
			where b.id = $2 and (r.role is not null or $4 and ${OPEN('$5', '$3')})`,
		values: [setTime(), id, person.id, open !== undefined, open?.card ?? null],
	});
	if (!rows[0]) return null;
	const { role, at, columns, ...board } = rows[0];
	const commitment = Math.max(
		0,
		columns.findIndex((column) => column.commitment),
	);
	return { role, at, board: { ...board, columns, commitment } };
}

/** Locks the boards of a team that the person is in, in one order; then reads who they are in it. */
export async function lockTeam(
	tx: Tx,
	person: Person,
	teamId: string,
): Promise<Pick<TeamContext, 'team' | 'role' | 'boards' | 'at'>> {
	await tx.query(
		`select from board
		where team_id = (select team_id from membership where team_id = $1 and person_id = $2 and left_at is null)
		order by id
		for update`,
		[teamId, person.id],
	);
	const { rows } = await tx.query<TeamContext['team'] & Pick<TeamContext, 'role' | 'boards' | 'at'>>(
		`select t.id, t.name, t.time_zone as "timeZone", m.role, ${HAPPENS('(select id from board where team_id = $2)')} as at,
			(select coalesce(json_agg(json_build_object('id', b.id, 'name', b.name, 'lastSeq', b.last_seq) order by b.id), '[]')
			from board b where b.team_id = t.id) as boards
		from team t
		join membership m on m.team_id = t.id and m.person_id = $3 and m.left_at is null
		where t.id = $2`,
		[setTime(), teamId, person.id],
	);
	if (!rows[0]) throw notFound('team');
	const { role, boards, at, ...team } = rows[0];
	return { team, role, boards, at };
}
