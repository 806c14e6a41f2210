import { generateNKeysBetween } from 'fractional-indexing';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Optional, OrNull, Version } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { checkLimit } from '../card/limits.ts';
import { moveTo, placeBounds } from '../card/place.ts';
import { allColumns, refuseWithout, seenColumn } from './columns.ts';

export class RetireColumn {
	@Id('column')
	column!: string;

	@Version()
	version!: number;

	/** Where its cards go: another column, or (null) the backlog. Left out only where none stands in it. */
	@Optional()
	@OrNull()
	@Id('column for its cards')
	to?: string | null;

	/** Why they are let through over a limit. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const retireColumn = boardCommand({
	name: 'RetireColumn',
	summary: 'Takes a column away: its cards go elsewhere, and its past keeps counting under its name.',
	input: RetireColumn,
	role: 'lead',
	async run(context, input) {
		const { tx } = context;
		const columns = await allColumns(context, input.column);
		const column = seenColumn(columns, input.column, input.version);
		if (column.commitment)
			throw new Problem(
				409,
				'column.clock',
				`A card’s clock starts in ${column.name}: move the clock to another column first.`,
				'column',
			);
		refuseWithout(
			columns.map((one) => (one.id === column.id ? { ...one, retired: true } : one)),
			'column',
		);
		const { rows } = await tx.query<{ id: string }>(
			'select id from card where column_id = $1 and archived_at is null order by rank',
			[column.id],
		);
		const cards = await context.cards(rows.map(({ id }) => ({ card: id })));
		const said = await moveAll(context, input, column, cards);
		await tx.query(
			`update board_column set retired_at = $2, hidden = false, wip_limit = null, version = version + 1 where id = $1`,
			[column.id, context.at],
		);
		context.note(null, 'column-retired', column.name, null, { cards: cards.length, to: said.place });
		return { result: { cards: cards.length }, advice: said.advice };
	},
});

async function moveAll(
	context: Parameters<typeof moveTo>[0],
	input: RetireColumn,
	column: { id: string; name: string; kind: string },
	cards: Awaited<ReturnType<Parameters<typeof moveTo>[0]['cards']>>,
): Promise<{ place: string; advice?: string }> {
	if (!cards.length) return { place: '' };
	const n = cards.length === 1 ? 'A card stands' : `${cards.length} cards stand`;
	if (input.to === undefined)
		throw new Problem(422, 'column.cards', `${n} in ${column.name}: say where they go.`, 'to');
	if (input.to === column.id)
		throw new Problem(422, 'column.cards', 'Its cards go to another column, or to the backlog.', 'to');
	const target = input.to === null ? null : context.column(input.to);
	if (column.kind === 'done' && target?.kind !== 'done')
		throw new Problem(
			409,
			'column.done_cards',
			`Cards in ${column.name} are done: they go to another column in which cards are done.`,
			'to',
		);
	const { above, under, standing } = await placeBounds(context, input.to, undefined);
	const { through, advice } = target
		? checkLimit(target, standing, cards.length, input.reason)
		: { through: null, advice: undefined };
	const ranks = generateNKeysBetween(above, under, cards.length);
	for (const [i, card] of cards.entries()) await moveTo(context, card, input.to, ranks[i]!, through);
	return { place: target?.name ?? 'the backlog', advice };
}
