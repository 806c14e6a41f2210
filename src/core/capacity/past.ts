import { fsum } from 'd3-array';
import type { Instant } from '../calendar/zone.ts';
import type { CardWork, Ledger, SprintBoard } from '../sprint/ledger.ts';
import type { Past } from './odds.ts';
import type { ClosedSprint } from './promise.ts';

const SPRINTS = 6;

/**
 * What the closed sprints of a board say, in the order of their closing.
 * @param raw each sprint's hours as frozen when it started, by number; a sprint without is taken to have had none
 */
export function closedSprints(
	board: SprintBoard,
	ledgers: readonly Ledger[],
	raw: ReadonlyMap<number, number>,
	asOf: Instant,
): ClosedSprint[] {
	const byNumber = new Map(ledgers.map((ledger) => [ledger.number, ledger]));
	return board.sprints
		.filter((sprint) => sprint.closedAt !== null && sprint.closedAt <= asOf)
		.sort((a, b) => a.closedAt! - b.closedAt!)
		.flatMap(({ number }) => {
			const ledger = byNumber.get(number);
			if (!ledger) return [];
			const unplanned = fsum(ledger.stints, (stint) => (stint.planned ? 0 : stint.worked));
			const { worked, delivered } = ledger;
			return [{ number, worked, unplanned, raw: raw.get(number) ?? 0, delivered }];
		});
}

/**
 * How cards and sprints of the last six closed sprints turned out: worked ÷ first size over done cards with both above
 * 0, and each sprint's own focus and keep-back.
 */
export function pastOf(
	closed: readonly ClosedSprint[],
	ledgers: readonly Ledger[],
	cards: ReadonlyMap<string, Pick<CardWork, 'first' | 'worked'>>,
): Past {
	const last = closed.slice(-SPRINTS);
	const numbers = new Set(last.map((sprint) => sprint.number));
	const done = new Set(
		ledgers
			.filter((ledger) => numbers.has(ledger.number))
			.flatMap((ledger) => ledger.stints.filter((s) => s.outcome === 'done').map((s) => s.card)),
	);
	const ratios = [...done].sort().flatMap((card) => {
		const { first, worked } = cards.get(card)!;
		return first && worked > 0 ? [worked / first] : [];
	});
	const pairs = last.flatMap((sprint) =>
		sprint.raw > 0 && sprint.worked > 0
			? [{ focus: Math.min(1, sprint.worked / sprint.raw), keepBack: sprint.unplanned / sprint.worked }]
			: [],
	);
	return { ratios, pairs };
}
