import { ask } from '../send';

/** Where more of a figure is to be seen. */
interface Link {
	href: string;
	words: string;
}

/** The figure of a page whose cards are looked at. They are asked for when somebody opens it; of two it is the later. */
export class Behind<C> {
	figure = $state.raw<{ title: string; cards: readonly C[]; link?: Link | undefined } | null>(null);
	#turn = 0;

	/** @param refused told in words when the cards cannot be had */
	constructor(private readonly refused: (words: string) => void) {}

	async open(title: string, path: string, link?: Link): Promise<void> {
		const turn = ++this.#turn;
		const found = await ask<C[]>(path);
		if (turn !== this.#turn) return;
		if (found.ok) this.figure = { title, cards: found.answer, link };
		else this.refused(found.refusal.title);
	}

	readonly close = (): void => {
		this.#turn++;
		this.figure = null;
	};
}
