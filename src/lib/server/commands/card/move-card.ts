import { rollup } from 'd3-array';
import { generateNKeysBetween } from 'fractional-indexing';
import { boardCommand } from '../../door/command.ts';
import { childrenOf } from './family.ts';
import { Id, Line, Optional, OrNull, Version } from '../../door/fields.ts';
import { checkHands } from './hands.ts';
import { checkLanes, laneChanges, writeLanes } from './lanes.ts';
import { checkLimit, letThrough, together } from './limits.ts';
import { clockIn, moveTo, placeBounds, reorder } from './place.ts';

export class MoveCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** The column it moves to; null for the backlog. */
	@OrNull()
	@Id('column')
	column!: string | null;

	/** The card right above its new place; null for the top, left out for the end. */
	@Optional()
	@OrNull()
	@Id('card above')
	below?: string | null;

	/** The lane that it is put into; null for none, left out for the one in which it stands. */
	@Optional()
	@OrNull()
	@Id('lane')
	lane?: string | null;

	/** Why it is let through over a limit. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const moveCard = boardCommand({
	name: 'MoveCard',
	summary: 'Moves a card within its column, to another column or lane, or back to the backlog.',
	input: MoveCard,
	async run(context, input) {
		const card = context.unarchived(await context.card(input.card, input.version));
		// Sub-cards that stand beside their parent go with it, right below it.
		const family = (await childrenOf(context, card)).filter((child) => child.column_id === card.column_id);
		const moving = [card, ...family];
		const target = input.column === null ? null : context.column(input.column);
		const ids = moving.map((one) => one.id);
		const { above, under, standing } = await placeBounds(context, input.column, input.below, ids);
		const ranks = generateNKeysBetween(above, under, moving.length);
		const lanes = input.lane === undefined ? [] : laneChanges(context, moving, input.lane);
		const room = await checkLanes(
			context,
			moving.map((one) => {
				const lane = lanes.find(({ card: changed }) => changed === one);
				const { lane_id, class: of } = lane ?? one;
				return { before: one, after: { column_id: input.column, lane_id, class: of } };
			}),
			input.reason,
		);
		await writeLanes(context, lanes);
		if (input.column === card.column_id) {
			await reorder(context, moving, ranks);
			if (room.through) await letThrough(context, moving, room.through);
			return { advice: room.advice };
		}
		const full = target ? checkLimit(target, standing, moving.length, input.reason) : { through: null };
		// Cards that start come into the hands of those who own them.
		const start = moving.filter(
			(one) => one.clock !== 'running' && clockIn(context, one, input.column).state === 'running',
		);
		const hands = await checkHands(
			context,
			rollup(
				start.flatMap(({ owners }) => owners),
				(all) => all.length,
				(owner) => owner,
			),
			ids,
			input.reason,
		);
		const { through, advice } = together(full, room, hands);
		for (const [i, one] of moving.entries()) await moveTo(context, one, input.column, ranks[i]!, through);
		return { advice };
	},
});
