import { fsum } from 'd3-array';
import { deliveredOf, type Delivered } from './delivered.ts';
import { processLimits, type ProcessLimits } from '../flow/process-limits.ts';
import type { Ledger } from './ledger.ts';

/** What a closed sprint delivered beside what it had committed to, and how that compares. */
export interface SprintVelocity extends Delivered {
	number: number;
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
	const all = ledgers.map((ledger) => ({ ...deliveredOf(ledger), delivered: ledger.delivered }));
	const delivered = all.map((one) => one.delivered);
	const sprints = ledgers.map((ledger, i): SprintVelocity => {
		const up = fsum(ledger.stints, (stint) => Math.max(0, stint.resized));
		const changed = ledger.added + up + ledger.removed + ledger.dropped;
		const some = ledger.committed > 0;
		return {
			number: ledger.number,
			...all[i]!,
			reliability: some ? all[i]!.kept / ledger.committed : null,
			scopeChange: some ? changed / ledger.committed : null,
			mean3: meanOfLast(delivered, i, 3),
			mean6: meanOfLast(delivered, i, 6),
		};
	});
	const cards = all.map((one) => one.cards);
	return { sprints, limits: processLimits(delivered), cardLimits: processLimits(cards) };
}

function meanOfLast(series: readonly number[], i: number, n: number): number | null {
	return i + 1 < n ? null : fsum(series.slice(i + 1 - n, i + 1)) / n;
}
