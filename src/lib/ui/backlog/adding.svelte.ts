import type { BoardState } from '../board/board-state.svelte';
import type { Fresh } from '../board/fresh.svelte';

/** Where a new line goes, as somebody chooses it. */
export const WHERE = { ready: 'below what is ready', top: 'on top', end: 'at the end' };

/** Lines that are added to a backlog, one after the other. */
export class Adding {
	where = $state<keyof typeof WHERE>('ready');
	/** The card below whose row somebody writes, which is then the one that was added. */
	below = $state<string | null>(null);
	/** What was added, with its place in the order. */
	said = $state('');
	/** What was added last, until the list has it and its place can be said. */
	private added = $state.raw<{ id: string; words: string } | null>(null);
	/** The line that was added before, below which the next one goes. */
	private last: string | undefined;

	/** Made where a component begins. */
	constructor(
		private readonly board: () => BoardState,
		private readonly fresh: Fresh,
	) {
		$effect(() => {
			if (!this.added) return;
			const { id, words } = this.added;
			const { backlog } = board();
			const at = backlog.findIndex((card) => card.id === id) + 1;
			if (!at) return;
			this.said = `Added ${words}, at position ${at} of ${backlog.length}.`;
			[board().spoken, this.added] = [this.said, null];
		});
	}

	/** The card below which the next line goes: null for on top, undefined for the end. */
	under(): string | null | undefined {
		const { cards, backlog } = this.board();
		if (this.last && cards.has(this.last)) return this.last;
		if (this.where === 'ready') return backlog.findLast((card) => card.ready && !card.parent)?.id;
		return this.where === 'top' ? null : undefined;
	}

	/** The next line goes where it is chosen, and not below the one before. */
	anew(): void {
		this.last = undefined;
	}

	/** @returns whether the lines were added */
	async add(
		pasted: Parameters<BoardState['addPasted']>[0],
		under: string | null | undefined,
	): Promise<boolean> {
		const sent = await this.board().addPasted(pasted, under);
		if (!sent.ok) return false;
		const all = sent.answer.result.cards;
		const made = all.at(-1)!;
		this.fresh.add(all.map(({ id }) => id));
		this.last = made.id;
		if (this.below) this.below = made.id;
		this.added = { id: made.id, words: `“${pasted[0]!.title}” as ${made.number}` };
		return true;
	}
}
