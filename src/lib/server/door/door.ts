import { isUUID } from 'class-validator';
import type { Tx } from '../database.ts';
import { transaction } from '../database.ts';
import { notFound, Problem } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { boardOfInput, boardsOfTeam, wantsBoard, type BoardInput } from '../questions/board-of.ts';
import { now } from '../time.ts';
import type { AnyBoardCommand, AnyCommand, AnyTeamCommand, Done } from './command.ts';
import { BoardContext, RANK, type Role, type TeamContext } from './contexts.ts';
import { isRecord, readInput } from './input.ts';
import { COMMANDS } from '../commands/index.ts';
import { Keeping, type Kept } from './kept.ts';
import { lockBoard, lockBoth, lockTeam, readBoard } from './lock.ts';
import { tellPeople } from './tell.ts';
import { inTurn } from './turns.ts';
import { undoForTeam } from './undo.ts';

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
	const { boards, team } = await placeOf(person, command, input);
	const prepared: unknown = await command.prepare?.(input);
	return inTurn(boards, () =>
		transaction(async (tx) => {
			const first = await firstAnswer(tx, person, id, command, input);
			if (first) return first;
			if (!team && command.about === 'board') return obeyOnBoard(tx, person, id, command, input);
			const answer = team
				? await obeyForTeam(tx, person, id, command, input, team, prepared)
				: await obeyForPerson(tx, person, id, command as Extract<AnyCommand, { about: 'person' }>, input);
			await tx.query({
				name: 'command-answer',
				text: `update command set answer = $2 where id = $1`,
				values: [id, JSON.stringify({ ...answer, secret: undefined })],
			});
			return answer;
		}),
	);
}

/** Which boards a command will lock, and of which team it is where it is about one. What undoes a command is about the same. */
async function placeOf(
	person: Person,
	command: AnyCommand,
	input: Record<string, unknown>,
): Promise<{ boards: string[]; team: string | null }> {
	if (command.about === 'person') return { boards: [], team: null };
	const place =
		command.about === 'team' ? { team: input.team as string } : await boardOfInput(input as BoardInput);
	if (!place) throw notFound(wantsBoard(input as BoardInput));
	if ('board' in place) {
		const other = command.about === 'board' ? command.other?.(input) : undefined;
		return { boards: [...new Set([place.board, ...(other ? [other] : [])])].sort(), team: null };
	}
	return { boards: await boardsOfTeam(person, place.team), team: place.team };
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
	const input = await readInput(command, body.input);
	return { id: id.toLowerCase(), command, input };
}

/** Takes the id for this command, or finds the answer that it got before. */
async function firstAnswer(
	tx: Tx,
	person: Person,
	id: string,
	command: AnyCommand,
	input: object,
): Promise<Answer | null> {
	const hidden = new Set<string>(command.secret ?? []);
	const text = JSON.stringify(input, (key, value: unknown) => (hidden.has(key) ? '•' : value));
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
	const done = (await command.run({ tx, person, at: now(), commandId: id }, input, undefined)) ?? {};
	return { ...answerOf(id, command.name, null, false, done), secret: done.secret };
}

function mayDo(role: Role, least: Role, where: string): void {
	if (RANK[role] >= RANK[least]) return;
	const who = least === 'lead' ? 'a lead of the team' : 'members of the team';
	throw new Problem(403, 'right.missing', `Only ${who} may do this${where}.`);
}

/** Runs a command about a team: its boards are locked in one order, and the history of each says what was done. */
async function obeyForTeam(
	tx: Tx,
	person: Person,
	id: string,
	about: AnyCommand,
	input: object,
	teamId: string,
	prepared: unknown,
): Promise<Answer> {
	const { team, role, boards, at } = await lockTeam(tx, person, teamId);
	const command: AnyTeamCommand = about.about === 'team' ? about : undoForTeam;
	mayDo(role, command.role, '');
	const notes: TeamContext['notes'] = [];
	const kept = new Keeping(tx);
	const onBoards = new Map<string, BoardContext>();
	const context: TeamContext = {
		...{ tx, person, at, commandId: id, team, role, boards, notes },
		keep: (table, where) => kept.keep(table, where),
		note: (sentence, before = null, after = null) => void notes.push({ sentence, before, after }),
		onBoard: async (boardId) => {
			const known = onBoards.get(boardId);
			if (known) return known;
			const { board, role } = (await readBoard(tx, person, boardId))!;
			const made = new BoardContext(tx, person, at, id, board, role);
			onBoards.set(boardId, made);
			return made;
		},
	};
	const done = (await command.run(context, input, prepared)) ?? {};
	for (const board of boards) {
		const own = onBoards.get(board.id);
		if (own) board.lastSeq = await write(own, [], command.role, null);
	}
	const changes = await kept.changes();
	await tx.query('update command set team_id = $2, kept = $3, role = $4 where id = $1', [
		id,
		team.id,
		asJson(changes),
		command.role,
	]);
	await tx.query({
		name: 'team-told',
		text: `with told as (
				insert into event (board_id, seq, actor_id, command_id, kind, at, value, before, after)
				select b.id, b.seq + n.n, $2, $3, 'people', $4, n.note ->> 'sentence',
					nullif(n.note -> 'before', 'null'), nullif(n.note -> 'after', 'null')
				from jsonb_to_recordset($1) b(id uuid, seq bigint), jsonb_array_elements($5) with ordinality n(note, n)
			), moved as (
				update board o set last_seq = b.seq + jsonb_array_length($5)
				from jsonb_to_recordset($1) b(id uuid, seq bigint)
				where o.id = b.id
			)
			select pg_notify('harrow', b.id || ' ' || b.seq + jsonb_array_length($5)) from jsonb_to_recordset($1) b(id uuid, seq bigint)`,
		values: [
			JSON.stringify(boards.map((board) => ({ id: board.id, seq: board.lastSeq }))),
			person.id,
			id,
			at,
			JSON.stringify(notes),
		],
	});
	const touched = [...onBoards.values()].some((on) => on.touched.size > 0);
	const undoable = command.undoable && (touched || changes.length > 0);
	const answer = answerOf(id, about.name, null, undoable, done);
	return { ...answer, secret: done.secret };
}

