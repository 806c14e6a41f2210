import { IsBoolean } from 'class-validator';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import type { BoardContext } from '../../door/contexts.ts';
import { Id, Line, Optional } from '../../door/fields.ts';

const TABLES = { type: 'card_type', label: 'label', initiative: 'initiative' } as const;
type NameKind = keyof typeof TABLES;
const KINDS = Object.keys(TABLES) as NameKind[];

export class ChangeName {
	@Id('board')
	board!: string;

	/** What a type is called now; a label or an initiative instead, but one of the three. */
	@Optional()
	@Line('The type', 40)
	type?: string;

	@Optional()
	@Line('The label', 40)
	label?: string;

	@Optional()
	@Line('The initiative', 80)
	initiative?: string;

	/** What it is called from now on; where there is one of that name already, the two become one. */
	@Optional()
	@Line('The new name', 80)
	to?: string;

	/** Whether it is offered no more; what carries it goes on carrying it. */
	@Optional()
	@IsBoolean({ message: 'A name is retired or not: true or false.' })
	retired?: boolean;
}

export const changeName = boardCommand({
	name: 'ChangeName',
	summary:
		'Renames a type, label or initiative of a board, merges it into another one, retires it or offers it again.',
	role: 'lead',
	// Cards that two names had in common could not be told apart again: a rename is taken back by another one.
	undoable: false,
	input: ChangeName,
	async run(context, input) {
		const [kind, name] = meant(input);
		const from = await named(context, kind, name);
		if (!from) throw new Problem(422, `${kind}.unknown`, `This board has no ${kind} “${name}”.`, kind);
		if (kind === 'initiative') {
			const { rows } = await context.tx.query<{ wide: boolean }>(
				'select wide from initiative where id = $1',
				[from],
			);
			if (rows[0]!.wide)
				throw new Problem(
					409,
					'initiative.shared',
					`All boards of the team share ${name}: its own page is where it is renamed. Before it becomes one with another or is retired, it is shared no longer.`,
					'initiative',
				);
		}
		const to = input.to === undefined || input.to === name ? null : input.to;
		if (to && to.length > (kind === 'initiative' ? 80 : 40))
			throw new Problem(422, 'invalid.to', `The name of a ${kind} may have at most 40 characters.`, 'to');
		if (to) {
			const other = await named(context, kind, to);
			const cards = other
				? await merge(context, kind, from, other, to)
				: await rename(context, kind, from, name, to);
			context.note(
				null,
				'name-changed',
				to,
				{ kind, name },
				{ kind, name: to, merged: other !== null, cards },
			);
			return { result: { cards } };
		}
		if (input.retired === undefined)
			throw new Problem(
				422,
				'invalid.to',
				'Say what it is called from now on, or whether it is retired.',
				'to',
			);
		await context.tx.query(`update ${TABLES[kind]} set retired_at = $2 where id = $1`, [
			from,
			input.retired ? context.at : null,
		]);
		context.note(null, 'name-changed', name, { kind, name }, { kind, name, retired: input.retired });
		return { result: { cards: 0 } };
	},
});

/** The one name that is meant, and what it names. */
function meant(input: ChangeName): [NameKind, string] {
	const said = KINDS.filter((kind) => input[kind] !== undefined);
	if (said.length === 1) return [said[0]!, input[said[0]!]!];
	throw new Problem(422, 'invalid.type', 'Name one type, one label or one initiative of the board.', 'type');
}

async function named(context: BoardContext, kind: NameKind, name: string): Promise<string | null> {
	const { rows } = await context.tx.query<{ id: string }>(
		`select id from ${TABLES[kind]} where board_id = $1 and name = $2 for update`,
		[context.board.id, name],
	);
	return rows[0]?.id ?? null;
}

/** Cards name their type themselves; labels and initiatives they have by id. */
async function retype(context: BoardContext, from: string, to: string): Promise<number> {
	const { rowCount } = await context.tx.query(
		'update card set type = $3, version = version + 1 where board_id = $1 and type = $2',
		[context.board.id, from, to],
	);
	return rowCount ?? 0;
}

async function rename(
	context: BoardContext,
	kind: NameKind,
	id: string,
	name: string,
	to: string,
): Promise<number> {
	await context.tx.query(`update ${TABLES[kind]} set name = $2 where id = $1`, [id, to]);
	// People who are at home in a label stay so.
	if (kind === 'label')
		await context.tx.query(
			`update skill s set name = $3 where team_id = $1 and name = $2
				and not exists (select from skill o where o.team_id = s.team_id and o.person_id = s.person_id and o.name = $3)`,
			[context.board.team, name, to],
		);
	return kind === 'type' ? retype(context, name, to) : 0;
}

/** What stands on the page of the one stands on that of the other: its notes below those, its files and its talk beside them. */
async function mergePages(
	{ tx, board }: BoardContext,
	name: string,
	from: string,
	to: string,
): Promise<void> {
	await tx.query(
		`with old as materialized (
			select id, notes from page where initiative_id = $2
		), page_to as (
			insert into page as p (board_id, initiative_id, notes) select $1, $3, old.notes from old
			on conflict (board_id, initiative_id) do update
			set notes = left(p.notes || case when excluded.notes <> '' then E'\n\n## ' || $4 || E'\n\n' || excluded.notes else '' end, 50000),
				version = p.version + 1
			returning id
		), said as (
			update page p set merged_into = n.id from page_to n, old where p.id = old.id or p.merged_into = old.id
		), asked as (
			update question q set page_id = n.id from page_to n, old where q.page_id = old.id
		), filed as (
			update attachment a set page_id = n.id from page_to n, old where a.page_id = old.id
		)
		insert into page_watch (page_id, person_id, how)
		select n.id, w.person_id, w.how from page_to n, old join page_watch w on w.page_id = old.id
		on conflict do nothing`,
		[board.id, from, to, name],
	);
}

/** All that carried the one carries the other; the one is retired. */
async function merge(
	context: BoardContext,
	kind: NameKind,
	from: string,
	to: string,
	toName: string,
): Promise<number> {
	const { tx, at } = context;
	const { rows } = await tx.query<{ name: string }>(
		`update ${TABLES[kind]} set retired_at = $2 where id = $1 returning name`,
		[from, at],
	);
	await tx.query(`update ${TABLES[kind]} set retired_at = null where id = $1`, [to]);
	if (kind === 'type') return retype(context, rows[0]!.name, toName);
	if (kind === 'initiative') {
		const moved = await tx.query('update card set initiative_id = $2 where initiative_id = $1', [from, to]);
		await mergePages(context, rows[0]!.name, from, to);
		return moved.rowCount ?? 0;
	}
	const moved = await tx.query(
		`with had as (delete from card_label where label_id = $1 returning card_id)
		insert into card_label select card_id, $2 from had on conflict do nothing`,
		[from, to],
	);
	return moved.rowCount ?? 0;
}
