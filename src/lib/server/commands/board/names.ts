import type { ServiceClass } from '../../../../core/pages/board.ts';
import { Problem } from '../../problem.ts';
import type { BoardContext, ChecklistLine } from '../../door/contexts.ts';
import { randomUUID } from 'node:crypto';

/** Ids of labels by their names; a label that the board does not know yet is made. */
export async function labelIds(
	context: BoardContext,
	names: readonly string[],
): Promise<Map<string, string>> {
	if (!names.length) return new Map();
	const { rows } = await context.tx.query<{ id: string; name: string }>(
		`insert into label (board_id, name) select $1, unnest($2::text[])
		on conflict (board_id, name) do update set retired_at = null
		returning id, name`,
		[context.board.id, [...new Set(names)]],
	);
	return new Map(rows.map((label) => [label.name, label.id]));
}

/** Ids of initiatives by their names: those of the board, or that its team shares; one that is not known yet is made. */
export async function initiativeIds(
	context: BoardContext,
	names: readonly string[],
): Promise<Map<string, string>> {
	if (!names.length) return new Map();
	const { rows } = await context.tx.query<{ id: string; name: string }>(
		`with shared as (
			select i.id, i.name from initiative i
			join board b on b.id = i.board_id and b.team_id = $3 and b.id <> $1
			where i.wide and i.name = any($2::text[])
		), own as (
			insert into initiative (board_id, name)
			select $1, name from unnest($2::text[]) name where name not in (select name from shared)
			on conflict (board_id, name) do update set retired_at = null
			returning id, name
		)
		select id, name from shared union all select id, name from own`,
		[context.board.id, [...new Set(names)], context.board.team],
	);
	return new Map(rows.map((initiative) => [initiative.name, initiative.id]));
}

/** An initiative's row as it stands, kept for undo. */
export interface InitiativeRow {
	id: string;
	budget_hours: number | null;
	budget_money: number | null;
	target: string | null;
	start: string | null;
	purpose: string;
	lead_id: string | null;
}

/**
 * An initiative of the board by its name, kept for undo.
 * @throws Problem 422 when the board has none of that name
 */
export async function keepInitiative(context: BoardContext, name: string): Promise<InitiativeRow> {
	const [row] = await context.keep('initiative', { board_id: context.board.id, name });
	if (row) return row as unknown as InitiativeRow;
	throw new Problem(422, 'initiative.unknown', `This board has no initiative “${name}”.`, 'initiative');
}

/** What a card of a type begins with. */
export interface TypeBegins {
	checklist: string[];
	size: number | null;
	class: ServiceClass | null;
}

/** The types of the board with what their cards begin with; no type at all is one too. */
export async function typesOf(context: BoardContext): Promise<Map<string, TypeBegins>> {
	const { rows } = await context.tx.query<TypeBegins & { name: string }>(
		`select name, checklist, first_size as size, first_class as class
		from card_type where board_id = $1 and retired_at is null`,
		[context.board.id],
	);
	return new Map<string, TypeBegins>([
		['', { checklist: [], size: null, class: null }],
		...rows.map(({ name, ...begins }): [string, TypeBegins] => [name, begins]),
	]);
}

/** Checklist lines that begin undone. */
export const linesOf = (texts: readonly string[]): ChecklistLine[] =>
	texts.map((text) => ({ id: randomUUID(), text, done: false }));

/** What a card of a type begins with; an unknown type is refused. */
export function typeNamed(types: Map<string, TypeBegins>, name: string): TypeBegins {
	const begins = types.get(name);
	if (begins) return begins;
	const known = [...types.keys()].filter(Boolean);
	throw new Problem(
		422,
		'type.unknown',
		`This board has no type “${name.slice(0, 40)}”. ${known.length ? `It has ${known.join(', ')}.` : 'A lead can add types to it.'}`,
		'type',
	);
}

/** The people who may own cards of this board: its team's leads and members, by id. */
export async function ableToOwn(context: BoardContext): Promise<Map<string, string>> {
	const { rows } = await context.tx.query<{ id: string; name: string }>(
		`select p.id, p.name from membership m join person p on p.id = m.person_id
		where m.team_id = $1 and m.role <> 'viewer' and m.left_at is null`,
		[context.board.team],
	);
	return new Map(rows.map((person) => [person.id, person.name]));
}

/** Refuses owners who may not own cards here; `kept` are those who own the card already. */
export function checkOwners(
	able: Map<string, string>,
	owners: readonly string[],
	kept: readonly string[] = [],
): string[] {
	return owners.map((id) => {
		if (!able.has(id) && !kept.includes(id))
			throw new Problem(
				422,
				'owner.unknown',
				'An owner must be a lead or member of the board’s team.',
				'owners',
			);
		return id;
	});
}
