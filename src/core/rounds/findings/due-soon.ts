import { finding, inWorkingDays, workingDaysAfter } from '../finding.ts';
import type { Finder } from '../state.ts';

const SOON_DAYS = 2;

/** Cards that are due today, or within two working days. */
export const dueSoon: Finder = ({ cards, today, works }) =>
	cards.flatMap((card) => {
		if (card.due === null || card.clock === 'done' || card.clock === 'dropped' || today > card.due) return [];
		const n = workingDaysAfter(works, today, card.due);
		if (n > SOON_DAYS && card.due !== today) return [];
		return [
			finding(
				'due-soon',
				card.number,
				1,
				-n,
				card.due === today ? 'It is due today.' : `It is due ${inWorkingDays(n)}.`,
				{ cards: [card.number], remedies: ['date', 'ask', 'split'] },
			),
		];
	});
