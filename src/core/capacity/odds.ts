import { mulberry32 } from './chance.ts';

/** How sprints and cards of the past turned out. */
export interface Past {
	/** Worked ÷ first size of done cards that had both, from the last six closed sprints. */
	ratios: readonly number[];
	/** Focus and keep-back of those sprints. */
	pairs: readonly { focus: number; keepBack: number }[];
}

export interface OddsInput {
	/** Unfinished cards in the sprint's order. */
	cards: readonly { card: string; left: number; owners: readonly string[] }[];
	/** Hours of each person over the days still to come. */
	raw: Readonly<Record<string, number>>;
	past: Past;
	trials: number;
	seed: number;
}

export interface Odds {
	trials: number;
	seed: number;
	/** Trials in which every card is done. */
	all: number;
	/** Trials in which each card is done, in the sprint's order. */
	each: { card: string; done: number }[];
	/** Trials in which the first so many cards are all done; [0] is every trial. */
	first: number[];
	/** Mean of what is left on the cards that are not done. */
	leftOver: number;
}

export const FEWEST_CARDS = 20;
export const FEWEST_SPRINTS = 3;
export const TRIALS = 10_000;

/** Whether the past says enough for odds; else why not, in words. */
export function tooLittle(past: Past): string | null {
	if (past.pairs.length < FEWEST_SPRINTS)
		return `No odds yet: ${past.pairs.length} of ${FEWEST_SPRINTS} sprints are closed.`;
	if (past.ratios.length < FEWEST_CARDS)
		return `No odds yet: ${past.ratios.length} of ${FEWEST_CARDS} past cards were sized and worked on.`;
	return null;
}

/**
 * The odds of finishing, by simulation. Each trial draws a pair of focus and keep-back and, for each card in order, how
 * a past card turned out against its size. A card's need is shared equally by its owners; a person can do
 * raw × focus × (1 − keep-back); a card is done if each owner's running total fits. Unowned cards are not done.
 * @returns null when the past says too little
 */
export function odds(input: OddsInput): Odds | null {
	if (tooLittle(input.past)) return null;
	const { cards, past, trials, seed } = input;
	const draw = mulberry32(seed);
	const people = Object.keys(input.raw);
	const index = new Map(people.map((person, i) => [person, i]));
	const raw = Float64Array.from(people, (person) => input.raw[person]!);
	const owners = cards.map((card) => Int32Array.from(card.owners, (owner) => index.get(owner) ?? -1));
	const totals = new Float64Array(people.length);
	const done = new Int32Array(cards.length);
	const first = new Int32Array(cards.length + 1);
	let leftOver = 0;
	for (let trial = 0; trial < trials; trial++) {
		const { focus, keepBack } = past.pairs[Math.floor(draw() * past.pairs.length)]!;
		const share = focus * (1 - keepBack);
		totals.fill(0);
		let unbroken = true;
		first[0]!++;
		for (let c = 0; c < cards.length; c++) {
			const need = cards[c]!.left * past.ratios[Math.floor(draw() * past.ratios.length)]!;
			const who = owners[c]!;
			let fits = who.length > 0;
			for (const i of who) {
				// An owner who is not in the team has no hours.
				if (i < 0) fits = false;
				else if ((totals[i]! += need / who.length) > raw[i]! * share) fits = false;
			}
			if (fits) done[c]!++;
			else {
				unbroken = false;
				leftOver += cards[c]!.left;
			}
			if (unbroken) first[c + 1]!++;
		}
	}
	return {
		trials,
		seed,
		all: first[cards.length]!,
		each: cards.map((card, c) => ({ card: card.card, done: done[c]! })),
		first: [...first],
		leftOver: leftOver / trials,
	};
}

/**
 * The cards to take off, from the end of the sprint's order, until all that stay are done in at least the asked share of
 * trials. Earlier cards do not feel later ones, so one simulation answers for every length.
 * @param level 0 to 1
 */
export function toReach(found: Odds, level: number): string[] {
	let keep = found.each.length;
	while (keep > 0 && found.first[keep]! < level * found.trials) keep--;
	return found.each.slice(keep).map((card) => card.card);
}
