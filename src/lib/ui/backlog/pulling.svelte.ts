import type { CardView } from '$core/pages/board';
import { pullOrder, replenishment } from '$core/backlog/replenish';
import type { BoardState } from '../board/board-state.svelte';

/** At most so many are offered at once. */
const MOST = 50;

/** The cards of a board without sprints that are pulled into its first column. */
export class Pulling {
	/** Those that are on their way. */
	private under = $state.raw<ReadonlySet<string>>(new Set());
	/** Those that come next, as many as there are free slots. */
	readonly next = $derived.by(() => {
		const { head, backlog } = this.board();
		if (head.sprintDays !== null) return [];
		const free = replenishment(head.columns[0]!.limit, this.standing());
		return pullOrder(backlog.filter((card) => !card.parts)).slice(0, Math.min(MOST, free));
	});
	private readonly ids = $derived(new Set(this.next.map(({ id }) => id)));

	/** @param standing how many cards the first column holds */
	constructor(
		private readonly board: () => BoardState,
		private readonly standing: () => number,
	) {}

	/** Whether a card comes next, or is on its way. */
	has(id: string): boolean {
		return this.ids.has(id) || this.under.has(id);
	}

	/**
	 * Pulls cards into the first column: those that come next, or those that were chosen, urgent ones with a reason.
	 * @returns whether they are there
	 */
	async pull(chosen: readonly CardView[]): Promise<boolean> {
		const board = this.board();
		const whole = chosen.filter((card) => !card.parts);
		if (!whole.length) return false;
		this.under = new Set(whole.map(({ id }) => id));
		const sent = await board.replenish(whole);
		this.under = new Set();
		if (!sent.ok) return false;
		const what = whole.length === 1 ? `Card ${whole[0]!.number} is` : `${whole.length} cards are`;
		const text = `${what} in ${board.head.columns[0]!.name}.`;
		board.tell({
			tone: sent.answer.advice ? 'care' : 'done',
			text: sent.answer.advice ? `${text} ${sent.answer.advice}` : text,
			undo: sent.answer.id,
		});
		return true;
	}
}
