import type { Instant } from '../calendar/zone.ts';
import type { BoardSprint } from './board.ts';
import type { Layout } from '../flow/layout.ts';

export type Outcome = 'done' | 'carried' | 'returned' | 'dropped' | 'removed';

/** One card's stay in one sprint. Always: entry + resized = burned + splitOff + exit. */
export interface Stint {
	card: string;
	kind: 'committed' | 'added';
	planned: boolean;
	entry: number;
	resized: number;
	burned: number;
	worked: number;
	splitOff: number;
	exit: number;
	outcome: Outcome | null;
	/** When it was opened; and when it ended, by leaving or by the close: null while it runs. */
	opened: Instant;
	ended: Instant | null;
}

/** A card with its part of a figure. */
export interface CardAmount {
	card: string;
	amount: number;
}

/** One thing that changed how much work a running sprint holds. Resizes may be below 0; all else is 0 or more. */
export interface Move {
	at: Instant;
	card: string;
	kind: 'added' | 'resized' | 'burned' | 'splitOff' | 'removed' | 'dropped';
	amount: number;
}

/**
 * A sprint's account made of its stints. Always:
 * committed + added + resized = burned + splitOff + removed + carried + returned + dropped + open.
 */
export interface Ledger {
	number: number;
	committed: number;
	added: number;
	resized: number;
	burned: number;
	worked: number;
	splitOff: number;
	removed: number;
	carried: number;
	returned: number;
	dropped: number;
	open: number;
	delivered: number;
	/** Hours worked on stints that were not planned. */
	unplanned: number;
	/** How many stints there are. */
	count: number;
	stints: Stint[];
	/** Everything that changed what is left after the committed total, up to the closing instant, in time order, at one instant by card. */
	moves: Move[];
}

export interface SprintBoard extends Layout {
	unit: 'hours' | 'points';
	sprints: BoardSprint[];
}

/** What a card's history says of its work: how big it is, what is left, which sprint's list or stint it is on. */
export interface CardWork {
	card: string;
	size: number | null;
	left: number;
	sprint: number | null;
	/** It stands in the backlog and is not archived. */
	waits: boolean;
	/** It is finished, as its history stands now. */
	done: boolean;
	/** The first size that it was given, and all that was ever worked on it. */
	first: number | null;
	worked: number;
	/** All that work and being done took off it over its life: what it has moved on is this of this and what is left. */
	burned: number;
	/** In how many sprints it was left over and went on into another. */
	carried: number;
	/** The last sprint in which it had a stint. */
	last: number | null;
}
