import type { OddsInput } from '../capacity/odds.ts';
import type { ClosedSprint } from '../capacity/promise.ts';
import type { CarryOver, ReasonCount, SprintCarryOver, Unfinished } from '../sprint/carry-over.ts';
import type { Following } from '../sprint/follow.ts';
import type { CardAmount, Ledger, Move, Stint } from '../sprint/ledger.ts';
import type { Decision } from '../sprint/settle.ts';
import type { Velocity } from '../sprint/velocity.ts';
import type { RetroAction } from './retrospective.ts';
import type { SprintView } from './board.ts';

/** What the place Look back shows of all closed sprints of a board. Cards are named by their keys. */
export interface LookBackPage {
	/** In the order of their closing, with what each could promise when it started. */
	closed: (ClosedSprint & { promise: number | null })[];
	velocity: Velocity;
	/** Without the cards behind its figures: they are asked for one figure at a time. */
	carryOver: {
		sprints: Omit<SprintCarryOver, 'cards' | 'brought'>[];
		reasons: Omit<ReasonCount, 'cards'>[];
		needed: { sprints: 1 | 2 | 3 | 4; cards: number }[];
		chronic: (CarryOver['chronic'][number] & { title: string })[];
	};
	/** The sprint that runs now. */
	running: number | null;
}

/** Figures of looking back that open to cards: six of a sprint, one of a reason, one of a number of sprints. */
export const FIGURES = [
	'committed',
	'delivered',
	'kept',
	'later',
	'over',
	'brought',
	'reason',
	'needed',
] as const;

/** A card behind a figure, with its part of it; null where there is nothing to sum. */
export interface BehindCard {
	card: string;
	title: string;
	amount: number | null;
}

/** One change of a sprint's scope, and who made it. */
export interface ScopeChange {
	at: string;
	card: string;
	kind: 'added' | 'resized' | 'splitOff' | 'removed' | 'dropped';
	amount: number;
	who: string | null;
}

/** What the report of a running or closed sprint shows. Cards are named by their keys. */
export interface ReportPage {
	sprint: SprintView;
	goalMet: 'yes' | 'partly' | 'no' | null;
	goalWords: string;
	closed: boolean;
	ledger: Ledger;
	/** The stints of cards that were done when it closed; of a running one, of those that are done now. */
	finished: Stint[];
	following: Following;
	scope: ScopeChange[];
	unfinished: (Unfinished & { decision: Decision })[];
	/** Hours kept back when it started, and what unplanned cards took: worked and still left. Null where nothing was kept back. */
	surprises: { kept: number; worked: number; left: number; cards: string[] } | null;
	/** Each person's hours for this board when it started, and the hours they logged in it, on which cards. */
	use: { person: string; name: string; raw: number; worked: number; cards: CardAmount[] }[];
	/** Initiatives of its cards that have a budget: all hours ever logged on them, those of this sprint, and what is left. */
	budgets: {
		initiative: string;
		budget: number;
		worked: number;
		here: number;
		left: number;
		/** The cards behind it, with the hours worked on each. */
		cards: CardAmount[];
	}[];
	/** What odds of a running sprint are asked of; null for a closed one or where there are none to give. */
	odds: OddsInput | null;
	titles: Record<string, string>;
	/** What the team has agreed looking back on it; null where it has not. */
	retrospective: { number: number; actions: RetroAction[] } | null;
	/** The sprints before and after it that have a report. */
	before: number | null;
	after: number | null;
}

/** A report as its page is told it: cards behind a day, somebody's hours or a budget are asked for one figure at a time. */
export interface ReportShown extends Omit<ReportPage, 'ledger' | 'use' | 'budgets'> {
	ledger: Omit<Ledger, 'moves'>;
	/** With how many cards there are behind it. */
	use: (Omit<ReportPage['use'][number], 'cards'> & { cards: number })[];
	budgets: (Omit<ReportPage['budgets'][number], 'cards'> & { cards: number })[];
}

/** Figures of a report that open to cards which its page was not told: of a day, of a person, of an initiative. */
export const BEHIND_REPORT = ['day', 'hours', 'budget'] as const;

/** A card behind a figure of a report; behind a day once for everything that happened to it, and what that was. */
export interface ReportCard extends BehindCard {
	kind?: Move['kind'];
}
