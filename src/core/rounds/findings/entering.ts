import type { RoundsCard, RoundsState } from '../state.ts';

/**
 * Cards that are worked on in the running sprint, or are in one that starts tomorrow, with where they are in words. A card
 * with sub-cards is none: those are sized and owned.
 */
export function entering({
	cards,
	columns,
	sprint,
	next,
	today,
}: RoundsState): { card: RoundsCard; where: string }[] {
	const starting = next && next.starts === today + 1 ? next.number : null;
	return cards.flatMap((card) => {
		if (card.hasParts || card.clock === 'done') return [];
		const column = card.column === null ? undefined : columns[card.column];
		if (sprint && card.sprint === sprint.number && column?.kind === 'work')
			return [{ card, where: `in ${column.name}` }];
		if (starting !== null && card.sprint === starting)
			return [{ card, where: 'in the sprint that starts tomorrow' }];
		return [];
	});
}
