import { fsum } from 'd3-array';
import { processLimits, type ProcessLimits } from '../flow/process-limits.ts';
import type { Ledger } from './ledger.ts';

/** What a closed sprint delivered beside what it had committed to. */
export interface SprintVelocity {
	number: number;
	committed: number;
	/** Σ burned of stints that ended as done. */
	delivered: number;
	/** The part of it that the committed stints delivered: what is said beside what was committed. */
	kept: number;
	/** Cards that were done, those of them that had been committed, and all that were. */
	cards: number;
	keptCards: number;
	committedCards: number;
	/** Delivered of the committed stints ÷ committed; null where nothing was committed. It may be above 1. */
	reliability: number | null;
	/** (added + upward resizes + removed + dropped) ÷ committed; null where nothing was committed. */
	scopeChange: number | null;
	/** Means of the last 3 and 6 sprints, this one included; null before there are so many. */
	mean3: number | null;
	mean6: number | null;
}

export interface Velocity {
	sprints: SprintVelocity[];
	/** Natural process limits of what was delivered; null for fewer than six sprints. */
	limits: ProcessLimits | null;
	/** Those of the finished cards. */
	cardLimits: ProcessLimits | null;
}

/**
 * The velocity of closed sprints.
 * @param ledgers of closed sprints, in the order of their closing
 */
export function velocity(ledgers: readonly Ledger[]): Velocity {
	const delivered = ledgers.map((ledger) => ledger.delivered);
	const cards = ledgers.map((ledger) => finishedCards(ledger));
	const sprints = ledgers.map((ledger, i): SprintVelocity => {
		const committed = ledger.stints.filter((stint) => stint.kind === 'committed');
		const keptStints = committed.filter((stint) => stint.outcome === 'done');
		const kept = fsum(keptStints, (stint) => stint.burned);
		const up = fsum(ledger.stints, (stint) => Math.max(0, stint.resized));
		const changed = ledger.added + up + ledger.removed + ledger.dropped;
		return {
			number: ledger.number,
			committed: ledger.committed,
			delivered: ledger.delivered,
			kept,
			cards: cards[i]!,
			keptCards: new Set(keptStints.map((stint) => stint.card)).size,
			committedCards: new Set(committed.map((stint) => stint.card)).size,
			reliability: ledger.committed > 0 ? kept / ledger.committed : null,
			scopeChange: ledger.committed > 0 ? changed / ledger.committed : null,
			mean3: meanOfLast(delivered, i, 3),
			mean6: meanOfLast(delivered, i, 6),
		};
	});
	return { sprints, limits: processLimits(delivered), cardLimits: processLimits(cards) };
}

function finishedCards(ledger: Ledger): number {
	return new Set(ledger.stints.filter((stint) => stint.outcome === 'done').map((stint) => stint.card)).size;
}

function meanOfLast(series: readonly number[], i: number, n: number): number | null {
	return i + 1 < n ? null : fsum(series.slice(i + 1 - n, i + 1)) / n;
}
