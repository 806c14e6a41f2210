import type { Stays } from '../dates/follow.ts';

/** The dates of a card, `2026-12-04`. */
export interface DateTexts {
	start: string | null;
	due: string | null;
}

/** A card that moves along with another one. */
export interface FollowedCard {
	card: string;
	version: number;
	key: string;
	title: string;
	from: DateTexts;
	to: DateTexts;
	/** The key of the card that pushes it. */
	after: string;
}

/** A card that would start before the end of what it waits for, and stays where it is. */
export interface DateConflict {
	/** Null where whoever looks may not see it. */
	key: string | null;
	title: string;
	after: string;
	why: Stays;
}

/** A sprint on whose list cards stand that would end after it only now. */
export interface SprintPassed {
	board: string;
	name: string;
	ends: string;
	keys: string[];
}

/** A milestone before which cards must be done that get other dates: whether it is still met, and by which it is not. */
export interface MilestoneTouched {
	name: string;
	day: string;
	/** Keys of those that would end after it; none: it is met. */
	missed: string[];
}

/** What would follow from giving cards other dates. */
export interface DatesPage {
	moved: FollowedCard[];
	conflicts: DateConflict[];
	sprints: SprintPassed[];
	milestones: MilestoneTouched[];
}

/** What shifting many cards would do. */
export interface ShiftPage extends DatesPage {
	/** Cards that are shifted; `after` is empty. */
	shifted: FollowedCard[];
	/** Cards with dates from that day on that stay: they have begun, are not one's own, or nobody works then. */
	stay: number;
}

/** So many cards get other dates at once. */
export const MOST_DATED = 2000;

/** Of what cards can be shifted together. */
export const SHIFTED = ['board', 'sprint', 'initiative'] as const;
export type ShiftOf = (typeof SHIFTED)[number];
