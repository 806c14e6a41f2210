import { IsBoolean, IsString, MaxLength } from 'class-validator';
import type { TeamContext, BoardContext } from '../../door/contexts.ts';
import { Line } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';

/** What is said of a lens, wherever it is kept. */
export class LensSaid {
	@Line('The name of the lens', 60)
	name!: string;

	/** What an address says. */
	@MaxLength(4000, { message: 'A lens may have at most 4,000 characters.' })
	@IsString({ message: 'What a lens looks at must be text.' })
	query!: string;

	/** Whether all who see that place have it; else it is one’s own. */
	@IsBoolean({ message: 'A lens is shared or not: true or false.' })
	shared!: boolean;
}

/** So many lenses of one place one person keeps at most. */
const MOST = 60;

/** Where a lens is of: a board, or what a team's boards show together. */
type Place = { board_id: string } | { team_id: string };
type Context = Pick<BoardContext | TeamContext, 'tx' | 'person' | 'at' | 'role' | 'keep'>;

const columnOf = (place: Place): ['board_id' | 'team_id', string] =>
	'board_id' in place ? ['board_id', place.board_id] : ['team_id', place.team_id];

/** Keeps a way of looking under a name; one's own of the same name is replaced. */
export async function keepLensOf(
	{ tx, person, at, role, keep }: Context,
	place: Place,
	lens: LensSaid,
): Promise<string> {
	if (lens.shared && role === 'viewer')
		throw new Problem(403, 'right.missing', 'Sharing a lens needs the role of a member or lead.');
	if (!lens.query)
		throw new Problem(422, 'lens.empty', 'It is looked at as it is: narrow or arrange it first.', 'query');
	const [column, id] = columnOf(place);
	await keep('lens', { [column]: id, person_id: person.id });
	const { rows } = await tx.query<{ n: number }>(
		`select count(*) as n from lens where ${column} = $1 and person_id = $2 and retired_at is null`,
		[id, person.id],
	);
	if (rows[0]!.n >= MOST)
		throw new Problem(409, 'lens.too_many', `At most ${MOST} lenses are kept here: let one go.`, 'name');
	await tx.query(
		`update lens set retired_at = $4
		where ${column} = $1 and person_id = $2 and lower(name) = lower($3) and retired_at is null`,
		[id, person.id, lens.name, at],
	);
	const made = await tx.query<{ id: string }>(
		`insert into lens (${column}, person_id, name, query, shared, made_at) values ($1, $2, $3, $4, $5, $6) returning id`,
		[id, person.id, lens.name, lens.query, lens.shared, at],
	);
	return made.rows[0]!.id;
}

/** Lets a lens go: one's own, or as a lead any that is shared. @returns its name where it was shared, else nothing */
export async function dropLensOf(
	{ tx, person, at, role, keep }: Context,
	place: Place,
	id: string,
): Promise<string> {
	const [column, of] = columnOf(place);
	const [lens] = await keep('lens', { [column]: of, id });
	const may = lens && (lens.person_id === person.id || (lens.shared && role === 'lead'));
	if (!lens || lens.retired_at || !(may || lens.shared))
		throw new Problem(422, 'lens.unknown', 'There is no such lens here.', 'lens');
	if (!may) throw new Problem(403, 'right.missing', 'A shared lens is let go by who made it, or by a lead.');
	await tx.query('update lens set retired_at = $2 where id = $1', [lens.id, at]);
	return lens.shared ? String(lens.name) : '';
}
