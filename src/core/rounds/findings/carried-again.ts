import { finding } from '../finding.ts';
import type { Finder } from '../state.ts';

/** Cards that were carried over twice or more. */
export const carriedAgain: Finder = ({ cards: all, sprint }) => {
	return all.flatMap((card) =>
		sprint && card.sprint === sprint.number && card.carried >= 2 && card.clock !== 'done'
			? [
					finding(
						'carried-again',
						card.number,
						2,
						card.carried,
						`Carried over ${card.carried} times: what keeps it from being finished?`,
						{ cards: [card.number], remedies: ['split', 'ask'] },
					),
				]
			: [],
	);
};