async function obeyOnBoard(
	tx: Tx,
	person: Person,
	id: string,
	command: AnyBoardCommand,
	input: BoardInput,
): Promise<Answer> {
	const another = command.other?.(input);
	if (another) await lockBoth(tx, [input.board!, another]);
	const { board, role, at } = await lockBoard(tx, person, input, command.role === 'anyone');
	mayDo(role, command.role, ' on this board');
	if (board.away && !command.onPutAway)
		throw new Problem(
			409,
			'board.away',
			`${board.name} is put away: nothing on it changes until a lead brings it back.`,
		);
	const context = new BoardContext(tx, person, at, id, board, role);
	if (another) context.other = await otherBoard(context, command, another);
	const done = (await command.run(context, input, undefined)) ?? {};
	if (context.other && context.other.notes.length) await write(context.other, [], command.role, null);
	const changes = await context.kept.changes();
	const undoable = command.undoable && context.touched.size + changes.length > 0;
	const answer = answerOf(id, command.name, board.lastSeq + context.notes.length, undoable, done);
	await write(context, changes, command.role, answer);
	return answer;
}

/** The other board of a command, as its sender has it; they must have the same role there. */
async function otherBoard(
	{ tx, person, at, commandId }: BoardContext,
	command: AnyBoardCommand,
	id: string,
): Promise<BoardContext> {
	const found = await readBoard(tx, person, id);
	if (!found) throw notFound('board');
	mayDo(found.role, command.role, ` on ${found.board.name}`);
	if (found.board.away)
		throw new Problem(
			409,
			'board.away',
			`${found.board.name} is put away: nothing on it changes until a lead brings it back.`,
		);
	return new BoardContext(tx, person, found.at > at ? found.at : at, commandId, found.board, found.role);
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

const asJson = (changes: readonly Kept[]) => (changes.length ? JSON.stringify(changes) : null);

/**
 * Writes the events of a command and what its cards were before, moves the board's sequence on, and tells listeners.
 * @param answer kept with it; null where that is done elsewhere
 */
async function write(
	context: BoardContext,
	changes: readonly Kept[],
	role: Role,
	answer: Answer | null,
): Promise<number> {
	const { tx, board, notes, touched } = context;
	const seq = board.lastSeq + notes.length;
	const events = notes.map((note, i) => ({ ...note, seq: board.lastSeq + i + 1 }));
	const cards = [...touched].map(([id, { before, version }]) => ({ id, before, version }));
	await tx.query({
		name: 'command-write',
		text: `with events as (
				insert into event (board_id, seq, card_id, page_id, actor_id, command_id, kind, at, value, before, after, stands_for)
				select $1::uuid, e.seq, e.card, e.page, $2::uuid, $3::uuid, e.kind, coalesce((e.stands ->> 'at')::timestamptz, $4), e.value, e.before, e.after,
					(e.stands ->> 'seq')::bigint
				from jsonb_to_recordset($5) as e(seq bigint, card uuid, page uuid, kind text, value text, before jsonb, after jsonb, stands jsonb)
			), cards as (
				insert into command_card (command_id, card_id, before, version_after)
				select $3::uuid, c.id, c.before, c.version
				from jsonb_to_recordset($6) as c(id uuid, before jsonb, version integer)
			), mark as (
				update command set board_id = $1, kept = $9, role = $10, answer = coalesce($11, answer) where id = $3::uuid
			), moved as (
				update board set last_seq = $7, last_number = $8 where id = $1
			)
			select pg_notify('harrow', $1 || ' ' || $7::bigint)`,
		values: [
			board.id,
			context.person.id,
			context.commandId,
			context.at,
			JSON.stringify(events),
			JSON.stringify(cards),
			seq,
			board.lastNumber,
			asJson(changes),
			role,
			answer && JSON.stringify(answer),
		],
	});
	await tellPeople(context, events);
	return seq;
}
