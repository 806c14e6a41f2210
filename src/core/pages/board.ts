import type { FieldValues, OwnField } from '../fields/own.ts';
import type { ServiceClass, Switch } from '../flow/set-up.ts';
import type { Unit } from '../words.ts';
import type { ClockState } from '../flow/clock.ts';
import type { Expectation } from '../flow/expectation.ts';
import type { ColumnKind } from '../flow/layout.ts';

/** What a board page shows; instants are ISO text, days `2026-11-23`. */

export type Role = 'viewer' | 'member' | 'lead';
export type { ServiceClass, Unit };

export interface CardView {
	id: string;
	number: number;
	title: string;
	/** null: the backlog */
	column: string | null;
	/** The lane that it was put in; it stands in that of its class, where its class has one. */
	lane: string | null;
	rank: string;
	type: string;
	class: ServiceClass;
	size: number | null;
	left: number;
	start: string | null;
	due: string | null;
	owners: string[];
	labels: string[];
	/** The initiative's name. */
	initiative: string | null;
	/** Refined enough to be planned. */
	ready: boolean;
	/** The id of the card that it is part of. */
	parent: string | null;
	/** Sums over its unarchived sub-cards; null where it has none. */
	parts: { cards: number; done: number; size: number; left: number } | null;
	/** Checklist lines, and how many of them are done; null where it has none. */
	checks: { lines: number; done: number } | null;
	/** What it holds in fields that its board has added, by their ids. */
	fields: FieldValues;
	/** The number of the sprint whose list it is on. */
	sprint: number | null;
	unplanned: boolean;
	clock: ClockState;
	entered: string | null;
	started: string | null;
	finished: string | null;
	blocked: { since: string; reason: string; waitingFor?: string | null } | null;
	/** Keys of unfinished cards that it waits for. */
	waits: string[];
	/** Who looks it over before it is done, and by which day. */
	review?: { by: string; due: string | null } | null;
	/** How much of it is done, from 0 to 100, where somebody said so. */
	percent?: number | null;
	/** Files that hang on it, and the one of them that it shows. */
	files: number;
	picture?: string | null;
	/** Only its owners, its reviewer and those who watch it may see it. */
	private: boolean;
	/** Of a private one: who watches it. */
	watchers?: string[] | null;
	/** It is private and not for whoever looks: all that says what it is about is left out. */
	hidden?: true;
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
	/** It stands, and is not shown. */
	hidden: boolean;
	/** What it was called before. */
	was: string[];
	/** Its place among all columns of the board, those that were taken away too. */
	position: number;
	version: number;
}

/** What the face of a card can show beside what a board's page holds. */
export interface FaceMore {
	/** The beginning of its description, in Markdown. */
	description: string;
	/** Lines of its checklist that are not ticked. */
	lines: { id: string; text: string }[];
	/** Who changed it last, and when. */
	by: string | null;
	at: string | null;
}

/** What cards of a board show, how closely they stand, and how wide their columns are. */
export interface Face {
	/** Ids of fields, and of what else a card can show, in their order. */
	fields: string[];
	spacing: 'compact' | 'usual' | 'roomy';
	width: 'narrow' | 'usual' | 'wide';
}

/** A field that conditions can be on, and what it offers: plain words of it, and its values. */
export interface Offered {
	id: string;
	name: string;
	choices: { key: string; name: string }[];
}

/** A way of looking at a board that was kept under a name. */
export interface LensView {
	id: string;
	name: string;
	/** What the address of the board says then. */
	query: string;
	shared: boolean;
	/** Whoever looks made it. */
	mine: boolean;
}

/** A kind of card, with what its cards begin with. */
export interface CardType {
	name: string;
	checklist: string[];
	size: number | null;
	class: ServiceClass | null;
}

/** A lane across the columns. One that stands for a class of service holds the cards of that class. */
export interface LaneView {
	id: string;
	name: string;
	class: ServiceClass | null;
	limit: number | null;
	mode: 'advise' | 'hold';
}

/** A column that was taken away: its past counts. */
export type RetiredColumn = Pick<ColumnView, 'name' | 'kind' | 'was' | 'position'>;

export interface PersonView {
	id: string;
	name: string;
	initials: string;
	title: string;
	role: Role;
	/** Left the team: may own nothing more. */
	gone: boolean;
	skills: string[];
}

