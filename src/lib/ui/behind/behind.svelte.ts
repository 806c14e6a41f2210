import { ask } from '../send';

/** The figure of a page whose cards are looked at. They are asked for when somebody opens it; of two it is the later. */
export class Behind<C> {
	figure = $state.raw<{ title: string; cards: readonly C[] } | null>(null);
	#turn = 0;

	/** @param refused told in words when the cards cannot be had */
	constructor(private readonly refused: (words: string) => void) {}

	async open(title: string, path: string): Promise<void> {
		const turn = ++this.#turn;
		const found = await ask<C[]>(path);
		if (turn !== this.#turn) return;
		if (found.ok) this.figure = { title, cards: found.answer };
		else this.refused(found.refusal.title);
	}

	readonly close = (): void => {
		this.#turn++;
		this.figure = null;
	};
}
