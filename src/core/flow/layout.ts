/** Cards wait in a queue, are worked on in work, are finished in done. */
export type ColumnKind = 'queue' | 'work' | 'done';

export const COLUMN_KINDS: readonly ColumnKind[] = ['queue', 'work', 'done'];

/** The columns of a board in their order, and the place in that order of the commitment column. */
export interface Layout {
	columns: { name: string; kind: ColumnKind }[];
	commitment: number;
}

/** Where a column of that name stands; null for the backlog (an empty name) and for a name the board does not have. */
export function columnIndex(layout: Layout, name: string): number | null {
	const index = layout.columns.findIndex((column) => column.name === name);
	return index < 0 ? null : index;
}
