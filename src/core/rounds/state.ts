import type { Day } from '../calendar/zone.ts';
import type { Part } from '../capacity/promise.ts';
import type { ColumnKind } from '../flow/layout.ts';

/** A card as the rounds see it. Days are calendar days in the board's time zone. */
export interface RoundsCard {
	id: string;
	number: number;
	title: string;
	/** The column's place on the board; null in the backlog. */
	column: number | null;
	/** The id of the lane in which it stands; null for none. */
	lane: string | null;
	rank: string;
	class: 'expedite' | 'fixed' | 'standard' | 'background';
	clock: 'none' | 'running' | 'done' | 'dropped';
	size: number | null;
	left: number;
	owners: readonly string[];
	sprint: number | null;
	unplanned: boolean;
	/** It has sub-cards: those are sized and owned. */
	hasParts: boolean;
	/** The day its clock began; null while it does not run. */
	started: Day | null;
	due: Day | null;
	blocked: { since: Day; reason: string; waitingFor?: string | null } | null;
	/** The day on which something last happened to it. */
	touched: Day;
	/** How often it was carried over. */
	carried: number;
}

/** The state of a board on a day: all that the rounds are made of. */
export interface RoundsState {
	today: Day;
	/** Whether the team works on a day. */
	works: (day: Day) => boolean;
	unit: 'hours' | 'points' | 'none';
	/** How many cards one person may have in hand; null for any number. */
	personLimit: number | null;
	columns: readonly {
		id: string;
		name: string;
		kind: ColumnKind;
		limit: number | null;
		/** Since when it has had free slots while nothing in the queue before it could be pulled; null: it has not. */
		starvedSince: Day | null;
		/** How many cards stood there on 85% of the last 90 days; null for too short a past. */
		usual: number | null;
	}[];
	lanes: readonly { id: string; name: string; limit: number | null }[];
	/** All unfinished cards of the board. */
	cards: readonly RoundsCard[];
	people: readonly {
		id: string;
		name: string;
		/** Hours for this board today. */
		hours: number;
		/** Since when no running card has been theirs; null: one is. */
		idleSince: Day | null;
	}[];
	/** Who has how much room in the running sprint. */
	parts: readonly Part[];
	/** Days that so many percent of past cards took at most; null while too few were finished. */
	expectation: { days: number; percentile: number } | null;
	sprint: { number: number; starts: Day; ends: Day } | null;
	/** The sprint that starts next, how much is on its list and what it promises. */
	next: { number: number; starts: Day; placed: number; promise: number | null } | null;
	/** The share of trials in which all of the running sprint gets done; null where there are no odds. */
	odds: number | null;
	/** Hours that unplanned cards of the sprint took and still need, beside what was kept back. */
	surprises: { worked: number; left: number; kept: number; cards: readonly number[] } | null;
	/** Timers on this board's cards that were left on, and the hours they have run. */
	timers: readonly { person: string; card: number; hours: number }[];
	/** Milestones to come, of the board and its team, with what of them will not be done before: cards of this board by their numbers. */
	milestones: readonly {
		id: string;
		name: string;
		day: Day;
		late: readonly { what: string; card: number | null; days: number }[];
	}[];
	/** Questions that nobody has answered: whom they ask, on which card, and since when. */
	questions: readonly {
		person: string;
		name: string;
		card: number;
		asker: string;
		comment: number;
		since: Day;
	}[];
}

export type FindingKind =
	| 'blocked'
	| 'too-old'
	| 'over-limit'
	| 'starved'
	| 'piling-up'
	| 'over-promise'
	| 'nothing-to-do'
	| 'no-owner'
	| 'not-sized'
	| 'late'
	| 'due-soon'
	| 'will-not-fit'
	| 'surprises-over'
	| 'carried-again'
	| 'timer-left-on'
	| 'unanswered'
	| 'quiet'
	| 'sprint-over'
	| 'next-not-planned'
	| 'milestone-late';

/** What can be done about a finding, right where it is said. */
export type Remedy =
	| 'unblock'
	| 'wait-for'
	| 'backlog'
	| 'split'
	| 'owners'
	| 'size'
	| 'date'
	| 'ask'
	| 'pull'
	| 'move-on'
	| 'next-sprint'
	| 'limit'
	| 'stop-timer'
	| 'answer'
	| 'board'
	| 'replenish'
	| 'plan'
	| 'settle'
	| 'report'
	| 'panorama';

export interface Finding {
	/** The same for the same thing from day to day: what is put aside is known by it. */
	key: string;
	kind: FindingKind;
	/** 3: decide now; 2: today; 1: this week. */
	severity: 1 | 2 | 3;
	/** What orders findings of one severity, the larger first. */
	figure: number;
	/** Why it matters, with its figure. */
	sentence: string;
	/** Numbers of the cards it is about. */
	cards: number[];
	person: string | null;
	/** The id of the column it is about. */
	column: string | null;
	remedies: Remedy[];
}

/** Whoever looks for findings of one kind. */
export type Finder = (state: RoundsState) => Finding[];
