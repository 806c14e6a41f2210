import type { CardWork, Stint } from './ledger.ts';

/** What is known of a card's work as it is followed. */
export interface Work extends CardWork {
	archived: boolean;
	stint: Stint | null;
	/** A stint frozen at the close whose outcome has no name yet. */
	unnamed: Stint | null;
	/** A stint of it ended done: what is worked on it tells of the past. */
	counted: boolean;
}

/** What is kept of a card's work, to go on from there later: its stint by its place in its sprint's book. */
export interface KeptWork extends Omit<Work, 'stint' | 'unnamed'> {
	stint: number;
	unnamed: number;
}

/** The work of a card of which nothing has been heard yet. */
export const noWork = (card: string): Work => ({
	...{ card, size: null, left: 0, sprint: null, first: null, worked: 0, burned: 0, carried: 0, last: null },
	...{ waits: true, done: false, archived: false, counted: false, stint: null, unnamed: null },
});
