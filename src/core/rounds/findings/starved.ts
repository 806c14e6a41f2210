import { count } from '../../words.ts';
import { finding, workingDaysAfter } from '../finding.ts';
import type { Finder } from '../state.ts';

/** Columns with free slots, while nothing in the queue before them can be pulled. */
export const starved: Finder = ({ columns, cards: all, today, works }) => {
	return columns.flatMap((column, i) => {
		if (column.starvedSince === null || column.limit === null) return [];
		const n = workingDaysAfter(works, column.starvedSince, today);
		if (n < 1) return [];
		const free = column.limit - all.filter((card) => card.column === i).length;
		return [
			finding(
				'starved',
				column.id,
				1,
				n,
				`${column.name} has ${free} free ${free === 1 ? 'slot' : 'slots'}, and nothing in ${columns[i - 1]!.name} could be pulled for ${count(n, 'day')}.`,
				{ column: column.id, remedies: ['replenish', 'board'] },
			),
		];
	});
};
