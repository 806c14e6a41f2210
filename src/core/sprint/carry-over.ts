import { fsum } from 'd3-array';
import type { Reason } from '../events/reasons.ts';
import type { CardAmount, Ledger, Outcome, Stint } from './ledger.ts';

/** What was said of a card at the end of a sprint. */
export interface Unfinished {
	sprint: number;
	card: string;
	reason: Reason;
	/** In the person's own words; empty unless the reason is `other`. */
	words: string;
	/** What was left of it then. */
	left: number;
}

/** How much of a sprint went over into later ones. Shares are null where there was nothing to share. */
export interface SprintCarryOver {
	number: number;
	/** Distinct cards carried or split ÷ distinct cards with a stint. */
	byCards: number | null;
	/** (carried + split off) ÷ (committed + added). */
	bySize: number | null;
	/** The cards behind it, with what of each went over. */
	cards: CardAmount[];
	size: number;
	/** Entry of cards that came in from the sprint before ÷ this sprint's promise; null where nothing was promised. */
	takenOfPromise: number | null;
	/** The cards that came in, and what came in with each. */
	brought: CardAmount[];
	broughtSize: number;
}

export interface ReasonCount {
	reason: Reason;
	count: number;
	size: number;
	cards: CardAmount[];
}

export interface CarryOver {
	sprints: SprintCarryOver[];
	/** By how often, largest first; by size where that is equal. */
	reasons: ReasonCount[];
	/** How many sprints the cards needed whose last outcome is done: one, two, three, more. */
	needed: { sprints: 1 | 2 | 3 | 4; cards: string[] }[];
	/** Cards carried twice or more, the most often carried first. */
	chronic: { card: string; carried: number; sprints: number; done: boolean }[];
}

/**
 * What carrying over costs: how much, why, for how long, and what it takes from the next promise.
 * @param ledgers of closed sprints, in the order of their closing
 * @param said why cards were not finished
 * @param promises what each sprint could promise, by number
 * @param rests cards that were made by splitting one at the end of a sprint: they came in from it
 */
export function carryOver(
	ledgers: readonly Ledger[],
	said: readonly Unfinished[],
	promises: ReadonlyMap<number, number | null>,
	rests: ReadonlySet<string> = new Set(),
): CarryOver {
	const lives = new Map<string, Life>();
	let before = new Set<string>();
	const sprints = ledgers.map((ledger, place): SprintCarryOver => {
		const over = byCard(ledger.stints.filter(goesOver), wentOver);
		const size = ledger.carried + ledger.splitOff;
		const all = ledger.committed + ledger.added;
		const brought = ledger.stints.filter(
			(stint) =>
				stint.kind === 'committed' &&
				(before.has(stint.card) || (rests.has(stint.card) && !lives.has(stint.card))),
		);
		const broughtSize = fsum(brought, (stint) => stint.entry);
		const promise = promises.get(ledger.number) ?? null;
		before = new Set();
		let cards = 0;
		for (const { card, outcome } of ledger.stints) {
			let life = lives.get(card);
			if (!life) lives.set(card, (life = { sprints: 0, place: -1, carried: 0, last: null }));
			if (life.place !== place) {
				life.place = place;
				life.sprints++;
				cards++;
			}
			life.last = outcome;
			if (outcome !== 'carried') continue;
			life.carried++;
			before.add(card);
		}
		return {
			number: ledger.number,
			byCards: cards ? over.length / cards : null,
			bySize: all > 0 ? size / all : null,
			cards: over,
			size,
			takenOfPromise: promise && promise > 0 ? broughtSize / promise : null,
			brought: byCard(brought, (stint) => stint.entry),
			broughtSize,
		};
	});
	const needed = ([1, 2, 3, 4] as const).map((n) => ({ sprints: n, cards: [] as string[] }));
	const chronic: CarryOver['chronic'] = [];
	for (const [card, { sprints: times, carried, last }] of lives) {
		const done = last === 'done';
		if (done) needed[Math.min(times, 4) - 1]!.cards.push(card);
		if (carried >= 2) chronic.push({ card, carried, sprints: times, done });
	}
	chronic.sort((a, b) => b.carried - a.carried || (a.card < b.card ? -1 : 1));
	return { sprints, reasons: reasonsOf(ledgers, said), needed, chronic };
}

/** In how many sprints a card was, the last of them by its place among all, how often it was carried, and how it ended last. */
interface Life {
	sprints: number;
	place: number;
	carried: number;
	last: Outcome | null;
}

/** Whether what was left of a card went over into a later sprint: carried, or split off to another card. */
function goesOver(stint: Stint): boolean {
	return stint.outcome === 'carried' || stint.splitOff > 0;
}

function wentOver(stint: Stint): number {
	return stint.splitOff + (stint.outcome === 'carried' ? stint.exit : 0);
}

/** Each card once, with its amounts summed. */
function byCard(stints: readonly Stint[], amount: (stint: Stint) => number): CardAmount[] {
	const sums = new Map<string, number>();
	for (const stint of stints) sums.set(stint.card, (sums.get(stint.card) ?? 0) + amount(stint));
	return [...sums].map(([card, sum]) => ({ card, amount: sum }));
}

function reasonsOf(ledgers: readonly Ledger[], said: readonly Unfinished[]): ReasonCount[] {
	const counts = new Map<Reason, Omit<ReasonCount, 'cards'> & { cards: Map<string, number> }>();
	// Of a card with several stays in one sprint the last is meant.
	const stints = new Map<number, Map<string, Stint>>();
	const stintsOf = (sprint: number) => {
		const known = stints.get(sprint);
		if (known) return known;
		const list = ledgers.find((ledger) => ledger.number === sprint)?.stints ?? [];
		const made = new Map(list.map((stint) => [stint.card, stint]));
		stints.set(sprint, made);
		return made;
	};
	for (const { sprint, card, reason, left: rest } of said) {
		const stint = stintsOf(sprint).get(card);
		if (!stint) continue;
		const count = counts.get(reason) ?? { reason, count: 0, size: 0, cards: new Map<string, number>() };
		count.count++;
		// Of a card that was split at the end, what was left went over with the new one; not what was split off before.
		const left = stint.outcome === 'done' ? Math.min(stint.splitOff, rest) : stint.exit;
		count.size += left;
		count.cards.set(card, (count.cards.get(card) ?? 0) + left);
		counts.set(reason, count);
	}
	return [...counts.values()]
		.map(({ cards, ...count }) => ({
			...count,
			cards: [...cards].map(([card, amount]) => ({ card, amount })),
		}))
		.sort((a, b) => b.count - a.count || b.size - a.size);
}
