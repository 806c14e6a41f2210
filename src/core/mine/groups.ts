import type { MineCard } from '../pages/mine.ts';

/** Somebody's own cards by what to do with them, each card once. */
export interface MineGroups {
	/** Begun and not waiting: to be finished first. */
	inHand: MineCard[];
	/** Somebody waits for an answer. */
	asked: MineCard[];
	/** To be begun, in the order of their boards. */
	next: MineCard[];
	/** Blocked, or waiting for another card. */
	waits: MineCard[];
}

/** Whether nothing can be done on a card before something else has happened. */
export const waiting = (card: MineCard): boolean => card.blocked !== null || card.waits.length > 0;

/** Whether a card is owned by somebody and begun. */
const begun = (card: MineCard) => card.clock === 'running';

/**
 * Groups cards by what to do with them. What is blocked stays in hand as long as it is begun, so that it is not forgotten;
 * what has not begun and waits for another card waits for others.
 * @param cards with the questions that are open, in the order of their boards
 * @param me who looks
 */
export function mineGroups(cards: readonly MineCard[], me: string): MineGroups {
	const asked = cards.filter((card) => card.asked);
	const own = cards.filter((card) => !card.asked && card.owners.includes(me) && card.clock !== 'done');
	return {
		inHand: own.filter(begun),
		asked,
		next: own.filter((card) => !begun(card) && !waiting(card)),
		waits: own.filter((card) => !begun(card) && waiting(card)),
	};
}
