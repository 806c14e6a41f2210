import { finding } from '../finding.ts';
import type { Finder } from '../state.ts';
import { entering } from './entering.ts';

/** Cards in work, or about to be, that nobody owns. */
export const noOwner: Finder = (state) =>
	entering(state).flatMap(({ card, where }) =>
		card.owners.length
			? []
			: [
					finding('no-owner', card.number, 2, 1, `Nobody owns it, and it is ${where}.`, {
						cards: [card.number],
						remedies: ['owners'],
					}),
				],
	);
