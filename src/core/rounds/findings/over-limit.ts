import { finding } from '../finding.ts';
import type { Finder } from '../state.ts';

const FAR = 1.5;

/** Columns that hold more than their limit. */
export const overLimit: Finder = ({ columns, cards: all }) => {
	return columns.flatMap((column, i) => {
		const standing = all.filter((card) => card.column === i);
		if (column.limit === null || standing.length <= column.limit) return [];
		return [
			finding(
				'over-limit',
				column.id,
				standing.length > FAR * column.limit ? 3 : 2,
				standing.length / column.limit,
				`${column.name} holds ${standing.length} with a limit of ${column.limit}: finish or move one before another comes.`,
				{
					cards: standing.map((card) => card.number),
					column: column.id,
					remedies: ['move-on', 'board', 'limit'],
				},
			),
		];
	});
};
