/** A letter as those who lead see it: whom it goes to and how it fares, not what it says. */
export interface LetterView {
	id: string;
	kind: 'notice' | 'digest' | 'invitation' | 'reset';
	to: string;
	madeAt: string;
	/** It waits, was sent, has nothing to say any more, or failed for good. */
	state: 'waits' | 'sent' | 'over' | 'refused';
	tries: number;
	/** What went wrong the last time. */
	trouble: string | null;
	/** When it is tried again, where it waits. */
	next: string | null;
	sentAt: string | null;
}

/** Work that is done beside the pages, and is no letter. */
export interface JobView {
	task: string;
	runAt: string;
	tries: number;
	trouble: string | null;
	running: boolean;
}

/** The letters of a team’s people, and what else is done behind the scenes. */
export interface LettersPage {
	team: { id: string; name: string; timeZone: string };
	boards: { name: string; slug: string }[];
	/** Whether a mail server is set. */
	on: boolean;
	waiting: number;
	refused: number;
	/** Sent within a week. */
	sent: number;
	/** Those that wait or failed first, then the latest; at most two hundred. */
	letters: LetterView[];
	jobs: JobView[];
}
