import type { Instant } from '../calendar/zone.ts';
import type { Shelf } from '../shelf.ts';
import { atOnce } from '../steps.ts';
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
			const { worked, unplanned, delivered } = ledger;
			return [{ number, worked, unplanned, raw: raw.get(number) ?? 0, delivered }];
		});
}

/**
 * How cards and sprints of the last six closed sprints turned out: worked ÷ first size over done cards with both above
 * 0, and each sprint's own focus and keep-back.
 */
export function pastOf(...of: Parameters<typeof pastInSteps>): Past {
	return atOnce(pastInSteps(...of));
}

/** The same in steps between which others may have their turn. */
export function* pastInSteps(
	closed: readonly ClosedSprint[],
	ledgers: readonly Ledger[],
	cards: Pick<Shelf<CardWork>, 'get' | 'reach'>,
): Generator<void, Past> {
	const last = closed.slice(-SPRINTS);
	const numbers = new Set(last.map((sprint) => sprint.number));
	const done = new Set<string>();
	for (const ledger of ledgers) {
		if (!numbers.has(ledger.number)) continue;
		for (const { card, outcome } of ledger.stints) if (outcome === 'done') done.add(card);
		yield;
	}
	yield* cards.reach(done);
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
