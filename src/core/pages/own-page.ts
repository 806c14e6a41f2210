import type { NotesChange } from '../talk/notes.ts';
import type { Attachment, CardEvent, NamedCard } from './card.ts';

/** The page of a board, or of one of its initiatives: talk, notes and files that are of no single card. */
export interface OwnPage {
	/** The name of the initiative whose page it is; null: the board's own. */
	initiative: string | null;
	/** Markdown. */
	notes: string;
	version: number;
	/** Who changed the notes, and what, the latest first. */
	changes: NotesChange[];
	files: Attachment[];
	/** What was said, oldest first. */
	history: CardEvent[];
	/** Cards that notes and talk name by their keys, as far as whoever looks may see them. */
	named: Record<string, NamedCard>;
	/** Ids of those who are told of what is said here; whether whoever looks is among them. */
	told: string[];
	watching: boolean;
}

/** An initiative on its own page, beside what every place of its board knows. */
export interface InitiativePage {
	id: string;
	name: string;
	/** It is offered no more. */
	retired: boolean;
	hours: number | null;
	money: number | null;
	target: string | null;
	lead: string | null;
	/** Its cards that are not archived and have no cards below them: how many there are, and how many of them are done. */
	cards: { all: number; done: number };
	/** What is left of them, in the unit of the board; and the hours that were worked on all its cards. */
	left: number;
	worked: number;
	page: OwnPage;
}
