import type { NoticeKind } from '../notices/kinds.ts';

/** Something that happened, as it is told: who did it, and what it was before and is after. */
export interface Happened {
	value: string;
	who: string | null;
	before: Record<string, unknown> | null;
	after: Record<string, unknown> | null;
}

/** What a card was right before an event: where it stood (empty: in the backlog), and its size as text. */
export interface CardThen {
	place: string;
	size: string | null;
	/** Of amounts on its board: ` h`, ` points` or nothing. */
	unit: string;
}

/**
 * Who is told of an event: whoever watches the card (those who own, review, made or talked on it do, unless they stopped);
 * the one who gave it to its owner; owners of cards that wait for it; everyone of the team and whoever watches the board;
 * whoever watches the page on which it happened; those who lead the team; or people whose ids the event keeps under a name.
 */
export type Told = 'watchers' | 'giver' | 'waiting' | 'team' | 'leads' | 'page' | { named: string };

/** That people are told of an event, and what it is to them. */
export interface Telling {
	as: NoticeKind;
	to: Told;
}

interface Kind {
	/** Beside its value: what it keeps of before and of after. */
	before?: readonly string[];
	after?: readonly string[];
}

/** Something that can happen to a card. Its sentence goes on after the name of who did it. */
export interface CardEventKind extends Kind {
	/**
	 * Who is told of it; of several reasons to tell somebody the first one counts.
	 * @param done whether the card is finished by it
	 */
	tells: (done: boolean) => readonly Telling[];
	/** It stands in the history file, from which figures are made. */
	inFile: boolean;
	says(event: Happened, then: CardThen): string;
}

/** Something that can happen to a board, its sprints or its people. Its sentence stands by itself. */
export interface BoardEventKind extends Kind {
	/** Who is told of it. Left out: nobody; its board shows it. */
	tells?: readonly Telling[];
	/** It is a change of what is set: Set-up tells of it. */
	setting: boolean;
	says(event: Happened): string;
}
