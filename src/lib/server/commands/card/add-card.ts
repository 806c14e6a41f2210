import { randomUUID } from 'node:crypto';
import { enter, NEW_CLOCK } from '../../../../core/flow/clock.ts';
import { boardCommand } from '../../door/command.ts';
import { Amount, Id, Line, Optional, OrNull } from '../../door/fields.ts';
import { intoLane } from '../../../../core/board/lanes.ts';
import { checkLanes } from './lanes.ts';
import { checkLimit, together } from './limits.ts';
import { rankIn } from './place.ts';
import { joinRunningSprint } from '../sprint/join-leave.ts';

export class AddCard {
	@Id('board')
	board!: string;

	@Line('The title', 300)
	title!: string;

	/** In the board’s unit; left out or null for a card that is not sized. */
	@Optional()
	@OrNull()
	@Amount('The size')
	size?: number | null;

	/** The column it is added to; null for the backlog. */
	@OrNull()
	@Id('column')
	column!: string | null;

	/** The card right above its place; null for the top, left out for the end. */
	@Optional()
	@OrNull()
	@Id('card above')
	below?: string | null;

	/** The lane that it is put into; left out or null for none. */
	@Optional()
	@OrNull()
	@Id('lane')
	lane?: string | null;

	/** Why it is let through over a limit. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const addCard = boardCommand({
	name: 'AddCard',
	summary: 'Adds a card to a column or to the backlog.',
	input: AddCard,
	async run(context, input) {
		const { board, tx, at } = context;
		const target = input.column === null ? null : context.column(input.column);
		const { rank, standing } = await rankIn(context, input.column, input.below);
		const lane = input.lane ? context.lane(input.lane) : null;
		const to = intoLane(board.lanes, { lane: null, class: 'standard' }, lane);
		const { through, advice } = target
			? together(
					checkLimit(target, standing, 1, input.reason),
					await checkLanes(
						context,
						[{ before: null, after: { column_id: target.id, lane_id: to.lane, class: to.class } }],
						input.reason,
					),
				)
			: { through: null };
		const index = target ? board.columns.indexOf(target) : null;
		const clock = enter(board, NEW_CLOCK, index, at.getTime());
		const id = randomUUID();
		const size = input.size ?? null;
		const number = ++board.lastNumber;
		const date = (instant: number | null) => (instant === null ? null : new Date(instant));
		await tx.query(
			`insert into card (id, board_id, number, title, column_id, rank, clock, entered_at, started_at, finished_at, let_through, created_at, size, lane_id, class, "left")
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13::numeric, $14, $15, case when $7 = 'done' then 0 else coalesce($13::numeric, 0) end)`,
			[
				id,
				board.id,
				number,
				input.title,
				input.column,
				rank,
				clock.state,
				date(clock.entered),
				date(clock.started),
				date(clock.finished),
				through,
				at,
				size,
				to.lane,
				to.class,
			],
		);
		await tx.query('insert into stay (card_id, column_id, entered_at) values ($1, $2, $3)', [
			id,
			input.column,
			at,
		]);
		context.touched.set(id, { before: null, version: 1 });
		context.note(id, 'created', input.title);
		if (size !== null) context.note(id, 'sized', String(size));
		if (to.class !== 'standard') context.note(id, 'class', to.class);
		if (to.lane) context.note(id, 'lane', lane!.name);
		if (target) {
			context.note(id, 'column', target.name, null, through ? { letThrough: through } : null);
			await joinRunningSprint(context, { id, sprint_id: null });
		}
		return { result: { card: id, number }, advice };
	},
});
