import { plainToInstance } from 'class-transformer';
import { isUUID, validate, type ValidationError } from 'class-validator';
import type { Tx } from '../database.ts';
import { transaction } from '../database.ts';
import { notFound, Problem } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import type { AnyCommand, BoardCommand, Done } from './command.ts';
import { BoardContext, type LockedBoard, type TeamContext } from './context.ts';
import { COMMANDS } from './index.ts';

/** What the door answers: the same for the same id, however often it is asked. */
export interface Answer {
	id: string;
	command: string;
	/** The number of the board's last event after the command; null for commands about the person. */
	seq: number | null;
	undoable: boolean;
	result: Record<string, unknown>;
	advice?: string;
	/** A secret that is told this once: the stored answer is without it. */
	secret?: string;
}

/**
 * The one door for changes. Runs a command in one transaction: check → lock → write tables and events → notify.
 * @param body `{ id, command, input }`; the id is made by the sender, and the same id again answers the first answer
 * @throws Problem when it is refused; then nothing has changed
 */
export async function obey(person: Person, body: unknown): Promise<Answer> {
	if (person.scope !== 'write') throw new Problem(403, 'token.read_only', 'This token may only read.');
	const { id, command, input } = await readCommand(body);
	return transaction(async (tx) => {
		const first = await firstAnswer(tx, person, id, command, input);
		if (first) return first;
		const answer =
			command.about === 'board'
				? await obeyOnBoard(tx, person, id, command, input)
				: command.about === 'team'
					? await obeyForTeam(tx, person, id, command, input as { team: string })
					: await obeyForPerson(tx, person, id, command, input);
		await tx.query({
			name: 'command-answer',
			text: `update command set answer = $2 where id = $1`,
			values: [id, JSON.stringify({ ...answer, secret: undefined })],
		});
		return answer;
	});
}

async function readCommand(
	body: unknown,
): Promise<{ id: string; command: AnyCommand; input: Record<string, unknown> }> {
	if (!isRecord(body))
		throw new Problem(400, 'body.malformed', 'Send a JSON object with id, command and input.');
	const { id } = body;
	if (typeof id !== 'string' || !isUUID(id))
		throw new Problem(422, 'invalid.id', 'The id must be a UUID made by the sender.', 'id');
	const command = typeof body.command === 'string' ? COMMANDS.get(body.command) : undefined;
	if (!command) throw new Problem(422, 'command.unknown', 'There is no such command.', 'command');
	if (!isRecord(body.input))
		throw new Problem(422, 'invalid.input', 'The input must be a JSON object.', 'input');
	refuseUnstorable(body.input);
	const input = plainToInstance(command.input, body.input) as Record<string, unknown>;
	const errors = await validate(input, {
		whitelist: true,
		forbidNonWhitelisted: true,
		stopAtFirstError: true,
	});
	if (errors[0]) throw invalid(errors[0]);
	return { id: id.toLowerCase(), command, input };
}

/** The first thing that is wrong, found in the lists of an input too. */
function invalid(outer: ValidationError): Problem {
	let error = outer;
	while (!error.constraints && error.children?.[0]) {
		const inner = error.children[0];
		// What is wrong in an entry of a list is named by the entry's own field.
		error = /^\d+$/.test(inner.property) && inner.children?.[0] ? inner.children[0] : inner;
	}
	const [rule, sentence] = Object.entries(error.constraints ?? {})[0] ?? [];
	const field = error.property.slice(0, 40);
	if (rule === 'whitelistValidation')
		return new Problem(422, 'field.unknown', `This command has no field "${field}".`, field);
	return new Problem(422, `invalid.${field}`, sentence ?? `The field ${field} is not right.`, field);
}

/** Characters that the database cannot keep are refused at the door, wherever they stand. */
function refuseUnstorable(value: unknown, field = 'input', depth = 0): void {
	if (depth > 8) throw new Problem(422, 'invalid.input', 'The input is nested too deeply.', field);
	if (typeof value === 'string' && /\0|\p{Surrogate}/u.test(value))
		throw new Problem(
			422,
			`invalid.${field}`,
			`The field ${field} holds a character that is no text.`,
			field,
		);
	if (typeof value === 'object' && value !== null)
		for (const [key, inner] of Object.entries(value)) {
			refuseUnstorable(key, field, depth);
			refuseUnstorable(inner, Array.isArray(value) ? field : key.slice(0, 40), depth + 1);
		}
}

