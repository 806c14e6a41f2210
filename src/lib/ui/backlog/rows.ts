import { sprintLines, type SprintLine } from '$core/backlog/lines';
import { byValue, valuesAmong } from '$core/board/arrange';
import type { Field } from '$core/board/field';
import type { CardView } from '$core/pages/board';
import { leftOf, ownLeft } from '$core/board/left';

/** What a line of the backlog shows: a card, or the name of the group that begins here. */
export type Row =
	| {
			kind: 'card';
			key: string;
			card: CardView;
			/** Its place in the whole backlog, from 1. */
			place: number;
			part: boolean;
			line: SprintLine | null;
	  }
	| { kind: 'group'; key: string; name: string; cards: number; left: number };

/** What a card weighs for the sprints to come: cards on a sprint's list and sums of parts weigh nothing. */
const weight = (card: CardView) => (card.sprint !== null ? 0 : ownLeft(card));

/** Puts sub-cards below their parent, where both wait. */
export function inFamilies(cards: readonly CardView[]): CardView[] {
	const here = new Set(cards.map((card) => card.id));
	const parts = new Map<string, CardView[]>();
	for (const card of cards)
		if (card.parent && here.has(card.parent))
			parts.set(card.parent, [...(parts.get(card.parent) ?? []), card]);
	return cards.flatMap((card) =>
		card.parent && here.has(card.parent) ? [] : [card, ...(parts.get(card.id) ?? [])],
	);
}

/**
 * The lines of a backlog: its cards that pass, under the names of their groups, with where the usual sprints end.
 * @param free what the sprint that is planned next can still take
 * @param usual what a usual sprint delivers; null: no lines
 */
export function backlogRows(
	all: readonly CardView[],
	passes: (card: CardView) => boolean,
	grouping: Field | null,
	free: number,
	usual: number | null,
): Row[] {
	const ordered = inFamilies(all);
	const place = new Map(ordered.map((card, i) => [card.id, i + 1]));
	const lines = new Map(
		(usual === null || grouping ? [] : sprintLines(ordered.map(weight), free, usual)).map((line) => [
			ordered[line.below + 1]!.id,
			line,
		]),
	);
	const shown = ordered.filter(passes);
	const seen = new Set(shown.map((card) => card.id));
	const row = (card: CardView, group = ''): Row => ({
		kind: 'card',
		key: `${group}/${card.id}`,
		card,
		place: place.get(card.id)!,
		part: card.parent !== null && seen.has(card.parent),
		line: lines.get(card.id) ?? null,
	});
	if (!grouping) return shown.map((card) => row(card));
	const groups = byValue(grouping, shown);
	return valuesAmong(grouping, shown).flatMap(({ key, name }): Row[] => {
		const cards = groups.get(key);
		if (!cards) return [];
		return [
			{
				kind: 'group',
				key: `group/${key}`,
				name: key ? name : name[0]!.toUpperCase() + name.slice(1),
				cards: cards.length,
				left: leftOf(cards),
			},
			...cards.map((card) => row(card, key)),
		];
	});
}

/**
 * Below which card of a list cards come to stand that go one place up or down in it; null: on top.
 * @param shown the cards of the list, in order; parts go along with those that move
 * @returns undefined where they stand at that end already
 */
export function onePlace(
	shown: readonly CardView[],
	moving: readonly CardView[],
	by: 1 | -1,
): string | null | undefined {
	const ids = new Set(moving.map(({ id }) => id));
	const stays = (card: CardView) => !ids.has(card.id) && !(card.parent && ids.has(card.parent));
	const others = shown.filter(stays);
	const at = shown.findIndex(({ id }) => id === moving[0]!.id);
	const target = shown.slice(0, at).filter(stays).length + by;
	if (target < 0 || target > others.length) return undefined;
	return target === 0 ? null : others[target - 1]!.id;
}
