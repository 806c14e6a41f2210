import { byValue, sorted, valuesAmong, type Arrangement } from '$core/board/arrange';
import type { Field } from '$core/board/field';
import type { CardView } from '$core/pages/board';

/** A line of a list: a card, or the name of the group that begins there, with its cards. */
export type Row = { key: string; card: CardView } | { key: string; name: string; cards: CardView[] };

export const isCard = (row: Row): row is Extract<Row, { card: CardView }> => 'card' in row;

/** The lines of a list: its cards in their order, in groups as the board is arranged. */
export function listRows(
	cards: readonly CardView[],
	{ by, sort }: Arrangement,
	fields: readonly Field[],
): Row[] {
	const inOrder = sorted(cards, sort, fields);
	if (!by) return inOrder.map((card) => ({ key: card.id, card }));
	const groups = byValue(by, inOrder);
	return valuesAmong(by, inOrder).flatMap(({ key, name }) => {
		const there = groups.get(key);
		if (!there) return [];
		return [
			{ key: `group ${key}`, name, cards: there },
			...there.map((card) => ({ key: `${key} ${card.id}`, card })),
		];
	});
}
