import { draftOf, keepDraft } from '../drafts';

/** A card's title as somebody changes it: what is typed stays, whatever somebody else makes of it meanwhile. */
export class Title {
	text = $state('');
	/** What somebody else made of it meanwhile: whose it shall be is asked for. */
	theirs = $state<string | null>(null);
	/** As it was when typing began. */
	private base = $state('');

	/**
	 * Made where a component begins.
	 * @param key the card's, once it has been read
	 */
	constructor(key: () => string | undefined) {
		$effect(() => {
			const of = key();
			const typed = this.text.trim();
			if (of) keepDraft(`title-${of}`, typed && typed !== this.base ? this.text : null);
		});
	}

	/** Another card was opened: what was typed of its title before, here, is there again. */
	open(key: string, title: string, mayEdit: boolean): void {
		this.base = title;
		this.text = (mayEdit ? draftOf(`title-${key}`) : null) ?? title;
	}

	/** The card was read again. */
	reread(title: string): void {
		if (this.text.trim() === this.base) this.base = this.text = title;
		else if (title !== this.base) this.theirs = title;
	}

	/** Ends typing; the title that the card is to have, nothing where it has it or where it is not known whose it shall be. */
	ended(now: string): string | null {
		const text = this.text.trim();
		if (this.theirs !== null && text !== this.theirs) return null;
		if (!text || text === now) this.text = now;
		this.base = this.text.trim();
		this.theirs = null;
		return text && text !== now ? text : null;
	}

	/** Says whose title it shall be, where two have written one. */
	decide(mine: boolean): void {
		const other = this.theirs ?? '';
		this.theirs = null;
		if (!mine) this.text = this.base = other;
	}
}
