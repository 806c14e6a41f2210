import type { FlowFigures } from '../flow/figures.ts';

/** A mark of the picture of how long finished cards took: one card, or so many that were finished on one day after as many days. */
export interface FlowDot {
	day: string;
	took: number;
	cards: number;
	/** Its key and title, where it is one card. */
	card: string | null;
	title: string;
}

/** What a flow page is told: figures and pictures; the cards behind them are asked for when somebody opens one. */
export interface FlowPage extends Omit<FlowFigures, 'finished' | 'shapes' | 'blockedBy' | 'standing'> {
	today: string;
	days: 'calendar' | 'working';
	dots: FlowDot[];
	/** Of each column how many cards left it for the last time at which age, the ages rising. */
	shapes: [days: number, cards: number][][];
	blockedBy: { reason: string; days: number; cards: number }[];
	/** Titles of the cards in hand. */
	titles: Record<string, string>;
}

/** What the flow page has cards behind: all that were finished, those of one mark or week, of a column, of a reason. */
export const BEHIND_FLOW = ['finished', 'dot', 'week', 'column', 'reason'] as const;
export type BehindFlow = (typeof BEHIND_FLOW)[number];

/** A card behind a figure of the flow page. */
export interface FlowCard {
	card: string;
	title: string;
	/** Days from start to finish; null where it is not done. */
	took: number | null;
}
