import { IsIn, IsInt, IsString, Max, MaxLength, Min } from 'class-validator';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, OrNull, Version } from '../../door/fields.ts';

export class ChangeColumn {
	@Id('column')
	column!: string;

	@Version()
	version!: number;

	/** How many cards may stand there; null for no limit. */
	@OrNull()
	@Max(999, { message: 'The limit may be at most 999.' })
	@Min(1, { message: 'The limit must be 1 or more.' })
	@IsInt({ message: 'The limit must be a whole number.' })
	limit!: number | null;

	/** What happens over the limit: people are told, or held until they give a reason. */
	@IsIn(['advise', 'hold'], { message: 'The limit either advises or holds.' })
	mode!: 'advise' | 'hold';

	@MaxLength(500, { message: 'The policy may have at most 500 characters.' })
	@IsString({ message: 'The policy must be text.' })
	policy!: string;
}

export const changeColumn = boardCommand({
	name: 'ChangeColumn',
	summary: 'Changes the limit of a column, what it does, and its policy.',
	input: ChangeColumn,
	role: 'lead',
	async run(context, input) {
		const column = context.column(input.column);
		if (column.version !== input.version)
			throw new Problem(
				409,
				'column.changed',
				`${column.name} was changed after you last saw it. Look at it as it stands now and try again.`,
				'version',
			);
		await context.keep('board_column', { id: column.id });
		await context.tx.query(
			`update board_column set wip_limit = $2, limit_mode = $3, policy = $4, version = version + 1 where id = $1`,
			[column.id, input.limit, input.mode, input.policy.trim()],
		);
		const { limit, mode, policy } = column;
		context.note(
			null,
			'column-changed',
			column.name,
			{ limit, mode, policy },
			{ limit: input.limit, mode: input.mode, policy: input.policy.trim() },
		);
	},
});
