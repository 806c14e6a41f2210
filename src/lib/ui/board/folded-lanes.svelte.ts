/** Lanes that somebody folded away on a board, in this browser. Made where a component begins. */
export class FoldedLanes {
	/** Their keys. */
	keys = $state.raw<ReadonlySet<string>>(new Set());
	readonly #where: () => string;

	/** @param where what they are kept by: the board, and what makes its lanes */
	constructor(where: () => string) {
		this.#where = where;
		$effect(() => {
			this.keys = new Set((localStorage.getItem(this.#name) ?? '').split(' ').filter(Boolean));
		});
	}

	get #name(): string {
		return `folded-lanes-${this.#where()}`;
	}

	/** Folds a lane away, or unfolds it. */
	turn(lane: string): void {
		const next = new Set(this.keys);
		if (!next.delete(lane)) next.add(lane);
		this.keys = next;
		localStorage.setItem(this.#name, [...next].join(' '));
	}
}
