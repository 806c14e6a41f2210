import type { CardView } from '$core/pages/board';
import { count } from '../words';

/** Cards that a person picked, to do something with all of them at once. */
export class Picked {
	ids = $state.raw<ReadonlySet<string>>(new Set());
	/** Those of them that still stand where they were picked. */
	readonly cards = $derived.by(() => this.standing(this.ids));
	/** Where a range of them begins. */
	private anchor: string | null = null;

	/**
	 * @param standing the cards of these ids that still stand there
	 * @param shown all cards there, in the order in which they are shown
	 * @param say tells it to a screen reader
	 */
	constructor(
		private readonly standing: (ids: ReadonlySet<string>) => CardView[],
		private readonly shown: () => readonly CardView[],
		private readonly say: (text: string) => void,
	) {}

	/** Picks a card, or puts it back; or all from the one picked last up to it. */
	pick(card: CardView, range: boolean): void {
		const next = new Set(this.ids);
		const shown = this.shown();
		const from = range && this.anchor ? shown.findIndex(({ id }) => id === this.anchor) : -1;
		if (from >= 0) {
			const to = shown.findIndex(({ id }) => id === card.id);
			for (const one of shown.slice(Math.min(from, to), Math.max(from, to) + 1)) next.add(one.id);
		} else if (!next.delete(card.id)) next.add(card.id);
		this.anchor = card.id;
		this.take(next);
	}

	/** Picks these, and no others unless there are to be more. */
	take(ids: Iterable<string>, more = false): void {
		this.ids = new Set([...(more ? this.ids : []), ...ids]);
		this.say(`${count(this.ids.size, 'card')} picked.`);
	}

	clear(): void {
		this.ids = new Set();
	}

	/** What an action on a card speaks of: all picked ones when it is one of them. */
	meant(card: CardView): CardView[] {
		return this.ids.has(card.id) && this.cards.length ? this.cards : [card];
	}
}
