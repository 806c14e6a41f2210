import { fsum } from 'd3-array';
import { tidy } from '../sums.ts';
import type { CardAmount, Ledger, Stint } from './ledger.ts';

/** What can happen to a card that a sprint leaves unfinished. */
export const DECISIONS = ['carry', 'split', 'backlog', 'drop'] as const;
export type Decision = (typeof DECISIONS)[number];

/** A part of one side of a ledger, with the cards behind it. */
export interface Entry {
	kind:
		| 'committed'
		| 'added'
		| 'grown'
		| 'burned'
		| 'splitOff'
		| 'removed'
		| 'carried'
		| 'returned'
		| 'dropped'
		| 'shrunk'
		| 'open';
	amount: number;
	cards: CardAmount[];
}

/** Both sides of a ledger. They always add up to the same. */
export interface Sides {
	came: Entry[];
	became: Entry[];
	total: number;
}

const ENDS = { carry: 'carried', backlog: 'returned', drop: 'dropped' } as const;

/**
 * A sprint's ledger as two sides, what came in and what became of it, with decisions applied that have not been carried
 * out yet. What was re-sized upwards came in; what was re-sized downwards is said on the other side.
 * @param decisions of cards with an open stint
 */
export function sidesOf(
	ledger: Pick<Ledger, 'stints'>,
	decisions: ReadonlyMap<string, Decision> = new Map(),
): Sides {
	const entries = new Map<Entry['kind'], { amount: number; cards: Map<string, number> }>();
	const put = (kind: Entry['kind'], card: string, amount: number) => {
		if (Math.abs(amount) < 1e-9) return;
		const entry = entries.get(kind) ?? { amount: 0, cards: new Map<string, number>() };
		entries.set(kind, entry);
		entry.amount += amount;
		entry.cards.set(card, (entry.cards.get(card) ?? 0) + amount);
	};
	for (const stint of ledger.stints) {
		put(stint.kind, stint.card, stint.entry);
		if (stint.resized > 0) put('grown', stint.card, stint.resized);
		else put('shrunk', stint.card, -stint.resized);
		put('burned', stint.card, stint.burned);
		put('splitOff', stint.card, stint.splitOff);
		put(endOf(stint, decisions), stint.card, stint.exit);
	}
	const side = (kinds: readonly Entry['kind'][]) =>
		kinds.flatMap((kind) => {
			const entry = entries.get(kind);
			if (!entry) return [];
			const cards = [...entry.cards].map(([card, amount]) => ({ card, amount }));
			return [{ kind, amount: tidy(entry.amount), cards }];
		});
	const came = side(['committed', 'added', 'grown']);
	const became = side(['burned', 'splitOff', 'shrunk', 'removed', 'carried', 'returned', 'dropped', 'open']);
	return { came, became, total: tidy(fsum(came, (entry) => entry.amount)) };
}

function endOf(stint: Stint, decisions: ReadonlyMap<string, Decision>): Entry['kind'] {
	if (stint.outcome) return stint.outcome === 'done' ? 'burned' : stint.outcome;
	const decision = decisions.get(stint.card);
	if (!decision) return 'open';
	return decision === 'split' ? 'splitOff' : ENDS[decision];
}

/** Whether a ledger's sides agree, to a millionth; each of its stints is asked too. */
export function balances(ledger: Ledger): boolean {
	const near = (a: number, b: number) => Math.abs(a - b) < 1e-6;
	const stints = ledger.stints.every((stint) =>
		near(stint.entry + stint.resized, stint.burned + stint.splitOff + stint.exit),
	);
	const came = ledger.committed + ledger.added + ledger.resized;
	const { burned, splitOff, removed, carried, returned, dropped, open } = ledger;
	return stints && near(came, burned + splitOff + removed + carried + returned + dropped + open);
}
