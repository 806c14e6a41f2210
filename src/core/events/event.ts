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

/** People to whom an event is of interest: who owns the card, whom it names, everyone of the board, or nobody. */
export type Concern = 'owners' | 'named' | 'team' | 'nobody';

interface Kind {
	concerns: Concern;
	/** What it keeps beside its value, of before and of after. */
	before?: readonly string[];
	after?: readonly string[];
}

/** Something that can happen to a card. Its sentence goes on after the name of who did it. */
export interface CardEventKind extends Kind {
	/** It stands in the history file, from which figures are made. */
	inFile: boolean;
	says(event: Happened, then: CardThen): string;
}

/** Something that can happen to a board, its sprints or its people. Its sentence stands by itself. */
export interface BoardEventKind extends Kind {
	/** It is a change of what is set: Set-up tells of it. */
	setting: boolean;
	says(event: Happened): string;
}
