import type { CardView } from '$core/pages/board';
import { Carry } from './carry.svelte';
import { dropAt } from './drag';
import { NONE } from './grid';
import type { CellAt } from './into-cell';

/** Where a card in hand would go: into which cell, below which card there. */
type Drop = CellAt & { below: string | null };

/** So near to the side of the board a card in hand brings what is beyond it, and so much of it each frame. */
const EDGE = 36;
const ACROSS = 9;

interface On {
	/** What is dragged over. */
	board: () => HTMLElement;
	/** Told when a card is taken from somewhere; the card, where it can be. */
	take: (id: string, source: HTMLElement) => CardView | undefined;
	/** Scrolls what is under the pointer. */
	scroll: (column: string | undefined, pixels: number) => void;
	dropped: (card: CardView, to: Drop) => void;
}

/** Cards being dragged from one cell of a board to another. */
export const carryCards = (on: On): Carry<Drop> =>
	new Carry<Drop>({
		take(id, source) {
			const card = on.take(id, source);
			return card && [card];
		},
		over(x, y, { cards }) {
			const drop = dropAt(x, y, cards[0]!.id);
			return drop && { ...drop, lane: (drop.lane ?? '').replace(NONE, '') };
		},
		same: (a, b) => a?.column === b?.column && a?.below === b?.below && a?.lane === b?.lane,
		pull(_x, y, drop) {
			const box = on.board().getBoundingClientRect();
			return !drop ? 0 : y > box.bottom - 60 ? 14 : y < box.top + 110 ? -14 : 0;
		},
		scroll: (drop, pixels) => on.scroll(drop?.column, pixels),
		// On a phone one column is in sight: a card held at the edge brings the next one.
		pullAcross(x) {
			const board = on.board();
			const box = board.getBoundingClientRect();
			if (board.scrollWidth <= board.clientWidth) return 0;
			return x > box.right - EDGE ? ACROSS : x < box.left + EDGE ? -ACROSS : 0;
		},
		scrollAcross(pixels) {
			on.board().style.scrollSnapType = 'none';
			on.board().scrollBy(pixels, 0);
		},
		ended: () => (on.board().style.scrollSnapType = ''),
		dropped: ({ cards: [card] }, to) => on.dropped(card!, to),
	});
