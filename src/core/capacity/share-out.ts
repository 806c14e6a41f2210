/** An unowned card that looks for an owner. */
export interface LooseCard {
	/** Its key: ties are settled by it. */
	card: string;
	left: number;
	/** The skills it asks for; empty: anyone may have it. */
	skills: readonly string[];
}

export interface Hand {
	person: string;
	promise: number;
	/** What the person holds already, of cards that never move. */
	placed: number;
	skills: readonly string[];
}

export interface Sharing {
	/** Card key to person, for the cards that found one. */
	owners: Map<string, string>;
	/** Placed work of each person afterwards. */
	placed: Map<string, number>;
}

const NEAR = 1e-9;

/**
 * Proposes owners for unowned cards. Each card in the order given goes to the person with the skills it asks for and
 * the largest remaining promise where it still fits (ties by person id), else to nobody. Then, of all moves of one such
 * card and all exchanges of two that keep skills and fit, the one that lowers the largest load most is made (ties by the
 * lowest card keys), until none lowers it.
 */
export function shareOut(cards: readonly LooseCard[], hands: readonly Hand[]): Sharing {
	const people = [...hands].sort((a, b) => order(a.person, b.person));
	const placed = people.map((hand) => hand.placed);
	const given = new Map<string, number>();
	const may = cards.map((card) => people.map((hand) => card.skills.every((s) => hand.skills.includes(s))));
	const fits = (i: number, more: number) => placed[i]! + more <= people[i]!.promise + NEAR;

	cards.forEach((card, c) => {
		let best = -1;
		people.forEach((hand, i) => {
			if (!may[c]![i] || !fits(i, card.left)) return;
			const remaining = hand.promise - placed[i]!;
			if (best < 0 || remaining > people[best]!.promise - placed[best]! + NEAR) best = i;
		});
		if (best < 0) return;
		given.set(card.card, best);
		placed[best]! += card.left;
	});

	const load = (i: number, work: number) =>
		people[i]!.promise > 0 ? work / people[i]!.promise : work > NEAR ? Infinity : 0;
	const mine = (i: number) => cards.flatMap((card, c) => (given.get(card.card) === i ? [{ card, c }] : []));

	for (;;) {
		// Only what takes work from the person with the largest load can lower it.
		const loads = people.map((_, i) => load(i, placed[i]!));
		const ranked = people.map((_, i) => i).sort((a, b) => loads[b]! - loads[a]!);
		const top = ranked[0];
		if (top === undefined) break;
		const rest = (other: number) => loads[ranked.find((i) => i !== top && i !== other) ?? -1] ?? 0;
		let best: { largest: number; key: string; make: () => void } | null = null;
		const consider = (other: number, mineWork: number, theirWork: number, key: string, make: () => void) => {
			const largest = Math.max(load(top, mineWork), load(other, theirWork), rest(other));
			if (largest >= loads[top]! - NEAR) return;
			if (best && (largest > best.largest + NEAR || (largest > best.largest - NEAR && key >= best.key)))
				return;
			best = { largest, key, make };
		};
		for (const { card, c } of mine(top))
			people.forEach((hand, other) => {
				if (other === top || !may[c]![other]) return;
				if (fits(other, card.left))
					consider(
						other,
						placed[top]! - card.left,
						placed[other]! + card.left,
						`${card.card}\n\n${hand.person}`,
						() => {
							given.set(card.card, other);
							placed[top]! -= card.left;
							placed[other]! += card.left;
						},
					);
				for (const { card: theirs, c: d } of mine(other)) {
					const gain = card.left - theirs.left;
					if (gain <= NEAR || !may[d]![top] || !fits(other, gain)) continue;
					const [a, b] = [card.card, theirs.card].sort(order);
					consider(other, placed[top]! - gain, placed[other]! + gain, `${a}\n${b}\n${hand.person}`, () => {
						given.set(card.card, other);
						given.set(theirs.card, top);
						placed[top]! -= gain;
						placed[other]! += gain;
					});
				}
			});
		if (!best) break;
		(best as { make: () => void }).make();
	}
	return {
		owners: new Map([...given].map(([card, i]) => [card, people[i]!.person])),
		placed: new Map(people.map((hand, i) => [hand.person, Math.round(placed[i]! * 1e6) / 1e6])),
	};
}

const order = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
