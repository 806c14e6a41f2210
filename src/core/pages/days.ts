import type { DayPart } from '../people/bookings.ts';
import type { PersonUse } from '../people/use.ts';
import type { PeoplePage } from './plan.ts';

/** Somebody who is put down for a day, or half of it, without a card. */
export interface BookingView {
	id: string;
	person: string;
	day: string;
	part: DayPart;
	/** What for: a board, an initiative or a site; and what it is called. */
	what: 'board' | 'initiative' | 'site';
	called: string;
	note: string;
}

/** Who is where on which day, beside what the people of a team have to give. */
export interface DaysPage extends PeoplePage {
	/** The days that are shown, the first and how many. */
	from: string;
	count: number;
	bookings: BookingView[];
	/** What is noted of people’s weeks. */
	notes: { person: string; monday: string; note: string }[];
	/** Open cards with dates on these days, and whose they are. */
	cards: {
		key: string;
		title: string;
		slug: string;
		number: number;
		start: string;
		end: string;
		owners: string[];
	}[];
	/** Initiatives that somebody can be put down for. */
	initiatives: { id: string; name: string }[];
	/** Sites that were named before, the latest first. */
	sites: string[];
	/** Whether absences that members enter wait for a lead. */
	agree: boolean;
	/** Use of the last whole weeks and months, by their first days. */
	use: { weeks: string[]; months: string[]; byWeek: PersonUse[]; byMonth: PersonUse[] };
}
