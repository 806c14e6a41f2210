import type { Happened } from '../events/event.ts';
import type { CardView } from './board.ts';
import type { TimeEntry } from './time.ts';

/** Something that happened to a card, as its page is told of it. */
export interface CardEvent extends Happened {
	seq: number;
	at: string;
	kind: string;
	/** It was taken back later and counts in no figure. */
	undone: boolean;
	command: string | null;
	/** The id of whoever did it. */
	by?: string | null;
	/** It happened on the board that the card stood on before. */
	old?: boolean;
}

/** A card that a text names by its key. */
export interface NamedCard {
	title: string;
	done: boolean;
}

/** A line of a checklist. */
export interface ChecklistLine {
	id: string;
	text: string;
	done: boolean;
	/** How much of it, as people write it: `12 m`. */
	quantity?: string;
	/** An address where more is to be found. */
	link?: string;
	/** One of the states that the board has for lines. */
	state?: string;
}

/** A link between a card and another one. */
export interface CardLink {
	kind: 'blocks' | 'relates' | 'split';
	/** Of the other card, and the address of its board; no key where whoever looks may not see it. */
	key: string | null;
	board: string;
	title: string;
	done: boolean;
	archived: boolean;
	blocked: boolean;
	/** The column in which it stands, or the backlog. */
	place: string;
	/** It leads from the other card to this one. */
	comes: boolean;
}

/** A card that is part of another one. */
export interface SubCard {
	id: string;
	number: number;
	title: string;
	size: number | null;
	left: number;
	done: boolean;
	/** null: the backlog */
	column: string | null;
	owners: string[];
	version: number;
}

/** A file on a card. */
export interface Attachment {
	id: string;
	name: string;
	/** What it is by its first bytes; null where they say nothing. */
	media: string | null;
	bytes: number;
	/** It is the picture that the card shows. */
	front: boolean;
	by: string;
	at: string;
}

/** A card with all that belongs to it, as its panel shows it. */
/** A reminder on a card: at a moment, or so many days before its start or due date, at an hour where its team is. */
export interface Reminder {
	id: string;
	owners: boolean;
	words: string;
	at: string | null;
	before: 'start' | 'due' | null;
	days: number | null;
	hour: number | null;
	/** When it comes, as its dates stand; null where it has no such date. */
	moment: string | null;
}

export interface CardPage extends CardView {
	key: string;
	board: string;
	description: string;
	created: string;
	archivedReason: string | null;
	checklist: ChecklistLine[];
	/** Cards that it leads to, and cards that lead to it. */
	links: CardLink[];
	parentCard: { id: string; number: number; title: string } | null;
	children: SubCard[];
	attachments: Attachment[];
	/** Time logged on it, the latest day first. */
	time: TimeEntry[];
	/** Cards that its description and its talk name by their keys, as far as whoever looks may see them. */
	named: Record<string, NamedCard>;
	/** Ids of those who are told of what happens to it; whether whoever looks is among them. */
	told: string[];
	/** Reminders of whoever looks. */
	reminders: Reminder[];
	/** Who asked for it on the ask page, and may read its talk without seeing the board; null where nobody did. */
	asker: string | null;
	watching: boolean;
	/** Oldest first. */
	history: CardEvent[];
}