/** Takes the id for this command, or finds the answer that it got before. */
async function firstAnswer(
	tx: Tx,
	person: Person,
	id: string,
	command: AnyCommand,
	input: object,
): Promise<Answer | null> {
	const text = JSON.stringify(input);
	const { rowCount } = await tx.query({
		name: 'command-take',
		text: `insert into command (id, person_id, name, input, at) values ($1, $2, $3, $4, $5) on conflict (id) do nothing`,
		values: [id, person.id, command.name, text, now()],
	});
	if (rowCount) return null;
	const { rows } = await tx.query<{ answer: Answer; same: boolean }>(
		`select answer, person_id = $2 and name = $3 and input = $4::jsonb as same from command where id = $1`,
		[id, person.id, command.name, text],
	);
	if (!rows[0]?.same)
		throw new Problem(409, 'command.id_taken', 'This id was used for another command. Make a new one.', 'id');
	return rows[0].answer;
}

async function obeyForPerson(
	tx: Tx,
	person: Person,
	id: string,
	command: Extract<AnyCommand, { about: 'person' }>,
	input: object,
): Promise<Answer> {
	const done = (await command.run({ tx, person, at: now() }, input)) ?? {};
	return {
		id,
		command: command.name,
		seq: null,
		undoable: false,
		result: done.result ?? {},
		secret: done.secret,
	};
}

/** Runs a command about a team: its boards are locked in one order, and the history of each says what was done. */
async function obeyForTeam(
	tx: Tx,
	person: Person,
	id: string,
	command: Extract<AnyCommand, { about: 'team' }>,
	input: { team: string },
): Promise<Answer> {
	const { rows } = await tx.query<TeamContext['team'] & { role: TeamContext['role'] }>(
		`select t.id, t.name, t.time_zone as "timeZone", m.role
		from team t
		join membership m on m.team_id = t.id and m.person_id = $2 and m.left_at is null
		where t.id = $1`,
		[input.team, person.id],
	);
	if (!rows[0]) throw notFound('team');
	const { role, ...team } = rows[0];
	const boards = await tx.query<{ id: string; name: string; last_seq: number }>(
		'select id, name, last_seq from board where team_id = $1 order by id for update',
		[team.id],
	);
	const at = now();
	const notes: string[] = [];
	const note = (sentence: string) => void notes.push(sentence);
	const done = (await command.run({ tx, person, at, team, role, boards: boards.rows, note }, input)) ?? {};
	for (const board of boards.rows) {
		await tx.query(
			`with told as (
				insert into event (board_id, seq, actor_id, command_id, kind, at, value)
				select $1, $2 + e.n, $3, $4, 'people', $5, e.value
				from unnest($6::text[]) with ordinality e(value, n)
			)
			update board set last_seq = $2 + $7 where id = $1`,
			[board.id, board.last_seq, person.id, id, at, notes, notes.length],
		);
		await tx.query({
			name: 'notify',
			text: `select pg_notify('harrow', $1)`,
			values: [`${board.id} ${board.last_seq + notes.length}`],
		});
	}
	return answerOf(id, command.name, null, false, done);
}

const RANK = { viewer: 0, member: 1, lead: 2 };

async function obeyOnBoard(
	tx: Tx,
	person: Person,
	id: string,
	command: BoardCommand<object>,
	input: { board?: string; card?: string; column?: string | null; of?: string },
): Promise<Answer> {
	const { board, role } = await lockBoard(tx, person, input);
	if (RANK[role] < RANK[command.role])
		throw new Problem(
			403,
			'right.missing',
			`Only ${command.role === 'lead' ? 'a lead' : 'members of the team'} may do this on this board.`,
		);
	const context = new BoardContext(tx, person, now(), id, board, role);
	const done = (await command.run(context, input)) ?? {};
	const seq = await write(context);
	const undoable = command.undoable && context.touched.size + context.sprintsBefore.size > 0;
	return answerOf(id, command.name, seq, undoable, done);
}

