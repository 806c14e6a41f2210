import { LRUCache } from 'lru-cache';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';

/** The fields by which the input of a command may name its board. */
export interface BoardInput {
	board?: string;
	card?: string;
	column?: string | null;
	/** A command: what undoes it is about the same board or team. */
	of?: string;
}
type Place = { board: string } | { team: string };

/** What of an input names its board. */
export const wantsBoard = (input: BoardInput) =>
	input.board ? 'board' : input.card ? 'card' : input.column ? 'column' : 'command';

// A card stays on its board; were it moved meanwhile, a command would only wait in another line than it could.
const known = new LRUCache<string, Place>({ max: 20_000 });

/** The board that an input speaks of, or the team; null when there is none. Rights are asked when it is locked. */
export async function boardOfInput(input: BoardInput): Promise<Place | null> {
	if (input.board) return { board: input.board };
	const id = input.card ?? input.column ?? input.of;
	if (!id) return null;
	const found = known.get(id) ?? (await placeOf(wantsBoard(input), id));
	if (found) known.set(id, found);
	return found;
}

async function placeOf(what: string, id: string): Promise<Place | null> {
	const [found] = await rows<{ board: string | null; team: string | null }>(
		what === 'card'
			? 'select board_id as board, null as team from card where id = $1'
			: what === 'column'
				? 'select board_id as board, null as team from board_column where id = $1'
				: 'select board_id as board, team_id as team from command where id = $1',
		[id],
		`place-of-${what}`,
	);
	if (found?.team) return { team: found.team };
	return found?.board ? { board: found.board } : null;
}

/** The boards of a team that this person is in, by id; none for others. */
export async function boardsOfTeam(person: Person, team: string): Promise<string[]> {
	const found = await rows<{ id: string }>(
		`select b.id from board b
		join membership m on m.team_id = b.team_id and m.person_id = $2 and m.left_at is null
		where b.team_id = $1
		order by b.id`,
		[team, person.id],
	);
	return found.map(({ id }) => id);
}
