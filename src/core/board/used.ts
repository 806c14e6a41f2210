import type { Switch } from '../flow/set-up.ts';
import type { BoardHead, CardView } from '../pages/board.ts';

type Using = Pick<BoardHead, 'off' | 'lanes'>;

/** Whether a board uses a part that it can do without. Lanes that stand for classes use those. */
export const uses = ({ off, lanes }: Using, part: Switch): boolean =>
	!off.includes(part) || (part === 'classes' && lanes.some((lane) => lane.class !== null));

/** A card as a board shows it: without what the board does not use. Nothing of it is lost. */
export function asUsed<C extends Pick<CardView, 'class' | 'type' | 'start' | 'due'>>(
	board: Using,
	card: C,
): C {
	if (!board.off.length) return card;
	return {
		...card,
		...(uses(board, 'classes') ? {} : { class: 'standard' }),
		...(uses(board, 'types') ? {} : { type: '' }),
		...(uses(board, 'dates') ? {} : { start: null, due: null }),
	};
}
