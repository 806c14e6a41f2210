import type { Finding } from '../rounds/state.ts';
import type { BoardCards, CardView } from './board.ts';

/** What the rounds of a board show. */
export interface RoundsPage {
	seq: number;
	findings: Finding[];
	/** Findings that were put aside for today. */
	aside: (Finding & { reason: string; by: string })[];
	/** All unfinished cards that a finding may name or that stand on the board. */
	cards: CardView[];
	expectation: BoardCards['expectation'];
	doneSince: string;
	/** Who works today, and for how long on this board. */
	people: { id: string; hours: number }[];
	/** Of a timer that was left on: whose it is and on which card. */
	timers: { person: string; card: string; number: number; hours: number }[];
	/** Questions that are open: whom they ask, on which card, and the comment that asks. */
	questions: { person: string; card: number; comment: number }[];
	carried: Record<number, number>;
}
