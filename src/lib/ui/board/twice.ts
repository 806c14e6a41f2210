import { afterNavigate, goto } from '$app/navigation';

/**
 * A click of the mouse opens a card, a second one takes that back and renames it. Made where a component begins.
 */
export class Twice {
	/** The card that a click has just opened. */
	private opened: { card: string; done: Promise<void> } | null = null;
	/** The card that is renamed once what was opened is closed again. */
	private back: string | null = null;

	constructor(rename: (card: string) => void) {
		afterNavigate(() => {
			if (this.back) rename(this.back);
			this.back = null;
		});
	}

	open(card: string, address: string): void {
		this.opened = { card, done: goto(address, { noScroll: true, keepFocus: true }) };
	}

	/** To be heard before anything else: what was opened may lie under the pointer by now. */
	readonly onclickcapture = (event: MouseEvent): void => {
		const first = this.opened;
		this.opened = null;
		if (event.detail !== 2 || !first) return;
		event.preventDefault();
		event.stopPropagation();
		window.addEventListener('dblclick', (second) => second.stopPropagation(), { capture: true, once: true });
		void first.done.then(() => {
			this.back = first.card;
			history.back();
		});
	};
}
