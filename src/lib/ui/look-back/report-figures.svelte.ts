import type { BEHIND_REPORT, ReportCard, ReportShown } from '$core/pages/look-back';
import type { Unit } from '$core/pages/board';
import { Behind } from '../behind/behind.svelte';
import { byCard } from './sentences';

interface Figure {
	title: string;
	cards: readonly { card: string; amount: number | null; note?: string }[];
}

/** The figure of a report whose cards are looked at: one whose cards the page knows, or one whose cards are asked for. */
export class ReportFigures {
	#known = $state.raw<Figure | null>(null);
	readonly #asked: Behind<ReportCard>;
	/** Amounts of what is asked for are hours; what happened on a day is told in words, in the board's unit. */
	readonly picked = $derived.by(() => {
		if (this.#known) return { ...this.#known, unit: this.unit(), titles: this.report().titles };
		const asked = this.#asked.figure;
		if (!asked) return null;
		return {
			...asked,
			cards: byCard(asked.cards, this.unit()),
			unit: 'hours' as const,
			titles: Object.fromEntries(asked.cards.map(({ card, title }) => [card, title])),
		};
	});

	/** @param refused told in words when the cards cannot be had */
	constructor(
		private readonly report: () => ReportShown,
		private readonly unit: () => Unit,
		private readonly slug: () => string,
		refused: (words: string) => void,
	) {
		this.#asked = new Behind(refused);
	}

	pick(title: string, cards: Figure['cards']): void {
		this.#asked.close();
		this.#known = { title, cards };
	}

	/** @param link where more of it is to be seen */
	ask(
		title: string,
		of: (typeof BEHIND_REPORT)[number],
		which: string,
		link?: { href: string; words: string },
	): void {
		this.#known = null;
		const query = new URLSearchParams({ of, which });
		const { number } = this.report().sprint;
		void this.#asked.open(title, `/boards/${this.slug()}/look-back/${number}/cards?${query}`, link);
	}

	readonly close = (): void => {
		this.#known = null;
		this.#asked.close();
	};
}
