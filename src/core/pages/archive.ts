/** A card that was put away. */
export interface ArchivedCard {
	id: string;
	number: number;
	title: string;
	/** Where it stood, and would stand again; null: in the backlog. */
	column: string | null;
	/** It was finished when it was put away. */
	done: boolean;
	archived: string;
	reason: string;
	/** Who put it away. */
	by: string | null;
	version: number;
}

/** What was put away of a board, the latest first. */
export interface ArchivePage {
	cards: ArchivedCard[];
	/** How many there are that have the words. */
	all: number;
	/** Where the next ones begin; null at the end. */
	next: string | null;
}
