import type { Account, Grouping } from '../account/account.ts';

interface TeamHead {
	id: string;
	name: string;
	currency: string;
	boards: { id: string; name: string; slug: string; key: string }[];
}

/** A person's week of logged time. */
export interface TimesheetPage {
	team: TeamHead;
	role: 'viewer' | 'member' | 'lead';
	me: string;
	today: string;
	/** The Monday of the week. */
	monday: string;
	/** Whose week it is; a lead may look at everyone's. */
	person: string;
	people: { id: string; name: string }[];
	/** Hours that the person works on each of the seven days. */
	hours: number[];
	rows: TimesheetRow[];
}

export interface TimesheetRow {
	/** The card's id and its key. */
	card: string;
	key: string;
	slug: string;
	title: string;
	done: boolean;
	entries: {
		id: string;
		day: string;
		hours: number;
		note: string;
		billable: boolean;
		version: number;
	}[];
}

/** Hours and cost of a team over a range of days. */
export interface AccountPage {
	team: TeamHead;
	role: 'viewer' | 'member' | 'lead';
	today: string;
	from: string;
	to: string;
	/** The equal span before. */
	before: { from: string; to: string };
	by: Grouping;
	account: Account;
	/** Each person's hours of work in the range, and what of them was worked and is placed. */
	use: {
		person: string;
		name: string;
		available: number;
		worked: number;
		use: number | null;
		placed: number;
		planned: number | null;
		/** The cards behind what was worked, and behind what is placed. */
		workedCards: { card: string; hours: number }[];
		placedCards: { card: string; hours: number }[];
	}[];
	/** Ranges that are often asked for. */
	ranges: { name: string; from: string; to: string }[];
	titles: Record<string, string>;
	/** Budgets of initiatives in hours, by name. */
	budgets: Record<string, { budget: number; worked: number; left: number }>;
}
