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

/** Whether a correction of what is left is so large that its reason is kept: over half the size, or over 8 hours. */
export function needsReason(
	size: number | null,
	before: number,
	after: number,
	unit: 'hours' | 'points' | 'none',
): boolean {
	const by = Math.abs(after - before);
	return (size !== null && size > 0 && by > size / 2) || (unit === 'hours' && by > 8);
}

/** What the rest of a split card is called unless somebody says otherwise: `Mast, the rest`, then `Mast, the rest 2`. */
export function restTitle(title: string): string {
	const again = /^(.*), the rest(?: (\d+))?$/.exec(title);
	const ending = again ? `, the rest ${Number(again[2] ?? 1) + 1}` : ', the rest';
	return `${(again?.[1] ?? title).slice(0, 300 - ending.length)}${ending}`;
}
