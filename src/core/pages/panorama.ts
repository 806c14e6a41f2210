import type { Workdays } from '../calendar/workdays.ts';
import type { LensView, Offered, Role, Unit } from './board.ts';

/** An initiative with its figures, over all boards that whoever looks may see. */
export interface InitiativeFigures {
	id: string;
	name: string;
	/** The id of the board whose own it is, and whether all boards of the team share it. */
	board: string;
	wide: boolean;
	/** It is offered no more. */
	retired: boolean;
	/** The stage of the team in which it stands; why it does though that was full. */
	stage: string | null;
	letThrough: string | null;
	lead: string | null;
	purpose: string;
	/** The days on which it begins and is to be done, as they were set. */
	start: string | null;
	target: string | null;
	/** The day on which the first of its cards was begun. */
	begun: string | null;
	/** Budgets; null for none. */
	hours: number | null;
	money: number | null;
	/** Its cards, parts of others and not these: how many there are, how many of them are done, and how many only wait. */
	cards: { all: number; done: number; undated: number };
	/** What was burned and is left, by board. */
	parts: InitiativePart[];
	/** All hours that were worked on its cards. */
	worked: number;
	/** What they cost; null where that is not shown, or no hour had a rate. */
	cost: number | null;
	/** How many of its cards were finished in the days from which dates are forecast, and by which day all of it will be (85%). */
	finished: number;
	doneBy: string | null;
}

/** Of an initiative, what lies on one board. */
export interface InitiativePart {
	board: string;
	cards: number;
	done: number;
	burned: number;
	left: number;
}

/** A card with a date, as a bar on the timeline. */
export interface TimelineCard {
	id: string;
	board: string;
	number: number;
	title: string;
	version: number;
	start: string | null;
	due: string | null;
	clock: 'none' | 'running' | 'done' | 'dropped';
	owners: string[];
	initiative: string | null;
	class: string;
	/** For how many days it has been worked on; null where it has not begun. */
	day: number | null;
}

/** Cards of a timeline as columns: thousands of them are written and read the quickest so. Null where there is none. */
export interface CardColumns {
	/** The ids that places below speak of. */
	boards: string[];
	initiatives: string[] | null;
	people: string[] | null;
	id: string[] | null;
	/** The place of each one’s board. */
	board: number[];
	number: number[];
	title: string[];
	version: number[];
	start: (string | null)[];
	due: (string | null)[];
	clock: TimelineCard['clock'][];
	/** The place of its initiative. */
	initiative: (number | null)[];
	class: string[];
	day: (number | null)[];
	/** Of each owner the places of the card and of who it is; of each link the places of the two cards. */
	owned: number[] | null;
	owner: number[];
	from: number[] | null;
	to: number[];
}

/** A day that matters, and what must be done before it. */
export interface MilestoneView {
	id: string;
	name: string;
	day: string;
	/** The id of the board whose it is; null: of the whole team. */
	board: string | null;
	/** What must be done before it: cards that one may see, and initiatives by their ids. */
	cards: { key: string; title: string; due: string | null; done: boolean }[];
	initiatives: string[];
	/** What will not be, in words, with how many days it is late. */
	late: { what: string; days: number }[];
}

export interface PanoramaBoard {
	id: string;
	name: string;
	slug: string;
	key: string;
	unit: Unit;
	role: Role;
}

/** A sprint as a ruler shows it. */
export interface RulerSprint {
	board: string;
	name: string;
	number: number;
	starts: string;
	ends: string;
	state: 'closed' | 'running' | 'coming';
}

/** Cards of a board in columns of one kind. */
export interface KindCell {
	cards: { card: string; amount: null }[];
	/** Slots of all its columns; null where one has no limit. */
	slots: number | null;
}

/** A board by kind of column. */
export interface KindRow {
	board: string;
	queue: KindCell;
	work: KindCell;
	/** What was finished in the last two weeks. */
	done: KindCell;
}

/** Several boards of a team as one picture. */
export interface PanoramaPage {
	team: { id: string; name: string };
	role: Role;
	me: string;
	today: string;
	boards: PanoramaBoard[];
	people: { id: string; name: string; initials: string; title: string; gone: boolean }[];
	/** On which days the team works. */
	workdays: Workdays;
	holidays: { day: string; name: string }[];
	sprints: RulerSprint[];
	milestones: MilestoneView[];
	stages: { name: string; limit: number | null }[];
	/** Ways of looking that were kept: one’s own, and those that are shared. */
	lenses: LensView[];
	initiatives: InitiativeFigures[];
	cards: TimelineCard[];
	/** Which card blocks which, by their places among the cards. */
	links: [from: number, to: number][];
	/** Open cards without a date that hang on nothing and on which nothing hangs. */
	loose: number;
	/** Boards by kind of column; null where that is not asked for. */
	kinds: { rows: KindRow[]; titles: Record<string, string> } | null;
	/** What cards were narrowed to by words and fields; null where they are all there. */
	narrowed: Narrowed | null;
}

/** That only some cards are on the page. */
export interface Narrowed {
	/** The initiatives of those that pass, whether they have dates or not. */
	initiatives: string[];
	/** What each condition says. */
	words: string[];
}

/** What cards of a team’s boards can be narrowed by. */
export interface TeamConditions {
	offered: Offered[];
}

/** Cards by their keys. */
export interface NamedCards {
	cards: { card: string; amount: null }[];
	titles: Record<string, string>;
}