function answerOf(id: string, command: string, seq: number | null, undoable: boolean, done: Done): Answer {
	return {
		id,
		command,
		seq,
		undoable,
		result: done.result ?? {},
		...(done.advice ? { advice: done.advice } : {}),
	};
}

/** Locks the board that the input speaks of, if the person may see it. Every command locks its board first. */
async function lockBoard(
	tx: Tx,
	person: Person,
	input: { board?: string; card?: string; column?: string | null; of?: string },
): Promise<{ board: LockedBoard; role: 'viewer' | 'member' | 'lead' }> {
	const { rows } = await tx.query<{
		id: string;
		team: string;
		slug: string;
		key: string;
		unit: LockedBoard['unit'];
		timeZone: string;
		sprintDays: number | null;
		lastSeq: number;
		lastNumber: number;
		role: 'viewer' | 'member' | 'lead';
		columns: (LockedBoard['columns'][number] & { commitment: boolean })[];
		runningSprint: LockedBoard['runningSprint'];
	}>({
		name: 'command-board',
		text: `select b.id, b.team_id as team, b.slug, b.key, b.unit, b.sprint_days as "sprintDays",
				(select time_zone from team where id = b.team_id) as "timeZone", b.last_seq as "lastSeq", b.last_number as "lastNumber", r.role,
				(select json_agg(json_build_object('id', k.id, 'name', k.name, 'kind', k.kind, 'limit', k.wip_limit,
					'mode', k.limit_mode, 'policy', k.policy, 'version', k.version, 'commitment', k.commitment) order by k.position)
				from board_column k where k.board_id = b.id) as columns,
				(select json_build_object('id', s.id, 'number', s.number) from sprint s
				where s.board_id = b.id and s.started_at is not null and s.closed_at is null) as "runningSprint"
			from board b
			join board_right r on r.board_id = b.id and r.person_id = $1
			where b.id = coalesce($2::uuid,
				(select board_id from card where id = $3::uuid),
				(select board_id from board_column where id = $4::uuid),
				(select board_id from command where id = $5::uuid))
			for update of b`,
		values: [person.id, input.board ?? null, input.card ?? null, input.column ?? null, input.of ?? null],
	});
	const found = rows[0];
	if (!found)
		throw notFound(input.board ? 'board' : input.card ? 'card' : input.column ? 'column' : 'command');
	const { role, columns, ...board } = found;
	const commitment = Math.max(
		0,
		columns.findIndex((column) => column.commitment),
	);
	return { role, board: { ...board, columns, commitment } };
}

/** Writes the events of a command and what its cards were before, moves the board's sequence on, and tells listeners. */
async function write(context: BoardContext): Promise<number> {
	const { tx, board, notes, touched, sprintsBefore } = context;
	const seq = board.lastSeq + notes.length;
	const events = notes.map((note, i) => ({ ...note, seq: board.lastSeq + i + 1 }));
	const cards = [...touched].map(([id, { before, version }]) => ({ id, before, version }));
	await tx.query({
		name: 'command-write',
		text: `with events as (
				insert into event (board_id, seq, card_id, actor_id, command_id, kind, at, value, before, after)
				select $1::uuid, e.seq, e.card, $2::uuid, $3::uuid, e.kind, $4, e.value, e.before, e.after
				from jsonb_to_recordset($5) as e(seq bigint, card uuid, kind text, value text, before jsonb, after jsonb)
			), cards as (
				insert into command_card (command_id, card_id, before, version_after)
				select $3::uuid, c.id, c.before, c.version
				from jsonb_to_recordset($6) as c(id uuid, before jsonb, version integer)
			), mark as (
				update command set board_id = $1, sprints = $9 where id = $3::uuid
			)
			update board set last_seq = $7, last_number = $8 where id = $1`,
		values: [
			board.id,
			context.person.id,
			context.commandId,
			context.at,
			JSON.stringify(events),
			JSON.stringify(cards),
			seq,
			board.lastNumber,
			sprintsBefore.size ? JSON.stringify([...sprintsBefore.values()]) : null,
		],
	});
	await tx.query({ name: 'notify', text: `select pg_notify('harrow', $1)`, values: [`${board.id} ${seq}`] });
	return seq;
}

function isRecord(value: unknown): value is Record<string, unknown> {
	return typeof value === 'object' && value !== null && !Array.isArray(value);
}
