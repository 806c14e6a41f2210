import type { Laid, Phase } from '../retrospective/phases.ts';

/** A note that its reader may read: their own, or one that was turned over. */
export interface RetroNote extends Laid {
	/** Null where nobody is stored with it. */
	author: { name: string; initials: string } | null;
	/** Their own, which they can change. */
	mine: boolean;
	/** How many of their own votes it has. */
	given: number;
}

/** What was agreed, and how it stands. */
export interface RetroAction {
	id: string;
	version: number;
	words: string;
	owner: { id: string; name: string; initials: string } | null;
	due: string | null;
	/** The card that it became, where they may see it; where it stands. */
	card: { key: string; title: string; stands: string } | null;
	/** It became a card; whether they may see that or not. */
	carded: boolean;
	done: boolean;
	/** The retrospective in which it was agreed. */
	of: number;
}

/** One figure of what the retrospective is about, as something to talk of; it opens to the cards behind it. */
export interface RetroFact {
	words: string;
	href: string;
}

/** A retrospective as a list tells it. */
export interface RetroLine {
	number: number;
	sprint: number | null;
	phase: Phase;
	openedAt: Date;
	actions: number;
	done: number;
}

/** All retrospectives of a board, the latest first, and what the next one would begin with. */
export interface RetrospectivesPage {
	lines: RetroLine[];
	columns: string[];
	anonymous: boolean;
	votes: number;
	/** Sprints that it could be about: started ones without one, the latest first. */
	sprints: number[];
}

/** A retrospective as one of the team sees it. */
export interface RetrospectivePage extends Omit<RetroLine, 'actions' | 'done'> {
	id: string;
	columns: string[];
	anonymous: boolean;
	/** So many votes each has, and so many of them they have given. */
	votes: number;
	given: number;
	/** How many have given votes. */
	voters: number;
	notes: RetroNote[];
	/** How many notes lie face down in each column, one’s own too. */
	down: number[];
	actions: RetroAction[];
	/** Of earlier ones: those of the last, and older ones that are open. */
	before: RetroAction[];
	facts: RetroFact[];
}
