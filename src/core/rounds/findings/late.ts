import { count } from '../../words.ts';
import { finding } from '../finding.ts';
import type { Finder } from '../state.ts';

/** Cards whose due day has passed. */
export const late: Finder = ({ cards, today }) =>
	cards.flatMap((card) => {
		if (card.due === null || card.clock === 'done' || card.clock === 'dropped' || today <= card.due)
			return [];
		const n = today - card.due;
		return [
			finding('late', card.number, 3, n, `It was due ${count(n, 'day')} ago.`, {
				cards: [card.number],
				remedies: ['date', 'ask', 'split'],
			}),
		];
	});
