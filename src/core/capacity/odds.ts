import { mulberry32 } from './chance.ts';
import { shareOut, type Hand } from './share-out.ts';

/** How sprints and cards of the past turned out. */
export interface Past {
	/** Worked ÷ first size of done cards that had both, from the last six closed sprints. */
	ratios: readonly number[];
	/** Focus and keep-back of those sprints. */
	pairs: readonly { focus: number; keepBack: number }[];
}

export interface OddsCard {
	/** Its number. */
	card: string;
	left: number;
	owners: readonly string[];
	/** The skills it asks for. */
	skills: readonly string[];
}

export interface OddsInput {
	/** Unfinished cards in the sprint's order. */
	cards: readonly OddsCard[];
	/** Who could take on the cards that nobody owns: they go to whom sharing them out would give them. */
	hands: readonly Hand[];
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
	/** Cards that nobody owns and sharing out finds nobody for: they are done in no trial. */
	nobodys: string[];
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
 * raw × focus × (1 − keep-back); a card is done if each owner's running total fits. A card that nobody owns counts as owned
 * by whom sharing out would give it to; where that is nobody, it is not done.
 * @returns null when the past says too little
 */
export function odds(input: OddsInput): Odds | null {
	if (tooLittle(input.past)) return null;
	const { cards, past, trials, seed } = input;
	const draw = mulberry32(seed);
	const people = Object.keys(input.raw);
	const index = new Map(people.map((person, i) => [person, i]));
	const raw = Float64Array.from(people, (person) => input.raw[person]!);
	const found = ownersFor(input);
	const owners = found.map((own) => Int32Array.from(own, (owner) => index.get(owner) ?? -1));
	const totals = new Float64Array(people.length);
	const done = new Int32Array(cards.length);
	let all = 0;
	let leftOver = 0;
	for (let trial = 0; trial < trials; trial++) {
		const { focus, keepBack } = past.pairs[Math.floor(draw() * past.pairs.length)]!;
		const share = focus * (1 - keepBack);
		totals.fill(0);
		let whole = true;
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
				whole = false;
				leftOver += cards[c]!.left;
			}
		}
		if (whole) all++;
	}
	return {
		trials,
		seed,
		all,
		each: cards.map((card, c) => ({ card: card.card, done: done[c]! })),
		nobodys: cards.flatMap((card, c) => (found[c]!.length ? [] : [card.card])),
		leftOver: leftOver / trials,
	};
}

/** The owners of each card; of one that nobody owns, the person whom sharing out gives it to. */
function ownersFor({ cards, hands }: OddsInput): (readonly string[])[] {
	const loose = cards.filter((card) => !card.owners.length);
	if (!loose.length) return cards.map((card) => card.owners);
	// Numbers are padded, so that their order as text is their order as numbers.
	const key = (card: OddsCard) => card.card.padStart(9, '0');
	const { owners } = shareOut(
		loose.map((card) => ({ card: key(card), left: card.left, skills: card.skills })),
		hands,
	);
	return cards.map((card) => (card.owners.length ? card.owners : [owners.get(key(card)) ?? []].flat()));
}

/**
 * The cards to take off a sprint so that all that stay are done in at least the asked share of trials: one at a time the
 * card least likely to be done (of several the last in the sprint's order), reckoning anew each time.
 * @param level 0 to 1
 * @returns in the order in which they are taken off; null when the past says too little
 */
export function takeOff(input: OddsInput, level: number): string[] | null {
	const off: string[] = [];
	let { cards } = input;
	for (;;) {
		const found = odds({ ...input, cards });
		if (!found) return null;
		if (found.all >= level * found.trials || !cards.length) return off;
		let least = found.each[0]!;
		for (const one of found.each) if (one.done <= least.done) least = one;
		off.push(least.card);
		cards = cards.filter((card) => card.card !== least.card);
	}
}
