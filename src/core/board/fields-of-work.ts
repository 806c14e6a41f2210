import type { CardView } from '../pages/board.ts';
import { amount, figure } from '../words.ts';
import type { Field, Looking } from './field.ts';
import { isOpen } from './field-values.ts';
import { ownLeft } from './left.ts';

/** How much work a card is, what is left of it, and how much is done. */
export function fieldsOfWork({ board }: Looking): (Field | false)[] {
	const leftOf = (card: CardView) =>
		card.parts?.left ?? (card.size === null && !card.left ? null : card.left);
	return [
		board.unit !== 'none' && {
			id: 'size',
			name: 'Size',
			also: ['estimate', 'hours', 'points', 'effort'],
			text: ({ size, parts }) =>
				parts ? amount(parts.size, board.unit) : size === null ? '' : amount(size, board.unit),
			order: ({ size, parts }) => parts?.size ?? size,
			cell: ({ size, parts }) => parts?.size ?? size,
			sum: ({ size, parts }) => (parts ? 0 : (size ?? 0)),
			said: [{ key: '~none', words: 'not sized', is: ({ size, parts }) => size === null && !parts }],
		},
		board.unit !== 'none' && {
			id: 'left',
			name: 'Left',
			text: (card) =>
				card.parts
					? amount(card.parts.left, board.unit)
					: card.size === null && !card.left
						? ''
						: amount(card.left, board.unit),
			order: leftOf,
			cell: leftOf,
			sum: ownLeft,
		},
		{
			id: 'done',
			name: 'Done',
			text: (card) => percent(card),
			order: (card) => share(card),
			said: [
				{ key: '~begun', words: 'begun', is: (card) => isOpen(card) && (share(card) ?? 0) > 0 },
				{ key: '~half', words: 'at least half done', is: (card) => (share(card) ?? 0) >= 0.5 },
			],
		},
	];
}

/**
 * How much of a card is done, from 0 to 1: what somebody said of it, else by what is left of its size, else by its
 * checklist; null where nothing says.
 */
export function share({ clock, parts, size, left, checks, percent }: CardView): number | null {
	if (clock === 'done') return 1;
	if (typeof percent === 'number') return percent / 100;
	if (parts) return parts.size ? 1 - parts.left / Math.max(parts.size, parts.left) : parts.done / parts.cards;
	if (size) return 1 - left / Math.max(size, left);
	return checks ? checks.done / checks.lines : null;
}
const percent = (card: CardView) => {
	const done = share(card);
	return done === null ? '' : `${figure(done * 100, 0)}%`;
};
