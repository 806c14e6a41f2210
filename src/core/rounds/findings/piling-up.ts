import { count } from '../../words.ts';
import { finding } from '../finding.ts';
import type { Finder } from '../state.ts';

/** Fewer cards than this are no pile. */
const PILE = 3;

/** Queues that are fuller than they usually are. */
export const pilingUp: Finder = ({ columns, cards: all }) => {
	return columns.flatMap((column, i) => {
		if (column.kind !== 'queue' || column.usual === null) return [];
		const waiting = all.filter((card) => card.column === i);
		if (waiting.length <= column.usual || waiting.length < PILE) return [];
		return [
			finding(
				'piling-up',
				column.id,
				1,
				waiting.length,
				`${count(waiting.length, 'card')} wait in ${column.name}; at the end of 85% of the last 90 days it was ${column.usual || 'none'}${column.usual ? ' or fewer' : ''}.`,
				{
					cards: waiting.map((card) => card.number),
					column: column.id,
					remedies: ['move-on', 'board', 'limit'],
				},
			),
		];
	});
};
