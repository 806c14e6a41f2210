/** Time that somebody logged on a card. */
export interface TimeEntry {
	id: string;
	/** Of one that was logged before its card came from another board: the card there. */
	card?: string;
	person: string;
	day: string;
	hours: number;
	note: string;
	billable: boolean;
	version: number;
}

/** The timer of the person who looks. */
export interface RunningTimer {
	/** The card's id, and its key such as TIDE-214. */
	card: string;
	key: string;
	title: string;
	slug: string;
	started: string;
	/** Hours that it had run when the page was answered. */
	hours: number;
	/** It was forgotten: stopping it asks how much was work. */
	leftOn: boolean;
}
