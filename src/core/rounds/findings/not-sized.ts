import { finding } from '../finding.ts';
import type { Finder } from '../state.ts';
import { entering } from './entering.ts';

/** Cards in work, or about to be, without a size. */
export const notSized: Finder = (state) =>
	entering(state).flatMap(({ card, where }) =>
		card.size !== null || state.unit === 'none'
			? []
			: [
					finding(
						'not-sized',
						card.number,
						1,
						1,
						`It has no size, and it is ${where}: no figure of the sprint counts it.`,
						{ cards: [card.number], remedies: ['size'] },
					),
				],
	);
