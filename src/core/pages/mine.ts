import type { CardView, Role, Unit } from './board.ts';

/** What somebody can ask to see of their cards. */
export const MINE = ['mine', 'given', 'reviewing', 'watched', 'done', 'days'] as const;
export type MineOf = (typeof MINE)[number];

/** A column that a card can go on to. */
export interface NextColumn {
	id: string;
	name: string;
	limit: number | null;
	/** Cards that stand there. */
	standing: number;
}

/** A card as it stands on somebody's own page. */
export interface MineCard extends CardView {
	key: string;
	board: { id: string; slug: string; name: string; unit: Unit; timeZone: string; role: Role };
	/** The column in which it stands; null: the backlog. */
	place: string | null;
	/** The column after it, or the first one; null from the last one on. */
	next: NextColumn | null;
	/** Names of its owners, but of whoever looks. */
	others: string[];
	/** An open question to whoever looks: the comment, who asks, the words. */
	asked: { comment: number; who: string; text: string } | null;
}

/** An open question to whoever looks that was asked on the page of a board or an initiative. */
export interface PageQuestion {
	board: { id: string; slug: string; name: string };
	/** The initiative on whose page it was asked; null: that of the board. */
	initiative: string | null;
	comment: number;
	who: string;
	text: string;
}

/** Cards of somebody's own over all boards. */
export interface MinePage {
	of: MineOf;
	today: string;
	cards: MineCard[];
	/** Beside one's own cards: what was asked on no card. */
	asked: PageQuestion[];
}
