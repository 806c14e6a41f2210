import { uses } from '$core/board/used';
import type { CardView } from '$core/pages/board';
import { pressed, type Does } from '../frame/keymap';
import type { BoardState } from './board-state.svelte';
import type { Acting } from './acting.svelte';
import type { CellAt } from './into-cell';
import type { Picked } from './picked.svelte';
import type { Spot } from './spot.svelte';
import type { Goal } from './steps';

/** What keys of a board work on. */
interface On {
	board: BoardState;
	spot: Spot;
	acting: Acting;
	picked: Picked;
	/** Whether single keys do something. */
	single: boolean;
	mayEdit: boolean;
	/** Where a card is added where none has the focus; null where none can be. */
	first: CellAt | null;
	move: (card: CardView, from: CellAt, to: CellAt, below: Goal['below']) => void;
	onpast: () => void;
	onkeys: () => void;
}

/** Does what a key means on a board. */
export function onBoardKey(event: KeyboardEvent, on: On): void {
	const { board, spot, acting, picked } = on;
	const target = event.target as HTMLElement;
	if (acting.busy || target.matches('input, textarea, select')) return;
	const id = target.closest<HTMLElement>('li[data-card]')?.dataset.card;
	const card = id === undefined ? undefined : board.cards.get(id);
	const does = pressed('board', event, { single: on.single, write: on.mayEdit });
	const acts: Record<Exclude<Does<'board'>, 'find' | 'open'>, () => unknown> = {
		go: () => card && spot.go(card, event.key),
		move() {
			const moved = card && spot.moved(card, event.key);
			if (moved) on.move(card, moved.from, moved.to, moved.below);
		},
		add() {
			if (!on.first)
				return board.tell({
					tone: 'care',
					text: 'Cards are added where the board is arranged by its own columns and lanes.',
				});
			const cell = card && spot.cellOf(card);
			acting.adding = cell ? { ...cell, below: card.id } : { ...on.first, below: undefined };
		},
		send: () => card && (acting.asking = { kind: 'place', cards: picked.meant(card) }),
		pick: () => card && picked.pick(card, event.shiftKey),
		unpick: () => picked.clear(),
		rename: () => card && acting.rename(card),
		block: () => card && acting.blockOrUnblock(card),
		owners: () => card && (acting.asking = { kind: 'owners', cards: picked.meant(card) }),
		size: () => card && (acting.asking = { kind: 'size', card }),
		time: () => card && !card.parts && uses(board.head, 'hours') && (acting.asking = { kind: 'time', card }),
		past: on.onpast,
		undo: () => void board.undo(),
		help: on.onkeys,
	};
	// Finding and opening are done by others: by the bar, and by the link that has the focus.
	if (!does || does === 'find' || does === 'open') return;
	if ((does === 'go' || does === 'move') && !card) return;
	if (does === 'unpick' && !picked.ids.size) return;
	event.preventDefault();
	acts[does]();
}
