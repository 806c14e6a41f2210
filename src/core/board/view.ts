import type { ClockState } from '../flow/clock.ts';
import type { Expectation } from '../flow/expectation.ts';
import type { ColumnKind } from '../flow/layout.ts';

/** What a board page shows; instants are ISO text, days `2026-11-23`. */

export type Role = 'viewer' | 'member' | 'lead';
export type Unit = 'hours' | 'points' | 'none';
export type ServiceClass = 'expedite' | 'fixed' | 'standard' | 'background';

export interface CardView {
	id: string;
	number: number;
	title: string;
	/** null: the backlog */
	column: string | null;
	rank: string;
	type: string;
	class: ServiceClass;
	size: number | null;
	left: number;
	due: string | null;
	owners: string[];
	/** The number of the sprint whose list it is on. */
	sprint: number | null;
	unplanned: boolean;
	clock: ClockState;
	entered: string | null;
	started: string | null;
	finished: string | null;
	blocked: { since: string; reason: string } | null;
	letThrough: string | null;
	archived: string | null;
	version: number;
}

export interface ColumnView {
	id: string;
	name: string;
	kind: ColumnKind;
	limit: number | null;
	mode: 'advise' | 'hold';
	policy: string;
	commitment: boolean;
	version: number;
}

export interface PersonView {
	id: string;
	name: string;
	initials: string;
	title: string;
	role: Role;
}

export interface SprintView {
	number: number;
	goal: string;
	starts: string;
	ends: string;
	startedAt: string | null;
	closedAt: string | null;
}

/** What every place of a board needs to know of it. */
export interface BoardHead {
	id: string;
	name: string;
	slug: string;
	key: string;
	team: string;
	unit: Unit;
	timeZone: string;
	/** null: continuous flow */
	sprintDays: number | null;
	percentile: number;
	role: Role;
	seq: number;
	columns: ColumnView[];
	sprints: SprintView[];
	people: PersonView[];
	/** The boards that the person may see, for going from one to another. */
	boards: { name: string; slug: string; team: string }[];
}

export interface BoardCards {
	seq: number;
	cards: CardView[];
	expectation: Expectation | null;
	/** Finished cards are shown from this instant on. */
	doneSince: string;
	backlog: number;
}

/** One stretch of the ribbon. */
export type Segment =
	| {
			kind: 'past';
			number: number;
			starts: string;
			ends: string;
			goal: string;
			done: number;
			leftOver: number;
			cards: number;
	  }
	| {
			kind: 'running';
			number: number;
			starts: string;
			ends: string;
			goal: string;
			committed: number;
			left: number;
			/** What was left at the end of each day so far, the committed total first. */
			burndown: { day: string; left: number }[];
	  }
	| {
			kind: 'next';
			number: number;
			starts: string;
			ends: string;
			goal: string;
			placed: number;
			cards: number;
	  }
	| { kind: 'week'; week: string; monday: string; finished: number; wip: number; running: boolean }
	| { kind: 'later'; cards: number; sprints: number | null };
