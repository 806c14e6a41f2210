import type { OwnField } from '../fields/own.ts';
import type { AskField } from '../ask/ask-page.ts';
import type { Comment } from '../talk/talk.ts';

/** A board’s ask page, as anyone signed in sees it. */
export interface AskForm {
	board: { id: string; name: string; slug: string; team: string };
	words: string;
	fields: AskField[];
	own: OwnField[];
	types: string[];
	labels: string[];
	initiatives: string[];
}

/** Something that somebody asked for. */
export interface AskedCard {
	key: string;
	title: string;
	board: { name: string; slug: string };
	askedAt: Date;
	/** Where it stands, in a word: the column, `not begun yet`, or `will not be done`. */
	stands: string;
	done: boolean;
	finishedAt: Date | null;
}

/** What somebody asked for, and where they can ask. */
export interface AskedPage {
	cards: AskedCard[];
	boards: { name: string; slug: string; team: string }[];
}

/** One thing that somebody asked for: its way so far, and its talk. */
export interface AskedOne extends AskedCard {
	id: string;
	description: string;
	/** The team’s zone, in which its days are. */
	timeZone: string;
	way: { at: string; words: string }[];
	talk: Comment[];
}
