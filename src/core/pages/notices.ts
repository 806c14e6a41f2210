import type { NoticeChoices, NoticeKind } from '../notices/kinds.ts';

/** Which notices can be asked for. */
export const NOTICES_OF = ['all', 'asks', 'away'] as const;
export type NoticesOf = (typeof NOTICES_OF)[number];

/** The card that a notice is about, with what can be done with it right there. */
export interface NoticeCard {
	id: string;
	key: string;
	title: string;
	version: number;
	due: string | null;
	/** Ids of its owners. */
	owners: string[];
	/** Whoever is told may change it: it is open, and they work on its board. */
	works: boolean;
}

/** What somebody is told, as it stands on their page. */
export interface NoticeView {
	id: string;
	/** The board that it is about, and the card, where it is about one. */
	board: { id: string; slug: string; name: string };
	card: NoticeCard | null;
	/** The page of the board, or of one of its initiatives, where it is about what happened there. */
	page: { initiative: string | null } | null;
	/** Of the latest event: what it is to whoever is told. */
	kind: NoticeKind;
	at: string;
	/** Who did the latest of it. */
	by: { name: string; initials: string } | null;
	/** What happened, the latest first, at most three sentences; how many events there were. */
	says: string[];
	times: number;
	read: boolean;
	away: boolean;
	/** It is a question to whoever is told: whether it is still open. */
	asks: boolean;
	open: boolean;
	/** The comment that can be answered from here. */
	comment: number | null;
}

/** How many notices somebody has not read, and how many questions to them are open. */
export interface NoticeCount {
	unread: number;
	asks: number;
}

/** What somebody is told: their page of it. */
export interface NoticesPage extends NoticeCount {
	notices: NoticeView[];
	/** Which day it is where they are. */
	today: string;
	/** From where it goes on; null at the end. */
	next: string | null;
	choices: NoticeChoices;
	/** Whether one can be told by mail, and to which address. */
	mail: string | null;
	/** Boards whose notices can be chosen by themselves. */
	boards: { id: string; name: string; watched: boolean }[];
}
