import { fsum } from 'd3-array';
import type { Ledger, Stint } from './ledger.ts';

/** What a sprint delivered beside what it had committed to. */
export interface Delivered {
	committed: number;
	/** Σ burned of the stints that were finished. */
	delivered: number;
	/** The part of it that the committed stints delivered: what is said beside what was committed. */
	kept: number;
	/** Cards that were finished, those of them that had been committed, and all that were. */
	cards: number;
	keptCards: number;
	committedCards: number;
}

/**
 * What a sprint delivered, or a running one so far.
 * @param finished its stints of cards that are done; left out, those that ended so
 */
export function deliveredOf(
	{ committed, stints }: Pick<Ledger, 'committed' | 'stints'>,
	finished: readonly Stint[] = stints.filter(({ outcome }) => outcome === 'done'),
): Delivered {
	const kept = finished.filter(({ kind }) => kind === 'committed');
	const burned = (some: readonly Stint[]) => fsum(some, (stint) => stint.burned);
	const cards = (some: readonly Stint[]) => new Set(some.map(({ card }) => card)).size;
	return {
		committed,
		delivered: burned(finished),
		kept: burned(kept),
		cards: cards(finished),
		keptCards: cards(kept),
		committedCards: cards(stints.filter(({ kind }) => kind === 'committed')),
	};
}
