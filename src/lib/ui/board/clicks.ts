import type { CardView } from '$core/pages/board';
import type { Acting } from './acting.svelte';
import type { Picked } from './picked.svelte';
import { Twice } from './twice';

/**
 * What clicks on the cards of a board do to whoever may change them: on a card's grip one asks where it goes, with Shift or
 * Ctrl it picks, and twice it renames instead of opening. Made where a component begins.
 */
export class Clicks {
	private readonly twice: Twice;

	constructor(
		private readonly cardOf: (id: string) => CardView | undefined,
		private readonly acting: Acting,
		private readonly picked: Picked,
	) {
		this.twice = new Twice((card) => (acting.renaming = card));
	}

	private under({ target }: MouseEvent): CardView | undefined {
		const id = (target as HTMLElement).closest<HTMLElement>('li[data-card]')?.dataset.card;
		return id === undefined ? undefined : this.cardOf(id);
	}

	/** To be heard before anything else on the page. */
	readonly onclickcapture = (event: MouseEvent): void => this.twice.onclickcapture(event);

	onclick(event: MouseEvent): void {
		const card = this.under(event);
		if (!card || event.defaultPrevented) return;
		if ((event.target as HTMLElement).closest('.grip')) {
			this.acting.asking = { kind: 'place', cards: this.picked.meant(card) };
			return;
		}
		if (event.shiftKey || event.ctrlKey || event.metaKey) {
			event.preventDefault();
			event.stopPropagation();
			this.picked.pick(card, event.shiftKey);
			return;
		}
		const link = (event.target as HTMLElement).closest<HTMLAnchorElement>('li[data-card] a');
		const mouse = event instanceof PointerEvent && event.pointerType === 'mouse';
		if (!link || !mouse || !event.detail || event.button || event.altKey || card.clock === 'done') return;
		event.preventDefault();
		event.stopPropagation();
		this.twice.open(card.id, link.href);
	}

	ondblclick(event: MouseEvent): void {
		const card = this.under(event);
		if (card) this.acting.rename(card);
	}
}
