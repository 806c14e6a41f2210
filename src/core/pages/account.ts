import type { Account, AccountLine, Grouping } from '../account/account.ts';

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
	/** The last day that is counted: a range that reaches past today is counted up to today. */
	until: string;
	/** The span before it, as long as what is counted. */
	before: { from: string; to: string };
	by: Grouping;
	account: { lines: NamedLine[]; total: Account['total'] };
	/** Each person's hours of work in the range, and what of them was worked and is placed. */
	use: {
		person: string;
		name: string;
		/** Hours on the days that are counted; worked is a share of these. */
		available: number;
		worked: number;
		use: number | null;
		/** Of open sprints, and the hours on all days of the range, of which it is a share. */
		placed: number;
		plannedOf: number;
		planned: number | null;
	}[];
	/** Ranges that are often asked for. */
	ranges: { name: string; from: string; to: string }[];
	/** Budgets of initiatives in hours, by their ids. */
	budgets: Record<string, { name: string; budget: number; worked: number; left: number }>;
}

/** A line with what it is called; where another is called the same, with what tells them apart. */
export type NamedLine = AccountLine & { name: string };

/** Figures of an account that open to cards: the hours of a line or of all, and the hours placed on somebody. */
export const BEHIND_ACCOUNT = ['worked', 'placed'] as const;
export type BehindAccount = (typeof BEHIND_ACCOUNT)[number];
