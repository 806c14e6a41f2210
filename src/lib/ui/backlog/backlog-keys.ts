import type { CardView } from '$core/pages/board';
import type { Ask } from '../board/ask';
import type { BoardState } from '../board/board-state.svelte';
import type { Picked } from '../board/picked.svelte';
import { pressed, type Does } from '../frame/keymap';
import type { Row } from './rows';

/** What keys of a backlog work on. */
interface On {
	board: BoardState;
	rows: readonly Row[];
	picked: Picked;
	/** Whether single keys do something. */
	single: boolean;
	mayEdit: boolean;
	/** What an action on a card speaks of. */
	meant: (card: CardView) => CardView[];
	onask: (ask: Ask) => void;
	/** Gives a row the focus. */
	onrow: (key: string) => void;
	/** One place up or down; below a card, on top (null) or at the end. */
	onstep: (card: CardView, by: 1 | -1) => void;
	onplace: (cards: CardView[], under: null | undefined) => void;
	/** Adds below a card, or above the list. */
	onadd: (card: CardView | undefined) => void;
	onpull: (cards: CardView[]) => void;
	onkeys: () => void;
}

/** Does what a key means on a backlog. */
export function onBacklogKey(event: KeyboardEvent, on: On): void {
	const { board, rows, picked, meant, onask } = on;
	const target = event.target as HTMLElement;
	if (target.matches('input:not([type="checkbox"]), textarea, select')) return;
	const does = pressed('backlog', event, { single: on.single, write: on.mayEdit });
	if (!does || does === 'find' || does === 'open') return;
	const row = target.closest<HTMLElement>('li[data-row]')?.dataset.row;
	const at = rows.findIndex((one) => one.key === row);
	const here = rows[at];
	const card = here?.kind === 'card' ? here.card : undefined;
	if ((does === 'go' || does === 'move') && !card) return;
	if (does === 'unpick' && !picked.ids.size) return;
	const inRow = (selector: string) => target.closest('li')?.querySelector<HTMLElement>(selector)?.focus();
	const acts: Record<Exclude<Does<'backlog'>, 'find' | 'open'>, () => unknown> = {
		go() {
			const next = rowBy(rows, at, event.key);
			if (next) on.onrow(next.key);
		},
		move() {
			if (event.key === 'ArrowUp') on.onstep(card!, -1);
			else if (event.key === 'ArrowDown') on.onstep(card!, 1);
			else on.onplace(meant(card!), event.key === 'Home' ? null : undefined);
		},
		position: () => card && onask({ kind: 'position', cards: meant(card) }),
		pick: () => card && picked.pick(card, event.shiftKey),
		unpick: () => picked.clear(),
		add: () => on.onadd(card),
		size: () => card && !card.parts && inRow('.size'),
		owners: () => card && onask({ kind: 'owners', cards: meant(card) }),
		labels: () => card && onask({ kind: 'labels', cards: meant(card) }),
		type: () => inRow('.type'),
		initiative: () => inRow('.initiative'),
		ready() {
			const ready = board.fields.find(({ id }) => id === 'ready')!;
			if (card) void board.choose(meant(card), ready, card.ready ? '' : 'yes');
		},
		split: () => card && onask({ kind: 'split', card }),
		pull: () => card && board.head.sprintDays === null && on.onpull(meant(card)),
		undo: () => void board.undo(),
		help: on.onkeys,
	};
	event.preventDefault();
	acts[does]();
}

/** The row of a card to which a key leads from another row. */
function rowBy(rows: readonly Row[], at: number, key: string): Row | undefined {
	const isCard = ({ kind }: Row) => kind === 'card';
	switch (key) {
		case 'ArrowUp':
			return rows.slice(0, at).findLast(isCard);
		case 'ArrowDown':
			return rows.slice(at + 1).find(isCard);
		case 'Home':
			return rows.find(isCard);
		default:
			return rows.findLast(isCard);
	}
}
