import { rollup } from 'd3-array';
import { generateNKeysBetween } from 'fractional-indexing';
import { boardCommand } from '../../door/command.ts';
import type { BoardContext, CardRow } from '../../door/contexts.ts';
import { Id, Line, Optional, OrNull, SeenCard, SeenCards } from '../../door/fields.ts';
import { childrenOf } from './family.ts';
import { checkHands } from './hands.ts';
import { checkLanes } from './lanes.ts';
import { checkLimit, together } from './limits.ts';
import { clockIn, moveTo, placeBounds } from './place.ts';

export class MoveCards {
	@Id('board')
	board!: string;

	@SeenCards()
	cards!: SeenCard[];

	/** The column that they move to, at its end and in the order given; null for the backlog. */
	@OrNull()
	@Id('column')
	column!: string | null;

	/** Why they are let through over a limit. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const moveCards = boardCommand({
	name: 'MoveCards',
	summary: 'Moves cards to the end of a column, or back to the end of the backlog, in one step.',
	input: MoveCards,
	async run(context, input) {
		const target = input.column === null ? null : context.column(input.column);
		const all = await withFamilies(context, await context.cards(input.cards));
		const moving = all.filter((card) => card.column_id !== input.column);
		// What stands there already stays where it is; it was named, and counts as changed.
		await context.changedNow(all.filter((card) => card.column_id === input.column));
		if (!moving.length) return {};
		const ids = moving.map(({ id }) => id);
		const { above, under, standing } = await placeBounds(context, input.column, undefined, ids);
		const starting = moving.filter(
			(card) => card.clock !== 'running' && clockIn(context, card, input.column).state === 'running',
		);
		const { through, advice } = together(
			target ? checkLimit(target, standing, moving.length, input.reason) : { through: null },
			await checkLanes(
				context,
				moving.map((before) => ({ before, after: { column_id: input.column } })),
				input.reason,
			),
			await checkHands(
				context,
				rollup(
					starting.flatMap(({ owners }) => owners),
					(all) => all.length,
					(owner) => owner,
				),
				ids,
				input.reason,
			),
		);
		const ranks = generateNKeysBetween(above, under, moving.length);
		for (const [i, card] of moving.entries()) await moveTo(context, card, input.column, ranks[i]!, through);
		return { advice };
	},
});

/** Cards with their sub-cards that stand beside them, each once. */
async function withFamilies(context: BoardContext, cards: readonly CardRow[]): Promise<CardRow[]> {
	const all = new Map<string, CardRow>();
	for (const card of cards) {
		all.set(card.id, context.unarchived(card));
		for (const child of await childrenOf(context, card))
			if (child.column_id === card.column_id) all.set(child.id, child);
	}
	return [...all.values()];
}
