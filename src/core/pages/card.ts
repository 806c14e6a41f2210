import type { Happened } from '../events/event.ts';
import type { CardView } from './board.ts';
import type { TimeEntry } from './time.ts';

/** Something that happened to a card, as its page is told of it. */
export interface CardEvent extends Happened {
	seq: number;
	at: string;
	kind: string;
	/** It was taken back later and counts in no figure. */
	undone: boolean;
	command: string | null;
}

/** A card with all that belongs to it, as its panel shows it. */
export interface CardPage extends CardView {
	key: string;
	board: string;
	description: string;
	created: string;
	archivedReason: string | null;
	checklist: { id: string; text: string; done: boolean }[];
	/** Cards that it leads to, and cards that lead to it. */
	links: {
		kind: 'blocks' | 'relates' | 'split';
		number: number;
		title: string;
		done: boolean;
		comes: boolean;
	}[];
	parentCard: { id: string; number: number; title: string } | null;
	children: { id: string; number: number; title: string; size: number | null; left: number; done: boolean }[];
	/** Time logged on it, the latest day first. */
	time: TimeEntry[];
	/** Oldest first. */
	history: CardEvent[];
}
