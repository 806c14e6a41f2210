import { IsBoolean, IsIn, IsInt, IsString, Max, MaxLength, Min } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import type { LockedColumn } from '../../door/contexts.ts';
import { Id, Line, Optional, OrNull, Version } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { allColumns, reclock, refuseDone, refuseName, refuseWithout, seenColumn } from './columns.ts';

export class ChangeColumn {
	@Id('column')
	column!: string;

	@Version()
	version!: number;

	/** What it is called from now on; the history keeps telling of it by what it was called then. */
	@Optional()
	@Line('The name of the column', 40)
	name?: string;

	/** Whether cards wait in it, are worked on, or are done. */
	@Optional()
	@IsIn(['queue', 'work', 'done'], {
		message: 'Cards wait in a column, are worked on or are done: queue, work or done.',
	})
	kind?: 'queue' | 'work' | 'done';

	/** How many cards may stand there; null for no limit. */
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

	@Optional()
	@MaxLength(500, { message: 'The policy may have at most 500 characters.' })
	@IsString({ message: 'The policy must be text.' })
	policy?: string;

	/** Whether it stands without being shown. */
	@Optional()
	@IsBoolean({ message: 'A column is hidden or not: true or false.' })
	hidden?: boolean;
}

/** What of a column can be changed here. */
type Settings = Pick<LockedColumn, 'name' | 'kind' | 'limit' | 'mode' | 'policy'> & { hidden: boolean };

export const changeColumn = boardCommand({
	name: 'ChangeColumn',
	summary: 'Changes a column: its name, kind, limit and what that does, its policy, and whether it is shown.',
	input: ChangeColumn,
	role: 'lead',
	async run(context, input) {
		const columns = await allColumns(context, input.column);
		const column = seenColumn(columns, input.column, input.version);
		const { name, kind, limit, mode, policy } = context.column(input.column);
		const before: Settings = { name, kind, limit, mode, policy, hidden: column.hidden };
		const after: Settings = {
			name: input.name ?? name,
			kind: input.kind ?? kind,
			limit: input.limit === undefined ? limit : input.limit,
			mode: input.mode ?? mode,
			policy: input.policy?.trim() ?? policy,
			hidden: input.hidden ?? column.hidden,
		};
		if (after.name !== name) refuseName(columns, after.name, column.id);
		await refuseDone(context, column, after.kind);
		if (column.commitment && after.kind === 'done')
			throw new Problem(
				409,
				'column.clock',
				`A card’s clock starts in ${name}: move the clock to another column first.`,
				'kind',
			);
		refuseWithout(
			columns.map((one) => (one.id === column.id ? { ...one, kind: after.kind, hidden: after.hidden } : one)),
			'kind',
		);
		await context.tx.query(
			`update board_column
			set name = $2, kind = $3, wip_limit = $4, limit_mode = $5, policy = $6, hidden = $7, version = version + 1
			where id = $1`,
			[column.id, after.name, after.kind, after.limit, after.mode, after.policy, after.hidden],
		);
		await reclock(context, columns);
		context.note(null, 'column-changed', after.name, before, after);
	},
});
