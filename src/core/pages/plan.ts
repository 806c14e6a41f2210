import type { Past } from '../capacity/odds.ts';
import type { Learned } from '../capacity/promise.ts';
import type { CardView } from './board.ts';

/** What the backlog page shows beside its cards. */
export interface BacklogPage {
	seq: number;
	/** All cards of the backlog, in order. */
	cards: CardView[];
	/** The sprint that is planned next, and what it can still take of the backlog. */
	next: { number: number; promise: number | null; placed: number } | null;
	/** What a usual sprint delivers; null while too few are closed. */
	usual: number | null;
	/** Cards that stand in the first column, for pulling more into it. */
	standing: number;
}

/** A person's part in the sprint that is planned, as the server knows it. */
export interface PlanPerson {
	person: string;
	/** Hours for this board over the days of the sprint that are still to come, and over all of them. */
	raw: number;
	whole: number;
	/** Hours over the days after today: what odds of a running sprint draw on. */
	after: number;
	/** Days they would work but are away. */
	away: string[];
	days: number;
}

/** What the plan page shows beside its cards. */
export interface PlanPage {
	seq: number;
	/** The backlog, and the unfinished cards on the sprint's list wherever they stand. */
	cards: CardView[];
	/** Null: the board has no sprints that can be planned. */
	sprint: number | null;
	people: PlanPerson[];
	learned: Learned;
	past: Past;
	/** Skills that labels of cards ask for: what people of the team can do. */
	skills: string[];
}

/** What a person's eight weeks hold. */
export interface PeoplePage {
	team: { id: string; name: string };
	today: string;
	role: 'viewer' | 'member' | 'lead';
	me: string;
	boards: { id: string; name: string; slug: string; key: string; unit: string; label: string[] }[];
	people: PersonHours[];
	weeks: PersonWeekView[];
	holidays: { day: string; name: string }[];
	/** Titles of the cards that the weeks name, by key. */
	titles: Record<string, { title: string; slug: string; number: number }>;
}

export interface PersonHours {
	id: string;
	name: string;
	initials: string;
	title: string;
	role: 'viewer' | 'member' | 'lead';
	skills: string[];
	/** The working weeks, oldest first. */
	working: { from: string; hours: number[] }[];
	/** Shares of boards by id, as they are today. */
	shares: Record<string, number>;
	/** Those that wait for a lead change no hours yet. */
	absences: { id: string; from: string; to: string; hours: number | null; note: string; waits: boolean }[];
	/** What an hour costs today; null for none, and for all who are not leads. */
	rate: number | null;
}

export interface PersonWeekView {
	person: string;
	monday: string;
	hours: number;
	give: number;
	promise: number;
	placed: number;
	away: number;
	standing: 'room' | 'fits' | 'over';
	cards: { card: string; hours: number }[];
}
