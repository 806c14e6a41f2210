import { splitOff } from '../../../../core/sprint/left.ts';
import type { BoardContext, CardRow } from '../../door/contexts.ts';
import { draftOf, namesOn } from './drafts.ts';
import { makeCards, type Draft, type MadeCard } from './make-cards.ts';
import { privateToo } from './private-too.ts';

/** A part of a card’s work that goes to a new card. */
export interface Part {
	row: CardRow;
	/** What the new card is called. */
	title: string;
	/** How much of what is left goes along: it is the new card’s size, which has none where nothing goes and the card has none. */
	amount: number;
	/** The checklist lines that go along, by their ids. */
	lines: readonly string[];
	/** The sprint on whose list the new card stands; null for the backlog alone. */
	sprint: Draft['sprint'];
}

/**
 * Moves parts of cards to new cards of the backlog that are linked to them: the same work, so with their owners, labels,
 * type, class, lane, initiative, own fields and due date, under the same card, and private where they are. The cards are
 * touched by the caller, who also writes their versions.
 * @param below as in makeCards
 */
export async function splitOffParts(
	context: BoardContext,
	parts: readonly Part[],
	below: string | null | undefined,
): Promise<MadeCard[]> {
	const { tx } = context;
	const names = await namesOn(
		context,
		parts.map(({ row }) => row),
	);
	const along = ({ row, lines }: Part) => row.checklist.filter((line) => lines.includes(line.id));
	const made = await makeCards(
		context,
		parts.map((part): Draft => ({
			...draftOf(part.row, names),
			title: part.title,
			description: '',
			size: part.row.size === null && !part.amount ? null : part.amount,
			start: null,
			ready: false,
			checklist: along(part),
			sprint: part.sprint,
		})),
		below,
	);
	const left = parts.map(({ row, amount }) => splitOff(row, amount));
	const { rows: under } = await tx.query<{ rest: string; number: number }>(
		`with parts as (
			select * from jsonb_to_recordset($1) as p(id uuid, rest uuid, size numeric, "left" numeric, checklist jsonb, parent uuid)
		), rests as (
			update card c set parent_id = p.parent from parts p where c.id = p.rest and p.parent is not null
		), links as (
			insert into card_link (from_id, to_id, kind) select id, rest, 'split' from parts
		), cards as (
			update card c set size = p.size, "left" = p."left", checklist = p.checklist from parts p where c.id = p.id
		)
		select p.rest, whole.number from parts p join card whole on whole.id = p.parent`,
		[
			JSON.stringify(
				parts.map((part, i) => ({
					id: part.row.id,
					rest: made[i]!.id,
					size: left[i]!.size,
					left: left[i]!.left,
					checklist: part.row.checklist.filter((line) => !along(part).includes(line)),
					parent: part.row.parent_id,
				})),
			),
		],
	);
	for (const { rest, number } of under) context.note(rest, 'part-of', String(number));
	await privateToo(
		context,
		parts.map(({ row }, i) => ({ from: row.id, to: made[i]!.id })),
	);
	for (const [i, { row }] of parts.entries()) {
		const rest = made[i]!;
		const { part } = left[i]!;
		if (part)
			context.note(row.id, 'split', String(part), { size: row.size, left: row.left }, { card: rest.number });
		context.note(row.id, 'split-to', String(rest.number));
		context.note(rest.id, 'split-from', String(row.number));
	}
	return made;
}
