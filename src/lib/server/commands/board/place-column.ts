import { boardCommand } from '../../door/command.ts';
import { Id, OrNull, Version } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { allColumns, reclock, seenColumn, writeOrder } from './columns.ts';

export class PlaceColumn {
	@Id('column')
	column!: string;

	@Version()
	version!: number;

	/** The column that it comes right after; null for the first place. */
	@OrNull()
	@Id('column before')
	after!: string | null;
}

export const placeColumn = boardCommand({
	name: 'PlaceColumn',
	summary: 'Puts a column to another place of its board.',
	input: PlaceColumn,
	role: 'lead',
	async run(context, input) {
		const columns = await allColumns(context);
		const column = seenColumn(columns, input.column, input.version);
		if (input.after === column.id)
			throw new Problem(422, 'invalid.after', 'A column cannot come after itself.', 'after');
		if (input.after !== null) context.column(input.after);
		const ids = columns.map(({ id }) => id).filter((id) => id !== column.id);
		ids.splice(input.after === null ? 0 : ids.indexOf(input.after) + 1, 0, column.id);
		await writeOrder(context, ids);
		const cards = await reclock(context, columns);
		const before = columns.find(({ id }) => id === input.after)?.name ?? '';
		context.note(null, 'column-placed', column.name, null, { after: before, cards });
	},
});
