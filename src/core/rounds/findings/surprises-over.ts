import { amount } from '../../words.ts';
import { finding } from '../finding.ts';
import type { Finder } from '../state.ts';

/** Unplanned work that took more than was kept back for it. */
export const surprisesOver: Finder = ({ surprises, sprint }) => {
	if (!surprises || !sprint) return [];
	const { worked, left, kept } = surprises;
	if (worked + left <= kept + 1e-9) return [];
	return [
		finding(
			'surprises-over',
			sprint.number,
			2,
			worked + left - kept,
			`Unplanned cards took ${amount(worked, 'hours')} and need ${amount(left, 'hours')} more; ${amount(kept, 'hours')} were kept back.`,
			{ cards: [...surprises.cards], remedies: ['plan', 'report'] },
		),
	];
};
