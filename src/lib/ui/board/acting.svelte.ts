import type { CardView } from '$core/pages/board';
import type { Ask } from './ask';
import type { BoardState } from './board-state.svelte';
import type { CellAt } from './into-cell';

/** What somebody is in the middle of on a board: a dialog, a title that is changed, a card that is added. */
export class Acting {
	asking = $state.raw<Ask | null>(null);
	/** The card whose title is changed. */
	renaming = $state<string | null>(null);
	/** Where a card is added, below which other one: null on top, undefined at the end. */
	adding = $state<(CellAt & { below: string | null | undefined }) | null>(null);
	/** Whether keys are for that, and not for the board. */
	readonly busy = $derived.by(() =>
		Boolean(this.asking || this.renaming || this.adding || this.board().through),
	);

	constructor(private readonly board: () => BoardState) {}

	/** The title of a card that is done stays. */
	rename(card: CardView): void {
		if (card.clock !== 'done') this.renaming = card.id;
	}

	blockOrUnblock(card: CardView): void {
		if (!card.blocked) {
			this.asking = { kind: 'block', card };
			return;
		}
		const board = this.board();
		void board
			.unblock(card)
			.then((sent) => sent.ok && (board.spoken = `Card ${card.number} is no longer blocked.`));
	}
}
