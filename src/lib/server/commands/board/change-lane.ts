import { IsBoolean, IsIn, IsInt, Max, Min } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Optional, OrNull } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { lanesOf, refuseEmpty, refuseLaneName } from './lanes.ts';

export class ChangeLane {
	@Id('board')
	board!: string;

	@Id('lane')
	lane!: string;

	@Optional()
	@Line('The name of the lane', 40)
	name?: string;

	/** How many unfinished cards may stand in it; null for no limit. */
	@Optional()
	@OrNull()
	@Max(999, { message: 'The limit may be at most 999.' })
	@Min(1, { message: 'The limit must be 1 or more.' })
	@IsInt({ message: 'The limit must be a whole number.' })
	limit?: number | null;

	/** What happens over the limit: people are told, or held until they give a reason. */
	@Optional()
	@IsIn(['advise', 'hold'], { message: 'The limit either advises or holds.' })
	mode?: 'advise' | 'hold';

	/** Its place among the lanes, from 0. */
	@Optional()
	@Max(100, { message: 'The place may be at most 100.' })
	@Min(0, { message: 'The place must be 0 or more.' })
	@IsInt({ message: 'The place must be a whole number.' })
	place?: number;

	/** Whether it is offered no more; its cards stand in no lane until it is offered again. */
	@Optional()
	@IsBoolean({ message: 'A lane is retired or not: true or false.' })
	retired?: boolean;
}

export const changeLane = boardCommand({
	name: 'ChangeLane',
	summary: 'Changes a lane: its name, limit and what that does, its place, and whether it stands.',
	input: ChangeLane,
	role: 'lead',
	async run(context, input) {
		const { tx, board, at } = context;
		await context.keep('lane', input.place === undefined ? { id: input.lane } : { board_id: board.id });
		const lanes = await lanesOf(context);
		const lane = lanes.find(({ id }) => id === input.lane);
		if (!lane) throw new Problem(422, 'lane.unknown', 'This board has no such lane.', 'lane');
		if (input.name !== undefined) refuseLaneName(lanes, input.name, lane.id);
		const place = lanes.indexOf(lane);
		const after = {
			name: input.name ?? lane.name,
			limit: input.limit === undefined ? lane.limit : input.limit,
			mode: input.mode ?? lane.mode,
			place: input.place ?? place,
			retired: input.retired ?? lane.retired,
		};
		refuseEmpty(
			lanes.map((one) => (one === lane ? { ...one, retired: after.retired } : one)),
			after.retired ? { id: lane.id, class: null } : lane,
		);
		await tx.query(
			`update lane set name = $2, wip_limit = $3, limit_mode = $4,
				retired_at = case when $5 then coalesce(retired_at, $6) end, version = version + 1
			where id = $1`,
			[lane.id, after.name, after.limit, after.mode, after.retired, at],
		);
		if (input.place !== undefined) {
			const ids = lanes.map(({ id }) => id).filter((id) => id !== lane.id);
			ids.splice(input.place, 0, lane.id);
			await tx.query(
				`update lane l set position = o.n - 1
				from unnest($1::uuid[]) with ordinality as o(id, n)
				where l.id = o.id`,
				[ids],
			);
		}
		const { name, limit, mode, retired } = lane;
		context.note(null, 'lane-changed', after.name, { name, limit, mode, place, retired }, after);
	},
});
