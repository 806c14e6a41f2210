import type { Learned } from '../capacity/promise.ts';
import type { Ledger } from '../sprint/ledger.ts';
import type { PlanPerson } from './plan.ts';
import type { CardView } from './board.ts';

/** What settling the running sprint of a board needs, or what is to be said of the last one when none runs. */
export interface SettlePage {
	seq: number;
	/** The running sprint; null when none runs. */
	sprint: number | null;
	ledger: Ledger | null;
	/** The sprint's cards that are not done. */
	cards: CardView[];
	/** Checklists of those that have one, by the card's id. */
	checklists: Record<string, { id: string; text: string; done: boolean }[]>;
	/** The sprint that takes what is carried. */
	next: {
		number: number;
		people: PlanPerson[];
		learned: Learned;
		/** What is on its list already. */
		cards: CardView[];
	} | null;
	/** Whether this person may settle here. */
	maySettle: boolean;
	/** The sprint that was settled last. */
	last: {
		number: number;
		closedAt: string;
		by: string | null;
		/** The command that closed it, where this person can still take it back. */
		undo: string | null;
	} | null;
	/** Titles of the cards of its ledger that are not among those above, by key. */
	titles: Record<string, string>;
}
