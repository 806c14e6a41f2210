/** The size of a card (null: not sized) and what is left of it. */
export interface Sizing {
	size: number | null;
	left: number;
}

/**
 * A card after it was given a size: what is left moves by the same difference, not below 0; a first size sets it.
 * A done card has nothing left, so only its size changes.
 */
export function sized<S extends Sizing>(card: S, size: number, done: boolean): Sizing {
	if (done) return { size, left: card.left };
	return { size, left: card.size === null ? size : Math.max(0, card.left + size - card.size) };
}

/** A card after a part of it went to another card: what is left and the size fall by at most what is left. */
export function splitOff<S extends Sizing>(card: S, part: number): Sizing & { part: number } {
	const gone = Math.min(card.left, part);
	return {
		part: gone,
		left: card.left - gone,
		size: card.size === null ? null : Math.max(0, card.size - gone),
	};
}
