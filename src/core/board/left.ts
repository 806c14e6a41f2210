import { fsum } from 'd3-array';
import type { CardView } from '../pages/board.ts';

/** What is left of a card itself: of one with sub-cards nothing, as theirs is all that is left of it. */
export const ownLeft = ({ parts, left }: Pick<CardView, 'parts' | 'left'>): number => (parts ? 0 : left);

/** What is left of cards, each piece of work once. */
export const leftOf = (cards: readonly Pick<CardView, 'parts' | 'left'>[]): number => fsum(cards, ownLeft);

/** What is left of cards that are meant with their sub-cards, wherever those stand; each piece of work once. */
export function leftWithParts(cards: readonly Pick<CardView, 'id' | 'parent' | 'parts' | 'left'>[]): number {
	const among = new Set(cards.map(({ id }) => id));
	return fsum(cards, ({ parent, parts, left }) =>
		parent !== null && among.has(parent) ? 0 : (parts?.left ?? left),
	);
}
