import { randomUUID } from 'node:crypto';
import { IsIn } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Optional } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { lanesOf, refuseEmpty, refuseLaneName } from './lanes.ts';

/** So many lanes still can be read. */
const MOST = 12;

export class AddLane {
	@Id('board')
	board!: string;

	@Line('The name of the lane', 40)
	name!: string;

	/** The class of service whose cards stand in it; left out for one into which cards are put. */
	@Optional()
	@IsIn(['expedite', 'fixed', 'standard', 'background'], {
		message: 'The class is expedite, fixed, standard or background.',
	})
	class?: 'expedite' | 'fixed' | 'standard' | 'background';
}

export const addLane = boardCommand({
	name: 'AddLane',
	summary: 'Adds a lane across the columns of a board, for a class of service or for what is put there.',
	input: AddLane,
	role: 'lead',
	async run(context, input) {
		const { tx, board } = context;
		const lanes = await lanesOf(context);
		refuseLaneName(lanes, input.name);
		if (lanes.filter(({ retired }) => !retired).length >= MOST)
			throw new Problem(409, 'lane.too_many', `A board has at most ${MOST} lanes.`, 'name');
		const lane = { id: randomUUID() as string, class: input.class ?? null };
		refuseEmpty([...lanes, { ...lane, name: input.name, limit: null, mode: 'advise', retired: false }], lane);
		await context.keep('lane', { id: lane.id });
		await tx.query(
			`insert into lane (id, board_id, name, class, position)
			select $1, $2, $3, $4, coalesce(max(position) + 1, 0) from lane where board_id = $2`,
			[lane.id, board.id, input.name, lane.class],
		);
		context.note(null, 'lane-added', input.name, null, { class: lane.class });
		return { result: { lane: lane.id } };
	},
});
