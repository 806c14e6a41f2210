/** Cards wait in a queue, are worked on in work, are finished in done. */
export type ColumnKind = 'queue' | 'work' | 'done';

export const COLUMN_KINDS: readonly ColumnKind[] = ['queue', 'work', 'done'];

/** A column as figures know it. It keeps its identity under every name that it had, and after it was taken away. */
export interface LayoutColumn {
	name: string;
	kind: ColumnKind;
	/** What it was called before. No two names of a board, present or earlier, are the same. */
	was?: readonly string[];
	/** It was taken away: nothing stands in it any more, and pictures leave it out; its past counts. */
	retired?: boolean;
	/** It stands, and pictures leave it out. */
	hidden?: boolean;
}

/** The columns of a board in their order, and the place in that order of the commitment column. */
export interface Layout {
	columns: LayoutColumn[];
	commitment: number;
}

/**
 * Where a column of that name, present or earlier, stands; null for the backlog (an empty name) and for a name the board
 * does not have.
 */
export function columnIndex(layout: Layout, name: string): number | null {
	const index = layout.columns.findIndex((column) => column.name === name || column.was?.includes(name));
	return index < 0 ? null : index;
}
