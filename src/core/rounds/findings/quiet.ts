import { count } from '../../words.ts';
import { finding, workingDaysAfter } from '../finding.ts';
import type { Finder } from '../state.ts';

const QUIET_DAYS = 3;

/** Cards in hand to which nothing has happened for days. */
export const quiet: Finder = ({ cards: all, today, works }) => {
	return all.flatMap((card) => {
		if (card.clock !== 'running') return [];
		// Whole days: today is not over.
		const n = workingDaysAfter(works, card.touched, today - 1);
		if (n < QUIET_DAYS) return [];
		return [
			finding('quiet', card.number, 2, n, `Nothing has happened to it for ${count(n, 'day')} of work.`, {
				cards: [card.number],
				remedies: ['ask', 'owners'],
			}),
		];
	});
};