export interface SprintView {
	number: number;
	goal: string;
	starts: string;
	ends: string;
	startedAt: string | null;
	closedAt: string | null;
	/** Set by hand until the start, frozen then; null: as learned. */
	focus: number | null;
	keepBack: number | null;
	/** Hours of all its people, frozen at its start. */
	raw: number | null;
	/** The team's hours on each of its days, frozen at its start. */
	dayHours: number[] | null;
	version: number;
}

/** What every place of a board needs to know of it. */
export interface BoardHead {
	id: string;
	name: string;
	slug: string;
	key: string;
	team: string;
	teamId: string;
	unit: Unit;
	timeZone: string;
	/** null: continuous flow */
	sprintDays: number | null;
	/** 0: Monday. */
	sprintWeekday: number;
	/** What a sprint is called here. */
	sprintName: string;
	types: CardType[];
	labels: string[];
	initiatives: string[];
	/** Whether members settle sprints too. */
	membersSettle: boolean;
	/** Done cards stay on the board for so many days after their sprint was closed. */
	doneDays: number;
	percentile: number;
	/** How many cards one person may have in hand; null for any number. */
	personLimit: number | null;
	personMode: 'advise' | 'hold';
	role: Role;
	/** Who looks. */
	me: string;
	seq: number;
	columns: ColumnView[];
	retired: RetiredColumn[];
	/** None where lanes are switched off. */
	lanes: LaneView[];
	/** Ways of looking at it that were kept: one’s own, then those that are shared. */
	lenses: LensView[];
	/** Fields that this board adds to its cards. */
	fields: OwnField[];
	/** What its cards show to whoever looks; null where nobody chose. */
	face: Face | null;
	/** Whether they chose that themselves. */
	ownFace: boolean;
	/** The states that lines of checklists can have, in their order. */
	lineStates: string[];
	/** Parts that this board does not use and so does not show. */
	off: Switch[];
	/** It is put away: nothing on it changes until it is brought back. */
	away: boolean;
	sprints: SprintView[];
	people: PersonView[];
	/** The boards that the person may see, for going from one to another. */
	boards: { id: string; name: string; slug: string; team: string }[];
}

/** A board as the line of its places needs it. */
export type BoardPlaces = Pick<BoardHead, 'name' | 'slug' | 'sprintDays' | 'teamId' | 'role' | 'off'> & {
	people: Pick<PersonView, 'id' | 'gone'>[];
};

/** A board that somebody may see, as home lists it. */
export interface SeenBoard {
	name: string;
	slug: string;
	key: string;
	team: string;
	purpose: string;
	role: Role;
}

export interface BoardCards {
	seq: number;
	cards: CardView[];
	expectation: Expectation | null;
	/** Finished cards are shown from this instant on. */
	doneSince: string;
	backlog: number;
}

/** A board as it stood at a moment of the past. */
export interface StoodPage {
	at: string;
	/** The board with the columns and sprints that it had; nobody changes anything in it. */
	head: BoardHead;
	board: BoardCards;
	/** Where cards stand now that stand elsewhere since: a column by its name, the backlog or the archive. */
	went: Record<string, string>;
}

/** Six weeks around a month, with what is known of their days. */
export interface BoardDays {
	/** `2026-11` */
	month: string;
	/** The Monday on which they begin. */
	from: string;
	weeks: number;
	holidays: string[];
	/** Milestones of the board and its team. */
	milestones: { id: string; day: string; name: string }[];
	/** Who is away all of a day on which they would work. */
	away: { person: string; day: string }[];
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
			/** What was left, burned and in scope at the end of each day so far, the committed total first. */
			days: { day: string; left: number; burned: number; scope: number }[];
			/** What the guide has at the end of each day. */
			guide: { day: string; left: number }[];
	  }
	| {
			kind: 'next';
			number: number;
			starts: string;
			ends: string;
			goal: string;
			placed: number;
			cards: number;
			/** What its people can promise, in the board's unit; null where nothing says. */
			promise: number | null;
	  }
	| { kind: 'week'; week: string; monday: string; finished: number; wip: number; running: boolean }
	| {
			kind: 'later';
			cards: number;
			/** About how many sprints they would take; null while too few are closed. */
			sprints: number | null;
			/** Why: what is left of them, unsized ones taken as the mean of the others, and what a usual sprint delivers. */
			work: number;
			unsized: number;
			usual: number | null;
	  };
