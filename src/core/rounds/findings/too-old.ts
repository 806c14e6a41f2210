import { count } from '../../words.ts';
import { finding, since } from '../finding.ts';
import type { Finder } from '../state.ts';

const FAR = 1.5;

/** Cards in hand for longer than most past ones took. */
export const tooOld: Finder = ({ cards: all, today, expectation }) => {
	if (!expectation) return [];
	return all.flatMap((card) => {
		if (card.clock !== 'running' || card.started === null) return [];
		const age = since(card.started, today);
		if (age <= expectation.days) return [];
		return [
			finding(
				'too-old',
				card.number,
				age > FAR * expectation.days ? 3 : 2,
				age,
				`On day ${age}: ${expectation.percentile}% of past cards took ${count(expectation.days, 'day')} or fewer.`,
				{ cards: [card.number], remedies: ['split', 'owners', 'ask'] },
			),
		];
	});
};
