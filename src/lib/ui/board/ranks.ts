import { generateKeyBetween, generateNKeysBetween } from 'fractional-indexing';

interface Ranked {
	id: string;
	rank: string;
}

/** The rank of a card that comes among others: below one of them, on top (null) or at the end (undefined). */
export function rankBelow(others: readonly Ranked[], below: string | null | undefined): string {
	const ranks = others.map(({ rank }) => rank).sort();
	const above =
		below === undefined
			? ranks.at(-1)
			: below === null
				? undefined
				: others.find(({ id }) => id === below)?.rank;
	const under =
		below === undefined ? undefined : above === undefined ? ranks[0] : ranks.find((rank) => rank > above);
	return generateKeyBetween(above ?? null, under ?? null);
}

/** The same for several that come below each other, by their ids; where the one above is not there, at the end. */
export function ranksBelow(
	others: readonly Ranked[],
	below: string | null | undefined,
	coming: readonly { id: string }[],
): Map<string, string> {
	const sorted = [...others].sort((a, b) => (a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : 0));
	let place = below === null ? 0 : sorted.length;
	if (below) place = sorted.findIndex(({ id }) => id === below) + 1 || sorted.length;
	const ranks = generateNKeysBetween(
		sorted[place - 1]?.rank ?? null,
		sorted[place]?.rank ?? null,
		coming.length,
	);
	return new Map(coming.map(({ id }, i) => [id, ranks[i]!]));
}
