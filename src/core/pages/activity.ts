import type { ActivityGroup } from '../activity/groups.ts';

/** One thing that somebody did. */
export interface ActivityRow {
	at: Date;
	board: { name: string; slug: string; timeZone: string };
	/** The team, where it is about all of its boards. */
	team: { id: string; name: string } | null;
	card: { key: string; title: string } | null;
	who: { id: string; name: string; initials: string } | null;
	/** Goes on after the name; of a board it stands by itself. */
	text: string;
	group: ActivityGroup;
}

/** What of all that was done is meant. */
export interface ActivityAsked {
	board: string | null;
	team: string | null;
	person: string | null;
	group: ActivityGroup | null;
	/** Days, both included, where each board is. */
	from: string;
	to: string;
}

/** What was done over some days: how much by whom, of which kind and where, and each of it, the latest first. */
export interface ActivityPage {
	asked: ActivityAsked;
	total: number;
	people: { id: string; name: string; initials: string; n: number }[];
	groups: { group: ActivityGroup; n: number }[];
	boards: { slug: string; name: string; n: number }[];
	rows: ActivityRow[];
	/** From where it goes on; null at the end. */
	next: string | null;
	/** Boards and people that can be asked for. */
	all: { boards: { slug: string; name: string }[]; people: { id: string; name: string }[] };
}
